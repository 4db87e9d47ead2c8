// What is laid over a field in rows, whatever technique lays it.
export * from './lines.ts';
export * from './rows.ts';
