import { FONT } from '../app/theme.ts';

/** How figures stand on the axes of every chart. */
export const AXIS_TICK = { fontSize: 11.5, fontFamily: FONT.figures, fill: 'var(--muted)' };
