declare module 'sql.js/dist/sql-wasm-inline.js' {
  type Value = number | string | Uint8Array | null;
  export interface Statement {
    step(): boolean;
    getAsObject(): Record<string, Value>;
    bind(values: readonly Value[]): boolean;
    free(): boolean;
  }
  export interface Database {
    prepare(sql: string): Statement;
    run(sql: string): void;
    export(): Uint8Array;
    close(): void;
  }
  export default function open(): Promise<{ readonly Database: new (bytes: Uint8Array) => Database }>;
}
