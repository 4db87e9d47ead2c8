import { CloudRain, ClipboardPaste, Upload } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { FileTrigger } from 'react-aria-components';
import useSWR from 'swr';
import { type RainTable, type TableLimits, checkTable, isInvented } from '#core/rain';
import { bringIn } from '../../app/import.ts';
import { takeTable } from '../../app/rain.ts';
import { useProject } from '../../app/selectors.ts';
import { Button, Inline, Muted, Part, Problems } from '../../kit/index.ts';
import { CurvePart } from './CurvePart.tsx';
import { MemoryPart } from './MemoryPart.tsx';
import { PasteTable } from './PasteTable.tsx';
import { TableEditor } from './TableEditor.tsx';

const FIRST_TABLE: RainTable = {
  durationsMin: [10, 60, 120, 1440],
  returnYears: [2, 10, 20],
  depthMm: [
    [10, 22, 28, 66],
    [15, 35, 45, 101],
    [18, 41, 52, 116],
  ],
};

interface ServiceTable {
  readonly table: RainTable;
  readonly limits: TableLimits;
  readonly source: string;
}

async function fetchTable(url: string): Promise<ServiceTable> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(String(response.status));
  return (await response.json()) as ServiceTable;
}

/** The stand-in for a rainfall-frequency service; it is off when the server is not there. */
function FromService(): ReactNode {
  const [isAsked, ask] = useState(false);
  const { data, error } = useSWR<ServiceTable, Error>(isAsked ? '/api/rainfall-frequency?wetness=1' : null, fetchTable, {
    revalidateOnFocus: false,
    shouldRetryOnError: false,
  });
  return (
    <>
      <Button onPress={() => ask(true)}>
        <CloudRain size={16} aria-hidden />
        Ask the rainfall service (simulated)
      </Button>
      {error && <Muted>The service does not answer, so it is off. Type the table or bring in a file.</Muted>}
      {data && (
        <Inline>
          <Muted>
            {data.source}: {data.table.returnYears.length} return periods, {data.table.durationsMin.length} durations.
          </Muted>
          <Button onPress={() => takeTable({ table: data.table, limits: data.limits, source: data.source, basis: 'simulated' })}>
            Use this table
          </Button>
        </Inline>
      )}
    </>
  );
}

/** The table of depths: where it comes from, its figures, the curve through it. */
export function TablePart(): ReactNode {
  const { rain } = useProject();
  const [way, choose] = useState<'paste' | 'memory' | null>(null);
  const problems = rain ? checkTable(rain.table) : [];
  const toggle = (to: 'paste' | 'memory'): void => choose(way === to ? null : to);
  return (
    <>
      <Part title="Depth by duration and return period">
        {rain ? <TableEditor rain={rain} /> : <Muted>No table yet. Choose one of these ways to begin.</Muted>}
        {problems.length > 0 && (
          <Problems
            title="The table is not sound"
            problems={problems.map((p) => ({ code: p.code, what: p.what, where: {}, do: 'Correct it' }))}
          />
        )}
        {rain?.source !== undefined && (
          <Muted style={rain.basis === 'memory' ? { color: 'var(--strawText)' } : {}}>
            From: {rain.source}.
            {rain.limits
              ? rain.basis === 'memory'
                ? ' Its spread is kept.'
                : ' Its limits are kept: nine times in ten the truth lies between them.'
              : ''}
          </Muted>
        )}
        {rain && isInvented(rain) && (
          <Inline>
            <Button onPress={() => takeTable({ ...rain, source: 'said to be right for this place', basis: 'table' })}>
              It is right for my place
            </Button>
            <Muted style={{ color: 'var(--alarm)' }}>This rain is not yours yet: type over what is different.</Muted>
          </Inline>
        )}
        <Inline>
          <FileTrigger acceptedFileTypes={['.csv', '.txt']} onSelect={(files) => files?.[0] && void bringIn(files[0])}>
            <Button>
              <Upload size={16} aria-hidden />
              Bring in a CSV
            </Button>
          </FileTrigger>
          <Button onPress={() => toggle('paste')}>
            <ClipboardPaste size={16} aria-hidden />
            Paste a table
          </Button>
          <Button onPress={() => toggle('memory')}>Guess from memory</Button>
          {!rain && (
            <Button onPress={() => takeTable({ table: FIRST_TABLE, source: 'an example to type over', basis: 'example' })}>
              Begin with a table to type over
            </Button>
          )}
          <FromService />
        </Inline>
        {way === 'paste' && <PasteTable onTaken={() => choose(null)} />}
        {way === 'memory' && <MemoryPart onTaken={() => choose(null)} />}
        <Muted>
          A sample file:{' '}
          <a href="/samples/sample-rain.csv" download>
            sample-rain.csv
          </a>
        </Muted>
      </Part>
      {rain && <CurvePart rain={rain} />}
    </>
  );
}
