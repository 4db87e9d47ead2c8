// Loaded on demand, as the table of systems in metres is.
import table from './feet-table.json';

export const FEET_TABLE = table as unknown as Readonly<Record<string, readonly [name: string, proj4: string] | undefined>>;
