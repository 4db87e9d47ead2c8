// What a published formula is, and the record of each use of it.

/** Where a number or a law comes from. `key` is an entry of docs/references.md; 'common-practice' is a trade habit. */
export interface Citation {
  readonly key: string;
  readonly locator?: string;
  /** True when the locator was written from memory and not checked against the page. */
  readonly fromMemory?: boolean;
}

export interface SymbolCard {
  readonly means: string;
  readonly unit: string;
  /** What the algebra can take at all: outside it evaluation is refused. */
  readonly domain: 'positive' | 'nonNegative' | 'finite';
  /** Where the source says the law holds: outside it the result carries a caution. */
  readonly range?: readonly [number, number];
}

export interface FormulaCard<S extends string> {
  readonly id: string;
  readonly title: string;
  readonly statement: string;
  readonly symbols: Readonly<Record<S, SymbolCard>>;
  readonly result: { readonly symbol: string; readonly means: string; readonly unit: string };
  readonly source: Citation;
  readonly limits?: string;
}

export type Inputs<S extends string> = Readonly<Record<S, number>>;

export interface Formula<S extends string = string> extends FormulaCard<S> {
  /** @throws RangeError naming formula, symbol and value when an input is outside the domain of the algebra. */
  readonly evaluate: (inputs: Inputs<S>) => number;
  /** Cautions for inputs outside the published range; empty when the result stands as it is. */
  readonly cautions: (inputs: Inputs<S>) => string[];
}

/** A formula among others of other symbols: it can be listed, and evaluated by what knows its own. */
export interface AnyFormula extends FormulaCard<string> {
  readonly evaluate: (inputs: never) => number;
  readonly cautions: (inputs: never) => string[];
}

const DOMAIN_TEST: Record<SymbolCard['domain'], (v: number) => boolean> = {
  positive: (v) => v > 0,
  nonNegative: (v) => v >= 0,
  finite: () => true,
};
const DOMAIN_WORDS: Record<SymbolCard['domain'], string> = {
  positive: 'a finite number > 0',
  nonNegative: 'a finite number >= 0',
  finite: 'a finite number',
};

/** Joins a card to its algebra; every evaluation is guarded by the card's own domains. */
export function defineFormula<S extends string>(card: FormulaCard<S>, compute: (inputs: Inputs<S>) => number): Formula<S> {
  const symbols = Object.entries(card.symbols) as [S, SymbolCard][];
  return {
    ...card,
    evaluate: (inputs) => {
      for (const [symbol, { domain }] of symbols) {
        const value = inputs[symbol];
        if (typeof value !== 'number' || !Number.isFinite(value) || !DOMAIN_TEST[domain](value)) {
          throw new RangeError(`${card.id}: ${symbol} must be ${DOMAIN_WORDS[domain]}, got ${String(value)}`);
        }
      }
      return compute(inputs);
    },
    cautions: (inputs) =>
      symbols.flatMap(([symbol, { range, unit, means }]) => {
        const value = inputs[symbol];
        if (!range || (value >= range[0] && value <= range[1])) return [];
        return [
          `${means} (${symbol} = ${Number(value.toPrecision(3))} ${unit}) is outside ${range[0]} to ${range[1]}, where ${card.title} was established`.trim(),
        ];
      }),
  };
}

/** One use of a formula: what a user reads when asking "how do you know?". */
export interface WorksheetLine {
  readonly formula: string;
  readonly title: string;
  readonly statement: string;
  readonly on: string;
  readonly inputs: Readonly<Record<string, number>>;
  readonly units: Readonly<Record<string, string>>;
  readonly symbol: string;
  readonly result: number;
  readonly unit: string;
  readonly source: Citation;
  readonly cautions: readonly string[];
}

/** Collects the formula uses of one subject (a swale, a pin). */
export class Worksheet {
  readonly lines: WorksheetLine[] = [];
  constructor(private readonly on: string) {}

  /** Evaluates and records. */
  use<S extends string>(formula: Formula<S>, inputs: Inputs<S>): number {
    const result = formula.evaluate(inputs);
    this.lines.push({
      formula: formula.id,
      title: formula.title,
      statement: formula.statement,
      on: this.on,
      inputs,
      units: Object.fromEntries(Object.entries<SymbolCard>(formula.symbols).map(([s, c]) => [s, c.unit])),
      symbol: formula.result.symbol,
      result,
      unit: formula.result.unit,
      source: formula.source,
      cautions: formula.cautions(inputs),
    });
    return result;
  }
}
