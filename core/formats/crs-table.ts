// Loaded on demand: the table is large and most work never needs it.
import table from './crs-table.json';

export const CRS_TABLE = table as unknown as Readonly<Record<string, readonly [name: string, proj4: string]>>;
