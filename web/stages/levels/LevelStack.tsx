import { useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import styled from 'styled-components';
import { optionOf } from '#core/project';
import { formatNumber } from '#core/units';
import { dispatch, useApp, useAppPick } from '../../app/store.ts';
import { useChain, useWorks } from '../../app/selectors.ts';
import { FONT } from '../../app/theme.ts';
import { withLevel } from '../../works/levels.ts';
import { type StackMark, chainMarks, currentLevel, stackOf } from './stack.ts';

const Frame = styled.section`
  display: flex;
  flex-direction: column;
  padding: 14px 8px 16px 12px;
  border-left: 1px solid var(--line);
  min-height: 0;
  height: 100%;
  width: 142px;
  @media (max-width: 700px) {
    width: 220px;
    border-left: 0;
  }
  h3 {
    font: 700 12.5px/1.2 ${FONT.text};
    color: var(--muted);
  }
`;
const Body = styled.div`
  position: relative;
  flex: 1;
  margin: 26px 0 22px;
`;
const Rail = styled.div`
  position: absolute;
  left: 12px;
  top: 0;
  bottom: 0;
  border-left: 1.5px solid var(--ink);
`;
const Water = styled.div`
  position: absolute;
  left: 7px;
  width: 11px;
  background: var(--water);
  opacity: 0.85;
`;
const Mark = styled.div<{ $colour: string; $canDrag: boolean }>`
  position: absolute;
  left: 0;
  right: 0;
  transform: translateY(-50%);
  padding-left: 30px;
  color: ${({ $colour }) => $colour};
  font-size: 12.5px;
  line-height: 1.15;
  cursor: ${({ $canDrag }) => ($canDrag ? 'ns-resize' : 'default')};
  touch-action: none;
  &::before {
    content: '';
    position: absolute;
    left: 2px;
    width: 22px;
    top: 50%;
    border-top: 2.5px solid ${({ $colour }) => $colour};
  }
  b {
    /* Longer names take a second line. */
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    font-weight: 700;
    overflow: hidden;
  }
  span {
    font-family: ${FONT.figures};
  }
`;
const Step = styled.i`
  position: absolute;
  right: 0;
  transform: translateY(-50%);
  font: italic 400 11.5px ${FONT.figures};
  color: var(--muted);
`;

const COLOUR: Readonly<Record<StackMark['role'], string>> = {
  crest: 'var(--mossText)',
  sill: 'var(--ink)',
  water: 'var(--water)',
  floor: 'var(--ink)',
  ground: 'var(--muted)',
  low: 'var(--alarm)',
};

let gesture = 0;

/** All levels of the selected chain in true order, with the millimetres between neighbours; drag one, or use its arrow keys. */
export function LevelStack(): ReactNode {
  const { host, ids } = useChain();
  const { result, system } = useAppPick('result', 'system');
  const works = useWorks();
  const body = useRef<HTMLDivElement>(null);
  const marks = stackOf(chainMarks(result, works, ids));
  // A work that is not computed has no levels to stack.
  const isComputed = result === null || result.view.marks.some((m) => m.work === host?.id);
  if (!host || marks.length === 0 || !isComputed) return null;
  const floor = marks.filter((m) => m.role === 'floor').at(-1);
  const water = marks.find((m) => m.role === 'water');
  const perM = (): number => {
    const height = body.current?.clientHeight ?? 300;
    const total = marks[0].levelM - marks[marks.length - 1].levelM;
    return height / Math.max(0.2, total);
  };
  const set = (mark: StackMark, levelM: number, name: string): void => {
    if (mark.path !== null) dispatch(withLevel(mark.work, mark.path, levelM), name);
  };
  const startDrag =
    (mark: StackMark) =>
    (event: PointerEvent): void => {
      if (mark.path === null) return;
      const [startY, scale, name] = [event.clientY, perM(), `stack-${++gesture}`];
      const move = (e: globalThis.PointerEvent): void => set(mark, mark.levelM - (e.clientY - startY) / scale, name);
      const end = (): void => {
        window.removeEventListener('pointermove', move);
        window.removeEventListener('pointerup', end);
      };
      window.addEventListener('pointermove', move);
      window.addEventListener('pointerup', end);
    };
  const onKey =
    (mark: StackMark) =>
    (event: KeyboardEvent): void => {
      const by = { ArrowUp: 0.01, ArrowRight: 0.01, ArrowDown: -0.01, ArrowLeft: -0.01, PageUp: 0.1, PageDown: -0.1 }[event.key];
      if (by === undefined || mark.path === null) return;
      event.preventDefault();
      // From the document as it is now: keys may repeat faster than the page is drawn.
      const { history } = useApp.getState();
      if (history) set(mark, currentLevel(optionOf(history.project).works, mark) + by, `keys-${mark.id}`);
    };
  const words = (mark: StackMark, i: number): string => {
    const level = `${formatNumber(mark.levelM, 'level', system)} ${system === 'metric' ? 'metres' : 'feet'}`;
    return mark.stepM === null
      ? level
      : `${level}, ${formatNumber(mark.stepM, 'difference', system)} ${system === 'metric' ? 'millimetres' : 'inches'} above ${marks[i + 1].name}`;
  };
  return (
    <Frame aria-label="Level stack">
      <h3>
        Level stack
        <br />
        {system === 'metric' ? 'm, mm between' : 'ft, inches between'}
      </h3>
      <Body ref={body}>
        <Rail />
        {floor && water && <Water style={{ top: `${water.place * 100}%`, height: `${(floor.place - water.place) * 100}%` }} />}
        {marks.map((mark, i) => (
          <Mark
            key={mark.id}
            $colour={COLOUR[mark.role]}
            $canDrag={mark.path !== null}
            style={{ top: `${mark.place * 100}%` }}
            data-testid={`mark-${mark.role}`}
            onPointerDown={startDrag(mark)}
            onKeyDown={onKey(mark)}
            {...(mark.path === null
              ? {}
              : {
                  role: 'slider',
                  tabIndex: 0,
                  'aria-label': mark.name,
                  'aria-orientation': 'vertical' as const,
                  'aria-valuenow': Number(mark.levelM.toFixed(3)),
                  'aria-valuetext': words(mark, i),
                  'aria-valuemin': Math.floor(mark.levelM - 5),
                  'aria-valuemax': Math.ceil(mark.levelM + 5),
                })}
          >
            <b>
              {mark.name
                .replace(`${host.name}: `, '')
                .replace(`${host.name} `, '')
                .replace(/^./, (c) => c.toUpperCase())}
            </b>
            <span>{formatNumber(mark.levelM, 'level', system)}</span>
          </Mark>
        ))}
        {marks.slice(0, -1).map((mark, i) => (
          <Step key={mark.id} style={{ top: `${50 * (mark.place + marks[i + 1].place)}%` }}>
            {formatNumber(mark.stepM, 'difference', system)}
          </Step>
        ))}
      </Body>
    </Frame>
  );
}
