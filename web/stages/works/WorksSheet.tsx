import type { ReactNode } from 'react';
import { useApp } from '../../app/store.ts';
import { useWorks } from '../../app/selectors.ts';
import { Muted, SheetTitle } from '../../kit/index.ts';
import { workUi } from '../../works/index.ts';
import { ChooseWork } from './ChooseWork.tsx';

/** The selected work's own sheet, or how to make the first one. */
export function WorksSheet(): ReactNode {
  const works = useWorks();
  const selected = useApp((s) => s.selected);
  const work = works.find((w) => w.id === selected);
  if (!work) {
    return (
      <>
        <SheetTitle>Works</SheetTitle>
        <Muted>Pick one on the plan or here.</Muted>
        <ChooseWork />
      </>
    );
  }
  const { Sheet } = workUi(work.kind);
  return (
    <>
      <ChooseWork />
      <Sheet work={work} />
    </>
  );
}
