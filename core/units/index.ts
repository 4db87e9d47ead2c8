export * from './quantity.ts';
export * from './said.ts';
