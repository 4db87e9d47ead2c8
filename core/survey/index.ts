// Setting out: from design levels to pegs and staff readings.
export * from './pegs.ts';
export * from './two-peg.ts';
export * from './level-book.ts';
export * from './reduce-book.ts';
export * from './book-places.ts';
