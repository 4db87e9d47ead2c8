import type { ReactNode } from 'react';
import { dispatch, useApp } from '../../app/store.ts';
import { checksOf, useChain, useDerived, useFormat, useWorks } from '../../app/selectors.ts';
import { CheckItem, Fact, Muted, Part, Quantity, SheetTitle } from '../../kit/index.ts';
import { withLevel } from '../../works/levels.ts';
import { ChooseWork } from '../works/ChooseWork.tsx';
import { chainMarks } from './stack.ts';

/** The levels of the selected chain as numbers to type, highest first. */
export function LevelsSheet(): ReactNode {
  const { host, ids } = useChain();
  const result = useApp((s) => s.result);
  const works = useWorks();
  const derived = useDerived();
  const format = useFormat();
  if (!host)
    return (
      <>
        <SheetTitle>Levels</SheetTitle>
        <ChooseWork />
      </>
    );
  const marks = chainMarks(result, works, ids);
  return (
    <>
      <SheetTitle>Levels of {host.name}</SheetTitle>
      <Muted>Highest first. Each decides who spills, and when: typing one moves it alone.</Muted>
      <ChooseWork />
      <Part title="Levels">
        {marks.map((mark, i) => {
          const next = marks[i + 1];
          return (
            <div key={mark.id}>
              {mark.path === null ? (
                <Fact label={mark.name} value={format(mark.levelM, 'level')} />
              ) : (
                <Quantity
                  label={mark.name}
                  value={mark.levelM}
                  kind="level"
                  onChange={(v) => dispatch(withLevel(mark.work, mark.path ?? '', v))}
                />
              )}
              {next && <Muted style={{ textAlign: 'right' }}>{format(mark.levelM - next.levelM, 'difference')}</Muted>}
            </div>
          );
        })}
      </Part>
      <Part title="Checks on levels">
        {checksOf(derived, ids)
          .filter((c) => c.isOfLevels)
          .map((c, i) => (
            <CheckItem key={`${c.id}${c.on}${i}`} check={c} />
          ))}
      </Part>
    </>
  );
}
