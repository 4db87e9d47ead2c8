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
  /** It is a list of such numbers. */
  readonly many?: true;
  /** It is one of these words. */
  readonly words?: readonly string[];
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

/** What a law may come to: a number, one for each of its inputs, or a class by its name. */
export type LawResult = number | readonly number[] | string;

/** A formula among others of other symbols: it can be listed, and evaluated by what knows its own. */
export interface AnyFormula extends FormulaCard<string> {
  readonly evaluate: (inputs: never) => LawResult;
  readonly cautions: (inputs: never) => string[];
}

const DOMAIN_WORDS: Record<SymbolCard['domain'], string> = {
  positive: 'a finite number > 0',
  nonNegative: 'a finite number >= 0',
  finite: 'a finite number',
};

function isWithin(domain: SymbolCard['domain'], v: unknown): boolean {
  if (typeof v !== 'number' || !Number.isFinite(v)) return false;
  return domain === 'finite' || v > 0 || (domain === 'nonNegative' && v === 0);
}

function fits({ domain, many, words }: SymbolCard, value: unknown): boolean {
  if (words) return typeof value === 'string' && words.includes(value);
  if (!many) return isWithin(domain, value);
  if (!Array.isArray(value)) return false;
  for (const v of value) if (!isWithin(domain, v)) return false;
  return value.length > 0;
}

function wanted({ domain, many, words }: SymbolCard): string {
  if (words) return `one of ${words.join(', ')}`;
  return many ? `a list, each of it ${DOMAIN_WORDS[domain]}` : DOMAIN_WORDS[domain];
}

/** Symbols of a card in its order, listed once: formulas are evaluated many times. */
type Symbols = readonly (readonly [string, SymbolCard])[];

/** @throws RangeError naming formula, symbol and value for the first input the algebra cannot take. */
function checkInputs(id: string, symbols: Symbols, inputs: Readonly<Record<string, unknown>>): void {
  for (const [symbol, card] of symbols) {
    const value = inputs[symbol];
    if (!fits(card, value)) throw new RangeError(`${id}: ${symbol} must be ${wanted(card)}, got ${String(value).slice(0, 60)}`);
  }
}

const units = new WeakMap<object, Readonly<Record<string, string>>>();

/** Units of a formula's symbols: the same thing for all its uses. */
function unitsOf({ symbols }: FormulaCard<string>): Readonly<Record<string, string>> {
  const known = units.get(symbols);
  if (known) return known;
  const made = Object.fromEntries(Object.entries(symbols).map(([s, card]) => [s, card.unit]));
  units.set(symbols, made);
  return made;
}

function cautionsOn({ title, symbols }: FormulaCard<string>, inputs: Readonly<Record<string, unknown>>): string[] {
  return Object.entries(symbols).flatMap(([symbol, { range, unit, means }]) => {
    const off = [inputs[symbol]].flat().find((v) => typeof v === 'number' && range && !(v >= range[0] && v <= range[1]));
    if (!range || typeof off !== 'number') return [];
    return [
      `${means} (${symbol} = ${Number(off.toPrecision(3))} ${unit}) is outside ${range[0]} to ${range[1]}, where ${title} was established`.trim(),
    ];
  });
}

/** Joins a card to its algebra; every evaluation is guarded by the card's own domains. */
export function defineFormula<S extends string>(card: FormulaCard<S>, compute: (inputs: Inputs<S>) => number): Formula<S> {
  const symbols: Symbols = Object.entries(card.symbols);
  return {
    ...card,
    evaluate: (inputs) => {
      checkInputs(card.id, symbols, inputs);
      return compute(inputs);
    },
    cautions: (inputs) => cautionsOn(card, inputs),
  };
}

/** Works a formula out, and may write it down. */
export type Use = <S extends string>(formula: Formula<S>, inputs: Inputs<S>) => number;

/** Works it out and writes nothing. */
export const plainly: Use = (formula, inputs) => formula.evaluate(inputs);

type Given<C extends SymbolCard> = C extends { readonly words: readonly (infer W)[] }
  ? W
  : C extends { readonly many: true }
    ? readonly number[]
    : number;

/** A law of lists and words beside numbers: a hydrograph, a table, a class. */
export interface Law<C extends Readonly<Record<string, SymbolCard>>, R extends LawResult> extends FormulaCard<Extract<keyof C, string>> {
  /** @throws RangeError as a formula does, and where lists do not go together. */
  readonly evaluate: (inputs: { readonly [S in keyof C]: Given<C[S]> }) => R;
  readonly cautions: (inputs: { readonly [S in keyof C]: Given<C[S]> }) => string[];
}

/** Joins a card of lists and words to its algebra, guarded like a formula. */
export function defineLaw<const C extends Readonly<Record<string, SymbolCard>>, R extends LawResult>(
  card: FormulaCard<Extract<keyof C, string>> & { readonly symbols: C },
  compute: (inputs: { readonly [S in keyof C]: Given<C[S]> }) => R,
): Law<C, R> {
  const symbols: Symbols = Object.entries(card.symbols);
  return {
    ...card,
    evaluate: (inputs) => {
      checkInputs(card.id, symbols, inputs);
      return compute(inputs);
    },
    cautions: (inputs) => cautionsOn(card, inputs),
  };
}

/** @throws RangeError naming the law where two lists that belong together are not as long. */
export function together(id: string, ...lists: readonly (readonly number[])[]): void {
  const lengths = lists.map((l) => l.length);
  if (new Set(lengths).size > 1) throw new RangeError(`${id}: these lists must be as long as each other, got ${lengths.join(' and ')}`);
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
      units: unitsOf(formula),
      symbol: formula.result.symbol,
      result,
      unit: formula.result.unit,
      source: formula.source,
      cautions: formula.cautions(inputs),
    });
    return result;
  }
}
