import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  type QuantityKind,
  amount,
  displayUnit,
  formatAlike,
  formatNumber,
  formatQuantity,
  fromDisplay,
  say,
  spoken,
  toDisplay,
} from './index.ts';

const KINDS: QuantityKind[] = [
  'level',
  'reading',
  'length',
  'distance',
  'difference',
  'area',
  'land',
  'volume',
  'flow',
  'tapFlow',
  'velocity',
  'rain',
  'intensity',
  'slope',
  'mass',
  'hold',
  'density',
  'soilLoss',
  'hours',
  'minutes',
  'seconds',
  'number',
];

describe('units', () => {
  it('come back from what is shown, in both systems', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...KINDS),
        fc.constantFrom('metric' as const, 'us' as const),
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        (kind, system, v) => {
          expect(Math.abs(fromDisplay(toDisplay(v, kind, system), kind, system) - v)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(v)));
        },
      ),
      { seed: 41 },
    );
  });
  it('convert as defined: 1 ft = 0.3048 m, 1 ac = 43,560 ft², 1 in = 25.4 mm', () => {
    expect(toDisplay(0.3048, 'level', 'us')).toBeCloseTo(1, 12);
    expect(toDisplay(4046.8564224, 'land', 'us')).toBeCloseTo(1, 12);
    expect(toDisplay(25.4, 'rain', 'us')).toBeCloseTo(1, 12);
    expect(toDisplay(0.0283168, 'flow', 'us')).toBeCloseTo(1, 5);
    expect(toDisplay(0.90718474, 'mass', 'us')).toBeCloseTo(1, 12);
    expect(toDisplay(2.2417, 'soilLoss', 'us')).toBeCloseTo(1, 4); // 1 t/ha = 0.446 ton/ac
    expect(displayUnit('difference', 'us').unit).toBe('in');
  });
  it('never show NaN, and write figures the same everywhere', () => {
    expect(formatQuantity(NaN, 'level', 'metric')).toBe('–');
    expect(formatQuantity(null, 'flow', 'us')).toBe('–');
    expect(formatQuantity(-0.045, 'difference', 'metric')).toBe('−45\u00a0mm');
    expect(formatNumber(-0.0001, 'difference', 'metric')).toBe('0');
    expect(formatNumber(12345.6, 'volume', 'metric')).toBe('12\u202f346');
    // What is fetched by the barrow is told to the tenth, nothing as nothing, little in litres.
    expect([4.24, 10.4, -2.55, 0].map((v) => formatQuantity(v, 'volume', 'metric'))).toEqual([
      '4.2\u00a0m³',
      '10\u00a0m³',
      '−2.5\u00a0m³',
      '0\u00a0m³',
    ]);
    expect(formatQuantity(0.42, 'volume', 'metric')).toBe('420\u00a0L');
    expect(formatAlike([0.918, 0.78, 1.1], 'volume', 'metric')).toEqual(['0.9\u00a0m³', '0.8\u00a0m³', '1.1\u00a0m³']);
    expect(formatAlike([0.4, null, 0.5], 'volume', 'metric')).toEqual(['400\u00a0L', '–', '500\u00a0L']);
    // A pound is 0.45359237 kg: 46 kg on a metre is 30.9 lb on a foot, 600 kg/m3 is 37.5 lb/ft3.
    expect([formatQuantity(46, 'hold', 'us'), formatQuantity(600, 'density', 'us')]).toEqual(['31\u00a0lb/ft', '37.5\u00a0lb/ft³']);
    expect([6, 179, 180, 1440].map((v) => formatQuantity(v, 'minutes', 'us'))).toEqual([
      '6\u00a0min',
      '179\u00a0min',
      '3.0\u00a0h',
      '24.0\u00a0h',
    ]);
    expect([
      formatNumber(1.234, 'length', 'metric'),
      formatNumber(12.34, 'length', 'metric'),
      formatNumber(276.4, 'length', 'metric'),
    ]).toEqual(['1.23', '12.3', '276']);
    expect([1.234, 13.24, 187.5, -99.96].map((v) => formatNumber(v, 'number', 'metric'))).toEqual(['1.23', '13.2', '188', '−100.0']);
  });
});

describe('sentences with amounts', () => {
  it('are spoken in the reader’s units, nested ones too', () => {
    const where = say`at ${amount(84, 'length')}`;
    const said = say`Raise ${amount(6, 'length')} of bank by ${amount(0.495, 'difference')} ${where}.`;
    expect(spoken(said, 'metric')).toBe('Raise 6.00\u00a0m of bank by 495\u00a0mm at 84.0\u00a0m.');
    expect(spoken(said, 'us')).toBe('Raise 19.7\u00a0ft of bank by 19.5\u00a0in at 276\u00a0ft.');
  });
  it('stay as they are without one', () => {
    expect(spoken('Nothing.', 'us')).toBe('Nothing.');
    expect(spoken(say`${'Nothing'} at all`, 'us')).toBe('Nothing at all');
  });
});
