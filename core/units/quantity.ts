// Display units and formatting. Core computes in SI (rain in mm and mm/h); this is the only place that knows another unit.

export type UnitSystem = 'metric' | 'us';

export type QuantityKind =
  | 'level'
  | 'reading'
  | 'length'
  | 'distance'
  | 'difference'
  | 'area'
  | 'land'
  | 'volume'
  | 'flow'
  | 'tapFlow'
  | 'velocity'
  | 'rain'
  | 'rainFine'
  | 'intensity'
  | 'slope'
  | 'liquid'
  | 'hours'
  | 'minutes'
  | 'seconds'
  | 'days'
  | 'years'
  | 'percent'
  | 'mass'
  | 'hold'
  | 'density'
  | 'soilLoss'
  | 'power'
  | 'count'
  | 'number';

interface DisplayUnit {
  readonly unit: string;
  /** Display value = base value x factor. */
  readonly factor: number;
  readonly decimals: number;
}

const FT = 0.3048; // m, exact by definition of the international foot
const IN_MM = 25.4; // mm, exact
const ACRE = 43560 * FT ** 2; // m2
const GALLON = 231 * 0.0254 ** 3; // m3, the gallon of 231 cubic inches, exact
const POUND = 0.45359237; // kg, exact
const TON = 0.90718474; // t, the short ton of 2000 lb, exact

/** Base unit of each kind is m, m2, m3, m3/s, m/s, mm, mm/h, m/m, h, min, s, days, years, per cent, t, kg/m, kg/m3, t/ha, W. */
const DISPLAY: Record<QuantityKind, Record<UnitSystem, DisplayUnit>> = {
  level: { metric: { unit: 'm', factor: 1, decimals: 2 }, us: { unit: 'ft', factor: 1 / FT, decimals: 2 } },
  reading: { metric: { unit: 'm', factor: 1, decimals: 3 }, us: { unit: 'ft', factor: 1 / FT, decimals: 2 } },
  length: { metric: { unit: 'm', factor: 1, decimals: 2 }, us: { unit: 'ft', factor: 1 / FT, decimals: 2 } },
  distance: { metric: { unit: 'm', factor: 1, decimals: 0 }, us: { unit: 'ft', factor: 1 / FT, decimals: 0 } },
  difference: { metric: { unit: 'mm', factor: 1000, decimals: 0 }, us: { unit: 'in', factor: 12 / FT, decimals: 1 } },
  area: { metric: { unit: 'm²', factor: 1, decimals: 0 }, us: { unit: 'ft²', factor: 1 / FT ** 2, decimals: 0 } },
  land: { metric: { unit: 'ha', factor: 1e-4, decimals: 2 }, us: { unit: 'ac', factor: 1 / ACRE, decimals: 2 } },
  volume: { metric: { unit: 'm³', factor: 1, decimals: 0 }, us: { unit: 'ft³', factor: 1 / FT ** 3, decimals: 0 } },
  liquid: { metric: { unit: 'L', factor: 1000, decimals: 0 }, us: { unit: 'gal', factor: 1 / GALLON, decimals: 0 } },
  flow: { metric: { unit: 'L/s', factor: 1000, decimals: 0 }, us: { unit: 'ft³/s', factor: 1 / FT ** 3, decimals: 2 } },
  // What runs out of a tap, in words of a can.
  tapFlow: { metric: { unit: 'L/min', factor: 60_000, decimals: 1 }, us: { unit: 'gal/min', factor: 60 / GALLON, decimals: 1 } },
  velocity: { metric: { unit: 'm/s', factor: 1, decimals: 2 }, us: { unit: 'ft/s', factor: 1 / FT, decimals: 1 } },
  rain: { metric: { unit: 'mm', factor: 1, decimals: 0 }, us: { unit: 'in', factor: 1 / IN_MM, decimals: 2 } },
  rainFine: { metric: { unit: 'mm', factor: 1, decimals: 1 }, us: { unit: 'in', factor: 1 / IN_MM, decimals: 2 } },
  intensity: { metric: { unit: 'mm/h', factor: 1, decimals: 0 }, us: { unit: 'in/h', factor: 1 / IN_MM, decimals: 2 } },
  slope: { metric: { unit: '%', factor: 100, decimals: 1 }, us: { unit: '%', factor: 100, decimals: 1 } },
  hours: { metric: { unit: 'h', factor: 1, decimals: 1 }, us: { unit: 'h', factor: 1, decimals: 1 } },
  seconds: { metric: { unit: 's', factor: 1, decimals: 0 }, us: { unit: 's', factor: 1, decimals: 0 } },
  minutes: { metric: { unit: 'min', factor: 1, decimals: 0 }, us: { unit: 'min', factor: 1, decimals: 0 } },
  days: { metric: { unit: 'days', factor: 1, decimals: 0 }, us: { unit: 'days', factor: 1, decimals: 0 } },
  years: { metric: { unit: 'yr', factor: 1, decimals: 0 }, us: { unit: 'yr', factor: 1, decimals: 0 } },
  percent: { metric: { unit: '%', factor: 1, decimals: 0 }, us: { unit: '%', factor: 1, decimals: 0 } },
  mass: { metric: { unit: 't', factor: 1, decimals: 1 }, us: { unit: 'ton', factor: 1 / TON, decimals: 1 } },
  // What holds a metre of something down, and what a measure of it weighs.
  hold: { metric: { unit: 'kg/m', factor: 1, decimals: 0 }, us: { unit: 'lb/ft', factor: FT / POUND, decimals: 0 } },
  density: { metric: { unit: 'kg/m³', factor: 1, decimals: 0 }, us: { unit: 'lb/ft³', factor: FT ** 3 / POUND, decimals: 1 } },
  soilLoss: { metric: { unit: 't/ha', factor: 1, decimals: 1 }, us: { unit: 'ton/ac', factor: ACRE / 1e4 / TON, decimals: 1 } },
  power: { metric: { unit: 'W', factor: 1, decimals: 0 }, us: { unit: 'W', factor: 1, decimals: 0 } },
  count: { metric: { unit: '', factor: 1, decimals: 0 }, us: { unit: '', factor: 1, decimals: 0 } },
  number: { metric: { unit: '', factor: 1, decimals: 2 }, us: { unit: '', factor: 1, decimals: 2 } },
};

