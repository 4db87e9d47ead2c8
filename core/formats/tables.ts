// What was computed as tables for a spreadsheet: stores, quantities, pegs, checks. Figures as numbers, what is not known left empty.
import writeXlsx, { type SheetData } from 'write-excel-file/universal';
import type { Derived } from '../derive/index.ts';
import { type Project, optionOf } from '../project/index.ts';

type Cell = string | number | null;

export interface Table {
  readonly name: string;
  readonly heads: readonly string[];
  readonly rows: readonly (readonly Cell[])[];
}

/** Names of works by id. */
const namesIn = (project: Project): ReadonlyMap<string, string> => new Map(optionOf(project).works.map((w) => [w.id, w.name]));

function storesTable({ stores }: Derived, names: ReadonlyMap<string, string>): Table {
  return {
    name: 'Stores',
    heads: ['work', 'store', 'floor m', 'way out m', 'crest m', 'holds m3', 'peak level m', 'least freeboard m', 'spills m3', 'empties h'],
    rows: stores.map((s) => [names.get(s.work) ?? s.work, s.name, s.floorM, s.wayOutM, s.crestM, s.heldM3, s.worst.peakLevelM?.value ?? s.peakLevelM, s.least?.value ?? s.freeboardM, s.spilledM3, s.drainDownH]),
  };
} // prettier-ignore

const quantitiesTable = ({ quantities }: Derived, names: ReadonlyMap<string, string>): Table => ({
  name: 'Quantities',
  heads: ['work', 'item', 'unit', 'low', 'likely', 'high', 'from'],
  rows: quantities.map((q) => [names.get(q.work) ?? q.work, q.item, q.unit, q.low, q.quantity, q.high, q.from]),
});

const pegsTable = ({ pegs }: Derived, names: ReadonlyMap<string, string>): Table => ({
  name: 'Pegs',
  heads: ['work', 'peg', 'x m', 'y m', 'ground m', 'design level m', 'cut m', 'staff reading m'],
  rows: pegs.map((p) => [names.get(p.work) ?? p.work, p.name, p.x, p.y, p.groundM, p.levelM, p.cutM, p.staffM]),
});

const checksTable = ({ checks }: Derived, names: ReadonlyMap<string, string>): Table => ({
  name: 'Checks',
  heads: ['on', 'severity', 'check', 'value', 'limit', 'unit', 'do', 'found when'],
  rows: checks.map((c) => [names.get(c.on) ?? c.on, c.severity, c.title, c.value, c.limit, c.unit, c.do, c.condition ?? '']),
});

/** All tables of the option looked at. */
export function tablesOf(project: Project, derived: Derived): Table[] {
  const names = namesIn(project);
  return [storesTable, quantitiesTable, pegsTable, checksTable].map((table) => table(derived, names));
}

/** As an XLSX file, a sheet each. Names are written as text, whatever they begin with. */
export async function writeTables(tables: readonly Table[]): Promise<Uint8Array> {
  const sheets = tables.map(({ name, heads, rows }) => {
    const data: SheetData = [
      heads.map((value) => ({ value, fontWeight: 'bold' as const })),
      ...rows.map((row) => row.map((value) => (value === null || (typeof value === 'number' && !Number.isFinite(value)) ? null : typeof value === 'number' ? { value, type: Number } : { value, type: String }))),
    ];
    return { data, sheet: name, stickyRowsCount: 1, columns: heads.map((head) => ({ width: Math.max(12, head.length + 2) })) };
  });
  return new Uint8Array(await (await writeXlsx(sheets).toBlob()).arrayBuffer());
} // prettier-ignore
