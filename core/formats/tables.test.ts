// Tables as a spreadsheet, read again by unpacking it.
import { describe, expect, it } from '@jest/globals';
import { DOMParser } from '@xmldom/xmldom';
import { strFromU8, unzipSync } from 'fflate';
import { Graph, derive } from '../derive/index.ts';
import { noGrid, planeProject } from '../testing/projects.ts';
import { registry } from '../works/index.ts';
import { type Table, tablesOf, writeTables } from './index.ts';

/** Rows of a sheet of an unpacked spreadsheet: numbers, texts, null for empty. */
function rowsOf(parts: Record<string, Uint8Array>, sheet: number): (string | number | null)[][] {
  const xml = (name: string) => new DOMParser().parseFromString(strFromU8(parts[name]), 'text/xml');
  const shared = parts['xl/sharedStrings.xml'] ? Array.from(xml('xl/sharedStrings.xml').getElementsByTagName('si'), (e) => e.textContent ?? '') : [];
  return Array.from(xml(`xl/worksheets/sheet${sheet}.xml`).getElementsByTagName('row'), (row) => {
    const cells: (string | number | null)[] = [];
    for (const cell of Array.from(row.getElementsByTagName('c'))) {
      const column = (cell.getAttribute('r') ?? 'A').charCodeAt(0) - 65;
      const text = cell.textContent ?? '';
      const kind = cell.getAttribute('t');
      cells[column] = kind === 's' ? shared[Number(text)] : kind === 'inlineStr' || kind === 'str' ? text : Number(text);
    }
    return Array.from(cells, (v) => v ?? null);
  });
} // prettier-ignore

const project = planeProject({});
const { derived } = derive(project, { registry, grids: noGrid, graph: new Graph() });

describe('tables as a spreadsheet', () => {
  it('hold a sheet of each, figures as numbers, what is not known empty', async () => {
    const tables = tablesOf(project, derived);
    expect(tables.map((t) => t.name)).toEqual(['Stores', 'Quantities', 'Pegs', 'Checks']);
    const parts = unzipSync(await writeTables(tables));
    tables.forEach(({ heads, rows }, k) => {
      const read = rowsOf(parts, k + 1);
      expect(read[0]).toEqual(heads);
      expect(read).toHaveLength(rows.length + 1);
      rows.forEach((row, r) =>
        row.forEach((cell, c) => {
          const found = read[r + 1][c] ?? null;
          if (typeof cell === 'number' && Number.isFinite(cell)) expect(found).toBeCloseTo(cell, 9);
          else expect(found ?? '').toBe(typeof cell === 'string' ? cell : '');
        }),
      );
    });
    const [stores] = tables;
    const [store] = derived.stores;
    const least = stores.heads.indexOf('least freeboard m');
    expect(stores.rows[0][least]).toBe(store.least?.value ?? store.freeboardM);
    expect(stores.rows[0][stores.heads.indexOf('peak level m')]).toBeCloseTo(Math.max(store.peakLevelM!, store.worst.peakLevelM.value), 9);
    expect(tables[2].rows).toHaveLength(derived.pegs.length);
    expect(tables[3].rows).toHaveLength(derived.checks.length);
  });
  it('write a name that looks like a formula as the text it is', async () => {
    const table: Table = {
      name: 'Odd',
      heads: ['=1+1', 'n'],
      rows: [
        ['=HYPERLINK("x")', Infinity],
        ['<&>"', null],
        ['', 0],
      ],
    };
    const parts = unzipSync(await writeTables([table]));
    expect(rowsOf(parts, 1)[1][0]).toBe('=HYPERLINK("x")');
    expect(rowsOf(parts, 1)[2][0]).toBe('<&>"');
    expect(rowsOf(parts, 1)[3][1]).toBe(0);
    expect(strFromU8(parts['xl/worksheets/sheet1.xml'])).not.toMatch(/<f>/);
  });
});
