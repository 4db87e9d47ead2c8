import { useState, type ReactNode } from 'react';
import type { QuickAsked } from '#core/derive';
import { spoken } from '#core/units';
import { COVERING_SHARE, newRoof, newTank } from '#core/works';
import { useFormat, useProject } from '../../app/selectors.ts';
import { addNeed, hasDays, useSeason } from '../../app/season.ts';
import { dispatch, useApp } from '../../app/store.ts';
import { Button, Fact, Muted, Part, Quantity } from '../../kit/index.ts';

const freshId = (what: string): string => `${what}-${crypto.randomUUID().slice(0, 8)}`;
const thousandth = (v: number): number => Math.round(v * 1000) / 1000;

/** Keeps the answer as a roof, a tank under it and a need: square and round, to be given their true shapes. */
function keep({ roofM2, litresADay, tankL }: QuickAsked): void {
  const side = Math.sqrt(roofM2);
  const [roofId, tankId] = [freshId('caught'), freshId('kept')];
  const roof = newRoof(roofId, 'Roof', { ring: [[0, 0], [side, 0], [side, side], [0, side]] }); // prettier-ignore
  const first = newTank(tankId, 'Tank', { how: 'cistern', at: [side + 2, -1] });
  const { overflowM } = first.dimensions;
  const diameterM = thousandth(Math.sqrt((4 * tankL) / 1000 / Math.PI / overflowM));
  const tank = { ...first, dimensions: { ...first.dimensions, diameterM, topM: diameterM } };
  if (!dispatch({ type: 'works.add', payload: { works: [roof, tank] } })) return;
  dispatch({ type: 'link.set', payload: { outlet: `${roofId}#down`, to: tankId } });
  addNeed({ id: freshId('need'), name: 'House', store: tankId, kind: 'daily', count: 1, each: litresADay });
}

/** A roof, a use and a tank: an answer in a sentence, before anything is drawn. */
export function QuickPart(): ReactNode {
  const project = useProject();
  const format = useFormat();
  const system = useApp((s) => s.system);
  const [asked, ask] = useState<QuickAsked>({ roofM2: 100, share: COVERING_SHARE.metal, litresADay: 200, tankL: 5000 });
  const answer = useSeason('quick', hasDays(project) ? asked : null);
  const change = (part: Partial<QuickAsked>): void => ask({ ...asked, ...part });
  return (
    <Part title="How big a tank?">
      <Quantity label="Roof, from above" kind="area" value={asked.roofM2} min={1} max={100_000} onChange={(roofM2) => change({ roofM2 })} />
      <Quantity label="Used in a day" kind="liquid" value={asked.litresADay / 1000} min={0.001} max={1000} onChange={(v) => change({ litresADay: v * 1000 })} />
      <Quantity label="Tank" kind="liquid" value={asked.tankL / 1000} min={0.01} max={100_000} onChange={(v) => change({ tankL: v * 1000 })} />
      {!hasDays(project) && <Muted>Bring in a gauge’s record under Rain, or give monthly rain under The place.</Muted>}
      {answer && (
        <>
          <p role="status">
            <strong>{spoken(answer.says, system)}</strong>
          </p>
          {answer.bendL !== null && <Fact label="Beyond this more room brings little" value={format(answer.bendL / 1000, 'liquid')} />}
          <Muted>
            {answer.isMade ? 'By days made from monthly figures: real years differ more. ' : `By ${answer.years} years of the record. `}A metal
            roof, the first millimetre of each rain let go.
          </Muted>
          {project.terrain ? (
            <Muted>To keep it, draw the roof and the tank under Works.</Muted>
          ) : (
            <Button look="strong" onPress={() => keep(asked)}>
              Keep as a roof and a tank
            </Button>
          )}
        </>
      )}
    </Part>
  ); // prettier-ignore
}