/** The unit, factor and decimals a kind of quantity is shown with. */
export function displayUnit(kind: QuantityKind, system: UnitSystem): DisplayUnit {
  return DISPLAY[kind][system];
}

/** SI value to the value shown. */
export function toDisplay(value: number, kind: QuantityKind, system: UnitSystem): number {
  return value * DISPLAY[kind][system].factor;
}

/** A shown or typed value back to SI. */
export function fromDisplay(value: number, kind: QuantityKind, system: UnitSystem): number {
  return value / DISPLAY[kind][system].factor;
}

const TO_THE_TENTH: ReadonlySet<QuantityKind> = new Set(['distance', 'volume', 'mass', 'soilLoss']);

/** Long lengths and large numbers need no hundredths; short distances, and what is fetched by the barrow, want a digit more. */
function decimalsFor(shown: number, kind: QuantityKind, system: UnitSystem): number {
  const { decimals } = DISPLAY[kind][system];
  if (TO_THE_TENTH.has(kind)) return shown !== 0 && Math.abs(shown) < 10 ? 1 : 0;
  if (kind !== 'length' && kind !== 'number') return decimals;
  return Math.abs(shown) >= 100 ? 0 : Math.abs(shown) >= 10 ? 1 : decimals;
}

const MISSING = '–';
const SMALL_LAND_M2 = 500;
const SMALL_VOLUME_M3 = 1;

/** Digits only, grouped by thin spaces; a dash for what is not known, so NaN never reaches the screen. */
export function formatNumber(value: number | null | undefined, kind: QuantityKind, system: UnitSystem): string {
  if (value === null || value === undefined || !Number.isFinite(value)) return MISSING;
  const shown = toDisplay(value, kind, system);
  const text = Math.abs(shown).toFixed(decimalsFor(shown, kind, system));
  const [whole, fraction] = text.split('.');
  const grouped = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, '\u202f') : whole;
  const isZero = Number(text) === 0;
  return (shown < 0 && !isZero ? '−' : '') + grouped + (fraction === undefined ? '' : `.${fraction}`);
}

/** A patch too small for hectares is told as the area it is, water too little for cubic metres in litres. */
function shownAs(value: number | null | undefined, asked: QuantityKind): QuantityKind {
  if (typeof value !== 'number' || value === 0) return asked;
  if (asked === 'land' && Math.abs(value) < SMALL_LAND_M2) return 'area';
  return asked === 'volume' && Math.abs(value) < SMALL_VOLUME_M3 ? 'liquid' : asked;
}

/** Nobody counts a day in minutes [min]. */
const LONG_MIN = 180;

/** Digits with their unit: "131.40 m", "45 mm", "0.35 ha". */
export function formatQuantity(value: number | null | undefined, asked: QuantityKind, system: UnitSystem): string {
  if (asked === 'minutes' && typeof value === 'number' && Math.abs(value) >= LONG_MIN) return formatQuantity(value / 60, 'hours', system);
  return withUnit(value, shownAs(value, asked), system);
}

function withUnit(value: number | null | undefined, kind: QuantityKind, system: UnitSystem): string {
  const digits = formatNumber(value, kind, system);
  const { unit } = DISPLAY[kind][system];
  return digits === MISSING || unit === '' ? digits : `${digits}\u00a0${unit}`;
}

/** The kind several of one thing are shown as: that which suits the greatest. */
export function shownAlike(values: readonly (number | null)[], asked: QuantityKind): QuantityKind {
  const greatest = values.reduce<number | null>((a, v) => (v !== null && (a === null || Math.abs(v) > Math.abs(a)) ? v : a), null);
  return shownAs(greatest, asked);
}

/** Several of one thing in one unit: "0.9 m³", "1.1 m³". */
export function formatAlike(values: readonly (number | null)[], asked: QuantityKind, system: UnitSystem): string[] {
  const kind = shownAlike(values, asked);
  return values.map((value) => withUnit(value, kind, system));
}

/** No more figures than a rough law is worth: two. */
export const rough = (value: number): number => Number(value.toPrecision(2));
