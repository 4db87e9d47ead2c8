// Sentences with amounts in them, kept apart until a reader's units are known.
import { type QuantityKind, type UnitSystem, formatQuantity } from './quantity.ts';

/** A number in a sentence: SI value and how it is shown. */
export interface Amount {
  readonly value: number;
  readonly kind: QuantityKind;
}

/** A sentence in pieces. Plain text where it holds no amount. */
export type Said = string | readonly (string | Amount)[];

export const amount = (value: number, kind: QuantityKind): Amount => ({ value, kind });

/** Tag of a template whose amounts are turned into words only when it is spoken. */
export function say(texts: TemplateStringsArray, ...parts: readonly (string | Amount | Said)[]): Said {
  return texts.flatMap((text, i): (string | Amount)[] => {
    const part = i < parts.length ? parts[i] : '';
    const pieces = typeof part === 'object' && Array.isArray(part) ? (part as readonly (string | Amount)[]) : [part as string | Amount];
    return [text, ...pieces].filter((piece) => piece !== '');
  });
}

/** The sentence in the reader's units. */
export function spoken(said: Said, system: UnitSystem): string {
  if (typeof said === 'string') return said;
  return said.map((piece) => (typeof piece === 'string' ? piece : formatQuantity(piece.value, piece.kind, system))).join('');
}

/** A value from a file or a command as a message may quote it; what is not there is called missing. */
export function told(value: unknown): string {
  if (Array.isArray(value) && value.length > 8) return `a list of ${value.length}`;
  return (JSON.stringify(value) ?? 'missing').slice(0, 40);
}

/** A sentence's first letter tall or small, for a phrase put at another place. */
export const capitalised = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
export const lowered = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
