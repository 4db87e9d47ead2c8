import { Plus } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { RainTable } from '#core/rain';
import type { Rain } from '#core/project';
import { displayUnit } from '#core/units';
import { dispatch, useApp } from '../../app/store.ts';
import { FONT } from '../../app/theme.ts';
import { Button, Inline, Quantity } from '../../kit/index.ts';

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

const minutes = (m: number): string => (m < 120 || m % 60 !== 0 ? `${m} min` : `${m / 60} h`);

/** Rows a duration, columns a return period; every depth can be typed over. A change that makes the table unsound is refused. */
export function TableEditor({ rain }: { readonly rain: Rain }): ReactNode {
  const system = useApp((s) => s.system);
  const { table } = rain;
  const keep = (next: RainTable): void => {
    dispatch({ type: 'rain.set', payload: { rain: { ...rain, table: next, source: 'typed by hand' } } });
  };
  const set = (r: number, c: number, depth: number): void =>
    keep({ ...table, depthMm: table.depthMm.map((row, i) => (i === r ? row.map((v, k) => (k === c ? depth : v)) : row)) });
  const addDuration = (): void => {
    const last = table.durationsMin.length - 1;
    const factor = 2;
    // A depth to type over: the last one carried on at the slope of the table's end.
    const grow = (row: readonly number[]): number => (last > 0 ? row[last] * (row[last] / row[last - 1]) ** 0.5 : row[last] * 1.3);
    keep({
      ...table,
      durationsMin: [...table.durationsMin, table.durationsMin[last] * factor],
      depthMm: table.depthMm.map((row) => [...row, Math.round(10 * grow(row)) / 10]),
    });
  };
  const dropDuration = (): void =>
    keep({ ...table, durationsMin: table.durationsMin.slice(0, -1), depthMm: table.depthMm.map((row) => row.slice(0, -1)) });
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
                <th scope="row">{minutes(duration)}</th>
                {table.returnYears.map((years, r) => (
                  <td key={years}>
                    <Quantity
                      isLabelHidden
                      label={`${minutes(duration)}, 1 in ${years} years`}
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
      <Inline>
        <Button look="quiet" onPress={addDuration}>
          <Plus size={15} aria-hidden />
          Add a duration
        </Button>
        {table.durationsMin.length > 1 && (
          <Button look="quiet" onPress={dropDuration}>
            Drop the longest
          </Button>
        )}
      </Inline>
    </>
  );
}
