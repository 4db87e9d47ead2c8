import { useState, type ReactNode } from 'react';
import { Heading } from 'react-aria-components';
import styled from 'styled-components';
import { CODE_USES, HOLDS, type CodeUse, type Holds, type LevelUnit, type PointColumn, isPlaced } from '#core/formats';
import { formatNumber } from '#core/units';
import { Button, Choose, FileQuestion, Inline, Muted, Row } from '../kit/index.ts';
import type { PointsAsked } from './asked.ts';
import { useApp } from './store.ts';

const Scrolled = styled.div`
  overflow-x: auto;
  margin: 12px 0;
`;
const Table = styled.table`
  border-collapse: collapse;
  min-width: 100%;
  th {
    text-align: left;
    font-weight: 600;
  }
  td,
  th {
    padding: 4px 14px 4px 0;
    border-bottom: 1px solid var(--line);
    white-space: nowrap;
    max-width: 15em;
    overflow: hidden;
    text-overflow: ellipsis;
    font-variant-numeric: tabular-nums;
  }
`;

/** Puts the question away with its answer. */
function close(how: Parameters<PointsAsked['done']>[0]): void {
  const asked = useApp.getState().pointsAsked;
  useApp.setState({ pointsAsked: null });
  asked?.done(how);
}

const HOLD_NAMES: Readonly<Record<Holds, string>> = {
  x: 'Easting',
  y: 'Northing',
  z: 'Level',
  lon: 'Longitude',
  lat: 'Latitude',
  code: 'What was read there',
  none: 'Not used',
};
const HOLD_CHOICES = HOLDS.map((id) => ({ id, name: HOLD_NAMES[id] }));
const USE_NAMES: Readonly<Record<CodeUse, string>> = {
  spot: 'Single levels',
  line: 'One line, in this order',
  runs: 'A line for each run of them',
  outline: 'Edge of the survey',
  leave: 'No ground: left out',
};
const USE_CHOICES = CODE_USES.map((id) => ({ id, name: USE_NAMES[id] }));
const UNITS = [
  { id: 'm', name: 'metres' },
  { id: 'ft', name: 'feet' },
] as const;

const counted = (n: number): string => formatNumber(n, 'count', 'metric');
const called = ({ header }: PointColumn, k: number): string => header ?? `Column ${k + 1}`;

/** What is still to say before points have a place and a level; null where nothing is. */
function missing(holds: readonly Holds[]): string | null {
  if (isPlaced(holds)) return null;
  const twice = HOLDS.find((one) => one !== 'none' && one !== 'code' && holds.filter((h) => h === one).length > 1);
  if (twice) return `Two columns are ${HOLD_NAMES[twice].toLowerCase()}s: one can be.`;
  if (!holds.includes('z')) return 'Say which column holds the level.';
  return 'Say which columns hold easting and northing, or longitude and latitude.';
}

function Columns({ columns, holds, onChange }: { readonly columns: readonly PointColumn[]; readonly holds: readonly Holds[]; readonly onChange: (k: number, what: Holds) => void }): ReactNode {
  return (
    <Scrolled>
      <Table>
        <thead>
          <tr>
            {columns.map((column, k) => (
              <th key={k} scope="col">
                <div>{called(column, k)}</div>
                <Choose isLabelHidden label={`${called(column, k)} holds`} value={holds[k]} choices={HOLD_CHOICES} onChange={(what) => onChange(k, what)} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {columns[0].cells.map((_, row) => (
            <tr key={row}>
              {columns.map(({ cells }, k) => (
                <td key={k}>{cells[row]}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </Scrolled>
  );
} // prettier-ignore

function Codes({ column, uses, onChange }: { readonly column: PointColumn; readonly uses: Readonly<Record<string, CodeUse>>; readonly onChange: (code: string, use: CodeUse) => void }): ReactNode {
  if (column.codes.length === 0) return <Muted>Its words differ from point to point: they make nothing of the points.</Muted>;
  return (
    <Scrolled style={{ maxHeight: '34vh', overflowY: 'auto' }}>
      <Table>
        <thead>
          <tr>
            <th scope="col">Read there</th>
            <th scope="col">Points</th>
            <th scope="col">They are</th>
          </tr>
        </thead>
        <tbody>
          {column.codes.map(({ code, count, likely }) => (
            <tr key={code}>
              <td>{code}</td>
              <td>{counted(count)}</td>
              <td>
                <Choose isLabelHidden label={`${code}, taken as`} value={uses[code] ?? likely} choices={USE_CHOICES} onChange={(use) => onChange(code, use)} />
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scrolled>
  );
} // prettier-ignore

function Question({ file, table: { columns, points } }: PointsAsked): ReactNode {
  const [holds, setHolds] = useState<readonly Holds[]>(columns.map((c) => c.holds));
  const [uses, setUses] = useState<Readonly<Record<string, CodeUse>>>({});
  const [unit, setUnit] = useState<LevelUnit>('m');
  const lacks = missing(holds);
  const coded = columns.at(holds.indexOf('code'));
  const said = coded && holds.includes('code') ? coded : null;
  const take = (): void => {
    const codes = said ? Object.fromEntries(said.codes.map(({ code, likely }) => [code, uses[code] ?? likely])) : {};
    close({ points: { columns: holds, codes }, ...(unit === 'm' ? {} : { levelsIn: unit }) });
  };
  return (
    <>
      <Heading slot="title">{file.name}: what do its columns hold?</Heading>
      <p>
        {counted(points)} points. What is set here was guessed from their names and numbers; put right what is not so.
      </p>
      <Columns columns={columns} holds={holds} onChange={(k, what) => setHolds(holds.map((h, at) => (at === k ? what : h)))} />
      <Row>
        <Choose label="Levels are in" value={unit} choices={UNITS} onChange={(id) => setUnit(id)} />
      </Row>
      {said && (
        <>
          <Muted>
            No triangle of the ground crosses a line: a ditch stays open, a bank stays a bank. Beyond the edge of the survey there is no ground.
          </Muted>
          <Codes column={said} uses={uses} onChange={(code, use) => setUses({ ...uses, [code]: use })} />
        </>
      )}
      {lacks !== null && <p role="status">{lacks}</p>}
      <Inline style={{ marginTop: 14 }}>
        <Button look="strong" isDisabled={lacks !== null} onPress={take}>
          Make ground of them
        </Button>
        <Button look="quiet" onPress={() => close(null)}>
          Leave it
        </Button>
      </Inline>
    </>
  );
} // prettier-ignore

/** Asks what the columns of a table of points hold, and what its words make of them. */
export function PointsDialog(): ReactNode {
  const asked = useApp((s) => s.pointsAsked);
  if (!asked) return null;
  return (
    <FileQuestion width={820} onLeave={() => close(null)}>
      <Question key={asked.file.name} {...asked} />
    </FileQuestion>
  );
}
