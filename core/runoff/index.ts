// From rain on a catchment to volume, peak and hydrograph.
export * from './curve-number.ts';
export * from './time.ts';
export * from './rational.ts';
export * from './unit-hydrograph.ts';
