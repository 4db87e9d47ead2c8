// From rain on a catchment to volume, peak and hydrograph, and to the soil it wears off.
export * from './step-law.ts';
export * from './wetness.ts';
export * from './curve-number.ts';
export * from './green-ampt.ts';
export * from './horton.ts';
export * from './losses.ts';
export * from './time.ts';
export * from './travel.ts';
export * from './rational.ts';
export * from './graphical.ts';
export * from './unit-hydrograph.ts';
export * from './soil-loss.ts';
export * from './catchment.ts';
export * from './terrain-factor.ts';
export * from './bands.ts';
export * from './laws.ts';
