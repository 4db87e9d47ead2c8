/** A part of a sentence, with how it is said. */
export interface Piece {
  readonly text: string;
  readonly tone: 'plain' | 'strong' | 'alarm';
}

export const plain = (text: string): Piece => ({ text, tone: 'plain' });
export const strong = (text: string): Piece => ({ text, tone: 'strong' });
export const alarm = (text: string): Piece => ({ text, tone: 'alarm' });
