import { Check, X } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { Point } from '#core/geometry';
import type { WaterAt } from '#core/terrain';
import { amount, say, spoken } from '#core/units';
import { type LandAnswer, setLand, useAsk, useLand } from '../../app/land.ts';
import { newId, useFormat } from '../../app/selectors.ts';
import { dispatch, select, useApp } from '../../app/store.ts';
import { Button, Fact, Inline, Muted, Part, Quantity, Table } from '../../kit/index.ts';
import { askSection } from '../../plan/ask-tools.ts';
import { TRENCH_GRADE } from '../../plan/land-items.ts';

const close = (): void => setLand({ answer: null });

/** Keeps a line that the land answered with as a line of the user's own. */
function adopt(name: string, line: readonly Point[]): void {
  const id = newId('line');
  if (dispatch({ type: 'feature.add', payload: { feature: { id, kind: 'line', name, line } } })) {
    select(id);
    close();
  }
}

function Buttons({ onAdopt }: { readonly onAdopt?: () => void }): ReactNode {
  return (
    <Inline>
      {onAdopt && (
        <Button onPress={onAdopt}>
          <Check size={15} aria-hidden />
          Keep it as a line
        </Button>
      )}
      <Button look="quiet" onPress={close}>
        <X size={15} aria-hidden />
        Put it away
      </Button>
    </Inline>
  );
}

function ContourAnswer({ answer }: { readonly answer: Extract<LandAnswer, { kind: 'contour' }> }): ReactNode {
  const system = useApp((s) => s.system);
  const name = spoken(say`Contour ${amount(answer.levelM, 'level')}`, system);
  return (
    <Part title={name}>
      <Muted>Every place on it lies at the same level: a line for a swale, a row or a fence.</Muted>
      <Buttons onAdopt={() => adopt(name, answer.line)} />
    </Part>
  );
}

function FallAnswer({ answer }: { readonly answer: Extract<LandAnswer, { kind: 'fall' }> }): ReactNode {
  const system = useApp((s) => s.system);
  const format = useFormat();
  const args = { from: answer.from, to: answer.to, gradeM: TRENCH_GRADE };
  const found = useAsk('fall', args);
  if (found === undefined) return <Muted>Looking for a way…</Muted>;
  if (found === null) return <Muted>One of the places lies off the ground, or no data parts them.</Muted>;
  const { fallM, trench, line } = found;
  const told =
    fallM <= 0
      ? say`No. The outfall lies ${amount(-fallM, 'length')} higher than the wet place: water would have to be pumped.`
      : trench.spareM < 0
        ? say`Too little: it falls ${amount(fallM, 'length')}, and a trench at ${amount(TRENCH_GRADE, 'slope')} needs ${amount(-trench.spareM, 'length')} more.`
        : trench.deepestM < 0.05
          ? say`Yes: it falls ${amount(fallM, 'length')}, over open ground all the way.`
          : say`Yes: it falls ${amount(fallM, 'length')}, but the ground between needs a trench up to ${amount(trench.deepestM, 'length')} deep, deepest ${amount(trench.deepestAtM, 'distance')} from the wet place.`;
  return (
    <Part title="Is there any fall?">
      <p>{spoken(told, system)}</p>
      <Fact label="Length of the way" value={format(found.lengthM, 'length')} />
      <Fact label="Mean fall" value={format(found.slope, 'slope')} />
      <Fact label="Highest ground on it" value={format(found.passM, 'level')} />
      {trench.deepestM > 1.2 && <Muted>Deeper than 1.2 m: trench walls fall in. Shore it or slope it back, as your local rules say.</Muted>}
      <Button look="quiet" onPress={() => void askSection(line)}>
        Show its long section
      </Button>
      <Buttons onAdopt={() => adopt('Line of fall', line)} />
    </Part>
  );
}

function WallAnswer({ answer }: { readonly answer: Extract<LandAnswer, { kind: 'wall' }> }): ReactNode {
  const format = useFormat();
  const system = useApp((s) => s.system);
  const [levelM, setLevel] = useState<number | null>(null);
  const args = { line: answer.line, ...(levelM === null ? {} : { levelM }) };
  const found = useAsk('storage', args);
  if (found === undefined) return <Muted>Filling it…</Muted>;
  if (found === null) return <Muted>Nothing gathers behind that line: water goes round it. Draw it right across the valley.</Muted>;
  const { at, wall, fullM, stage } = found;
  const told = say`At ${amount(at.levelM, 'level')} it holds ${amount(at.volumeM3, 'volume')} over ${amount(at.areaM2, 'area')}, for ${amount(wall.earthM3, 'volume')} of earth: ${(at.volumeM3 / Math.max(1, wall.earthM3)).toFixed(1)} to 1.`;
  return (
    <Part title="What a wall here would hold">
      <p>{spoken(told, system)}</p>
      <Quantity
        label="Water level"
        kind="level"
        value={levelM ?? at.levelM}
        onChange={setLevel}
        help="No higher than where water goes round its ends."
      />
      <Fact label="Goes round its ends at" value={format(fullM, 'level')} />
      <Fact label="Reaches back" value={format(at.throwbackM, 'length')} />
      <Fact label="Shoreline" value={format(at.shorelineM, 'length')} />
      <Fact label="Wall: length, greatest height" value={`${format(wall.lengthM, 'length')}, ${format(wall.highestM, 'length')}`} />
      <StageTable stage={stage} />
      <Muted>
        Earth for a crest 2.5 m wide and 1 m above the water, sides 3 to 1 and 2 to 1: common practice. A wall that holds water above people
        needs an engineer and, in most places, a permit.
      </Muted>
      <Buttons />
    </Part>
  );
}

/** Level, area and volume as a table: every other stage is enough to read. */
function StageTable({ stage }: { readonly stage: readonly WaterAt[] }): ReactNode {
  const format = useFormat();
  return (
    <Table
      caption="Level, area and volume"
      head={['level', 'area', 'volume']}
      rows={stage
        .filter((_, k) => k % 2 === 0)
        .map((s) => [format(s.levelM, 'level'), format(s.areaM2, 'area'), format(s.volumeM3, 'volume')])}
    />
  );
}

function HollowAnswer({ answer }: { readonly answer: Extract<LandAnswer, { kind: 'hollow' }> }): ReactNode {
  const format = useFormat();
  const found = useAsk('hollowAt', { at: answer.at });
  if (found === undefined) return <Muted>Filling it…</Muted>;
  if (found === null) return <Muted>There is no hollow here any more.</Muted>;
  const { full, stage } = found;
  return (
    <Part title="Storage of the hollow">
      <Fact label="Spills at" value={format(full.levelM, 'level')} />
      <Fact label="Water when full" value={`${format(full.volumeM3, 'volume')}, ${format(full.areaM2, 'area')}`} />
      <Fact label="Shoreline" value={format(full.shorelineM, 'length')} />
      <StageTable stage={stage} />
      <Buttons />
    </Part>
  );
}

/** The answer in hand, until it is put away or kept. */
export function AnswerPart(): ReactNode {
  const answer = useLand((s) => s.answer);
  if (answer?.kind === 'contour') return <ContourAnswer answer={answer} />;
  if (answer?.kind === 'fall') return <FallAnswer answer={answer} />;
  if (answer?.kind === 'hollow') return <HollowAnswer answer={answer} />;
  return answer?.kind === 'wall' ? <WallAnswer key={JSON.stringify(answer.line)} answer={answer} /> : null;
}
