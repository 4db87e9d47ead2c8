// The only way the document changes. A command is plain data; applying one gives patches both ways.
export * from './types.ts';
export * from './apply.ts';
export * from './history.ts';
