import { Plus } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import styled from 'styled-components';
import { type RainTable, withDuration, withReturn, withoutDuration, withoutReturn } from '#core/rain';
import type { Rain } from '#core/project';
import { displayUnit } from '#core/units';
import { takeTable } from '../../app/rain.ts';
import { useApp } from '../../app/store.ts';
import { FONT } from '../../app/theme.ts';
import { Button, Choose, Inline, Muted, Quantity } from '../../kit/index.ts';
import { minutesText } from './words.ts';

const Scroll = styled.div`
  overflow-x: auto;
`;
const Table = styled.table`
  border-collapse: collapse;
  font-family: ${FONT.figures};
  font-size: 14px;
  th {
    font-weight: 500;
    text-align: right;
    padding: 4px 6px;
    color: var(--muted);
    white-space: nowrap;
  }
  td {
    padding: 0 3px;
  }
  td > div {
    border-bottom: 0;
    min-height: 30px;
    justify-content: end;
  }
  td input {
    width: 3.5em;
  }
  td span span {
    display: none;
  }
`;

/** Rows a duration, columns a return period; every depth can be typed over. A change that makes the table unsound is refused. */
export function TableEditor({ rain }: { readonly rain: Rain }): ReactNode {
  const system = useApp((s) => s.system);
  const { table } = rain;
  const keep = (next: RainTable): void => {
    // Limits of another table are no limits of this one.
    takeTable({ table: next, source: 'typed by hand', basis: 'table' });
  };
  const set = (r: number, c: number, depth: number): void =>
    keep({ ...table, depthMm: table.depthMm.map((row, i) => (i === r ? row.map((v, k) => (k === c ? depth : v)) : row)) });
  return (
    <>
      <Scroll>
        <Table aria-label={`Rain depth in ${displayUnit('rain', system).unit}`}>
          <thead>
            <tr>
              <th scope="col">{displayUnit('rain', system).unit}</th>
              {table.returnYears.map((y) => (
                <th key={y} scope="col">
                  {y} yr
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.durationsMin.map((duration, c) => (
              <tr key={duration}>
                <th scope="row">{minutesText(duration)}</th>
                {table.returnYears.map((years, r) => (
                  <td key={years}>
                    <Quantity
                      isLabelHidden
                      label={`${minutesText(duration)}, 1 in ${years} years`}
                      value={table.depthMm[r][c]}
                      kind="rain"
                      min={0}
                      onChange={(v) => set(r, c, v)}
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
      <Lines table={table} keep={keep} />
    </>
  );
}

/** Rows and columns added and dropped. */
function Lines({ table, keep }: { readonly table: RainTable; readonly keep: (next: RainTable) => void }): ReactNode {
  const [minutes, setMinutes] = useState<number | null>(null);
  const [years, setYears] = useState<number | null>(null);
  const [dropped, drop] = useState('t0');
  const { durationsMin, returnYears } = table;
  const choices = [
    ...durationsMin.map((t, c) => ({ id: `t${c}`, name: minutesText(t) })),
    ...returnYears.map((y, r) => ({ id: `y${r}`, name: `1 in ${y} years` })),
  ];
  const at = Number(dropped.slice(1));
  const isDuration = dropped.startsWith('t');
  const canDrop = (isDuration ? durationsMin : returnYears).length > 1;
  return (
    <>
      <Inline>
        <Quantity isLabelHidden label="Another duration" value={minutes} kind="minutes" min={1} max={44640} onChange={setMinutes} />
        <Button
          look="quiet"
          isDisabled={minutes === null || durationsMin.includes(minutes)}
          onPress={() => {
            if (minutes !== null) keep(withDuration(table, minutes));
            setMinutes(null);
          }}
        >
          <Plus size={15} aria-hidden />
          Add this duration
        </Button>
      </Inline>
      <Inline>
        <Quantity isLabelHidden label="Another return period" value={years} kind="years" min={1} max={1000} onChange={setYears} />
        <Button
          look="quiet"
          isDisabled={years === null || returnYears.includes(years)}
          onPress={() => {
            if (years !== null) keep(withReturn(table, years));
            setYears(null);
          }}
        >
          <Plus size={15} aria-hidden />
          Add this return period
        </Button>
      </Inline>
      <Muted>What is added is read off the table, to be typed over.</Muted>
      <Inline>
        <Choose label="Row or column" value={choices.some((c) => c.id === dropped) ? dropped : 't0'} choices={choices} onChange={drop} />
        <Button look="quiet" isDisabled={!canDrop} onPress={() => keep(isDuration ? withoutDuration(table, at) : withoutReturn(table, at))}>
          Drop it
        </Button>
      </Inline>
    </>
  );
}
