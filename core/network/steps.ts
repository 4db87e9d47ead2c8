/** The even steps a run goes in. */
export interface Steps {
  readonly stepS: number;
  readonly steps: number;
}
