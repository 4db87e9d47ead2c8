// Which parts of sheets the reader has folded: a habit of this browser, not of a project.
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

const useFolds = create<{ readonly folded: readonly string[] }>(() => ({ folded: kept() }));

/** Whether a part is folded, and how to turn it; it is remembered where the browser lets it. */
export function useFold(title: string): readonly [isOpen: boolean, setOpen: (isOpen: boolean) => void] {
  const isOpen = useFolds((s) => !s.folded.includes(title));
  const setOpen = (open: boolean): void => {
    const folded = [...useFolds.getState().folded.filter((t) => t !== title), ...(open ? [] : [title])];
    useFolds.setState({ folded });
    try {
      localStorage.setItem(KEY, JSON.stringify(folded));
    } catch {
      // The browser keeps nothing: the habit lasts for this visit.
    }
  };
  return [isOpen, setOpen];
}
