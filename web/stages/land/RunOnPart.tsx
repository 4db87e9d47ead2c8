import { Suspense, useState, type ReactNode } from 'react';
import type { Line } from '#core/geometry';
import type { RunOn } from '#core/terrain';
import { displayUnit, toDisplay } from '#core/units';
import { useAsk } from '../../app/land.ts';
import { useFormat } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { Button, Fact, Muted, Part, Table } from '../../kit/index.ts';
import { lazily } from '../../kit/lazily.ts';

const { View: StretchBars } = lazily(() => import('./StretchBars.tsx'), 'StretchBars');

/** Area that comes onto each stretch of a line, as bars and as a table. */
function Along({ run }: { readonly run: RunOn }): ReactNode {
  const [isTable, setTable] = useState(false);
  const system = useApp((s) => s.system);
  const format = useFormat();
  const rows = run.stretches.map((s) => ({
    at: Math.round(toDisplay((s.fromM + s.toM) / 2, 'distance', system)),
    area: toDisplay(s.areaM2, 'area', system),
  }));
  return (
    <>
      <Muted>
        {run.isEven
          ? 'Fed evenly along its length.'
          : `Fed unevenly: ${Math.round(100 * run.tenthShare)} % comes onto one tenth of it, ${Math.round(100 * run.starvedShare)} % of it is starved.`}
      </Muted>
      <div role="img" aria-label="Area that comes onto each stretch" style={{ marginTop: 6 }}>
        <Muted>Area onto each stretch ({displayUnit('area', system).unit}), from its first end</Muted>
        <Suspense fallback={<div style={{ height: 96 }} />}>
          <StretchBars rows={rows} />
        </Suspense>
      </div>
      <Button look="quiet" aria-expanded={isTable} onPress={() => setTable(!isTable)}>
        {isTable ? 'Hide the table' : 'Stretches as a table'}
      </Button>
      {isTable && (
        <Table
          caption="What runs onto each stretch"
          head={['along it', 'area']}
          rows={run.stretches.map((s) => [`${format(s.fromM, 'distance')} to ${format(s.toM, 'distance')}`, format(s.areaM2, 'land')])}
        />
      )}
    </>
  );
}

/** What runs onto a line, metre by metre, or onto an area. */
export function RunOnPart({ line, ring }: { readonly line?: Line | undefined; readonly ring?: Line | undefined }): ReactNode {
  const format = useFormat();
  const found = useAsk('runOn', ring ? { ring } : line ? { line } : null);
  if (!found) return null;
  const { run, shape } = found;
  const land = format(run ? run.areaM2 : found.aboveM2, 'land');
  return (
    <Part title={run ? 'What runs onto it, and where' : 'What runs onto it'}>
      <Fact label="From the ground above" value={shape.touchesTerrainEdge ? `at least ${land}` : land} />
      {run && <Along run={run} />}
    </Part>
  );
}
