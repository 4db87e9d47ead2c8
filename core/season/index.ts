// Water day by day: through the seasons of whole years.
export * from './weather.ts';
export * from './sources.ts';
export * from './needs.ts';
export * from './balance.ts';
export * from './joined.ts';
export * from './told.ts';
export * from './size.ts';
export * from './laws.ts';
export * from './readings.ts';
