// Which parts of sheets the reader has left other than they start, folded or open: a habit of this browser, not of a project.
import { create } from 'zustand';

const KEY = 'outlet-folded';

function kept(): readonly string[] {
  try {
    const list: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    return Array.isArray(list) ? list.filter((v) => typeof v === 'string') : [];
  } catch {
    return [];
  }
}

const useFolds = create<{ readonly turned: readonly string[] }>(() => ({ turned: kept() }));

/** Whether a part is folded, and how to turn it; it is remembered where the browser lets it. */
export function useFold(title: string, startsOpen: boolean): readonly [isOpen: boolean, setOpen: (isOpen: boolean) => void] {
  const isOpen = useFolds((s) => s.turned.includes(title)) !== startsOpen;
  const setOpen = (open: boolean): void => {
    const others = useFolds.getState().turned.filter((t) => t !== title);
    const turned = open === startsOpen ? others : [...others, title];
    useFolds.setState({ turned });
    try {
      localStorage.setItem(KEY, JSON.stringify(turned));
    } catch {
      // The browser keeps nothing: the habit lasts for this visit.
    }
  };
  return [isOpen, setOpen];
}
