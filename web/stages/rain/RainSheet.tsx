import { CloudRain, Upload } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { FileTrigger } from 'react-aria-components';
import useSWR from 'swr';
import { type RainTable, checkTable } from '#core/rain';
import type { Rain } from '#core/project';
import { bringIn } from '../../app/import.ts';
import { stormDepthOf, useFormat, useProject } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { Button, Choose, Fact, Inline, Muted, Part, Problems, Quantity, Row, SheetTitle, Toggle } from '../../kit/index.ts';
import { StormBars } from './StormBars.tsx';
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
  readonly source: string;
}

async function fetchTable(url: string): Promise<ServiceTable> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(String(response.status));
  return (await response.json()) as ServiceTable;
}

function takeTable(table: RainTable, source: string, rain: Rain | null): boolean {
  const keep = rain && table.returnYears.includes(rain.storm.returnYears) ? rain.storm : null;
  return dispatch({
    type: 'rain.set',
    payload: {
      rain: {
        table,
        source,
        storm: keep ?? { returnYears: table.returnYears[Math.min(2, table.returnYears.length - 1)], durationMin: 120 },
      },
    },
  });
}

/** The stand-in for a rainfall-frequency service; it is off when the server is not there. */
function FromService({ rain }: { readonly rain: Rain | null }): ReactNode {
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
          <Button onPress={() => takeTable(data.table, data.source, rain)}>Use this table</Button>
        </Inline>
      )}
    </>
  );
}

function StormPart({ rain }: { readonly rain: Rain }): ReactNode {
  const project = useProject();
  const format = useFormat();
  const { storm, table } = rain;
  return (
    <Part title="Design storm">
      <Row>
        <span>Return period</span>
        <Choose
          label="Return period"
          isLabelHidden
          value={String(storm.returnYears)}
          choices={table.returnYears.map((y) => ({ id: String(y), name: `1 in ${y} years` }))}
          onChange={(y) => dispatch({ type: 'rain.set-storm', payload: { storm: { ...storm, returnYears: Number(y) } } })}
        />
      </Row>
      <Quantity
        label="Duration"
        value={storm.durationMin}
        kind="minutes"
        min={1}
        max={10080}
        onChange={(durationMin) => dispatch({ type: 'rain.set-storm', payload: { storm: { ...storm, durationMin } } })}
      />
      <Fact label="Depth" value={format(stormDepthOf(project), 'rain')} />
      <Toggle
        label="Count what soaks in during the storm"
        isOn={storm.soakage === true}
        onChange={(soakage) => dispatch({ type: 'rain.set-storm', payload: { storm: { ...storm, soakage } } })}
      />
      <StormBars />
    </Part>
  );
}

/** How hard it rains: the table, and the storm taken from it. */
export function RainSheet(): ReactNode {
  const { rain } = useProject();
  const problems = rain ? checkTable(rain.table) : [];
  return (
    <>
      <SheetTitle>Rain</SheetTitle>
      {rain ? <StormPart rain={rain} /> : <Muted>No table yet. Bring one in, ask the service, or begin with a table to type over.</Muted>}
      <Part title="Depth by duration and return period">
        {rain && <TableEditor rain={rain} />}
        {problems.length > 0 && (
          <Problems
            title="The table is not sound"
            problems={problems.map((p) => ({ code: p.code, what: p.what, where: {}, do: 'Correct it' }))}
          />
        )}
        <Inline>
          <FileTrigger acceptedFileTypes={['.csv', '.txt']} onSelect={(files) => files?.[0] && void bringIn(files[0])}>
            <Button>
              <Upload size={16} aria-hidden />
              Bring in a CSV
            </Button>
          </FileTrigger>
          {!rain && (
            <Button onPress={() => takeTable(FIRST_TABLE, 'typed by hand, to be replaced', null)}>Begin with a table to type over</Button>
          )}
          <FromService rain={rain} />
        </Inline>
        {rain?.source !== undefined && (
          <Muted>
            Table: {rain.source}. A sample file:{' '}
            <a href="/samples/sample-rain.csv" download>
              sample-rain.csv
            </a>
          </Muted>
        )}
      </Part>
    </>
  );
}
