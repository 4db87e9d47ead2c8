import type { ReactNode } from 'react';
import { useLand } from '../../app/land.ts';
import { useApp } from '../../app/store.ts';
import { useWorks } from '../../app/selectors.ts';
import { Muted, SheetTitle } from '../../kit/index.ts';
import { workUi } from '../../works/index.ts';
import { AdvicePart } from './AdvicePart.tsx';
import { ChooseOption, OptionsPart } from './OptionsPart.tsx';
import { ChooseWork } from './ChooseWork.tsx';

/** The selected work's own sheet, or how to make the first one. */
export function WorksSheet(): ReactNode {
  const works = useWorks();
  const selected = useApp((s) => s.selected);
  const answer = useLand((s) => s.answer);
  const work = works.find((w) => w.id === selected);
  if (!work) {
    return (
      <>
        <SheetTitle>Works</SheetTitle>
        <ChooseOption />
        {answer?.kind === 'advice' ? (
          <AdvicePart key={JSON.stringify(answer.place)} place={answer.place} />
        ) : (
          <Muted>Pick one on the plan or here. Where you wonder which, ask “What suits here?” on the plan.</Muted>
        )}
        <ChooseWork />
        <OptionsPart />
      </>
    );
  }
  const { Sheet } = workUi(work.kind);
  return (
    <>
      <ChooseOption />
      <ChooseWork />
      <Sheet work={work} />
      <OptionsPart />
    </>
  );
}
