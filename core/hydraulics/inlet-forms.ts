// The forms of inlet a pipe can have: what models choose among, apart from the laws that use them.

export interface InletForm {
  readonly name: string;
  /** Form of the unsubmerged law. */
  readonly form: 1 | 2;
  readonly K: number;
  readonly M: number;
  readonly c: number;
  readonly Y: number;
  /** Entrance loss of the full barrel. */
  readonly Ke: number;
  /** Factor on the slope in inlet control. */
  readonly slopeFactor: number;
}

/** Factor on the slope in inlet control, usual and of an end cut to the slope (HDS-5). */
export const USUAL = -0.5;
export const MITRED = 0.7;

/** Inlets of round and box culverts (HDS-5 charts 1, 2, 3 and 8; handbook 4.4). */
export const INLETS = {
  'concrete-square-headwall': {
    name: 'concrete, square edge in a headwall',
    form: 1,
    K: 0.0098,
    M: 2,
    c: 0.0398,
    Y: 0.67,
    Ke: 0.5,
    slopeFactor: USUAL,
  },
  'concrete-groove-headwall': {
    name: 'concrete, grooved end in a headwall',
    form: 1,
    K: 0.0018,
    M: 2,
    c: 0.0292,
    Y: 0.74,
    Ke: 0.2,
    slopeFactor: USUAL,
  },
  'concrete-groove-projecting': {
    name: 'concrete, grooved end sticking out',
    form: 1,
    K: 0.0045,
    M: 2,
    c: 0.0317,
    Y: 0.69,
    Ke: 0.2,
    slopeFactor: USUAL,
  },
  'corrugated-headwall': { name: 'corrugated, in a headwall', form: 1, K: 0.0078, M: 2, c: 0.0379, Y: 0.69, Ke: 0.5, slopeFactor: USUAL },
  'corrugated-mitred': {
    name: 'corrugated, cut to the slope',
    form: 1,
    K: 0.021,
    M: 1.33,
    c: 0.0463,
    Y: 0.75,
    Ke: 0.7,
    slopeFactor: MITRED,
  },
  'corrugated-projecting': { name: 'corrugated, sticking out', form: 1, K: 0.034, M: 1.5, c: 0.0553, Y: 0.54, Ke: 0.9, slopeFactor: USUAL },
  'bevelled-ring': { name: 'bevelled ring', form: 1, K: 0.0018, M: 2.5, c: 0.03, Y: 0.74, Ke: 0.2, slopeFactor: USUAL },
} as const satisfies Readonly<Record<string, InletForm>>;
export type InletId = keyof typeof INLETS;
export const INLET_IDS = Object.keys(INLETS) as readonly InletId[];
