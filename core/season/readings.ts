// What a level gauge says of a store, and whether it is to be believed.

/** believed: it may be so · silent: nothing was heard · nonsense: it cannot be so. */
export type Heard =
  | { readonly kind: 'believed'; readonly m3: number }
  | { readonly kind: 'silent' }
  | { readonly kind: 'nonsense'; readonly m3: number; readonly why: 'under' | 'over' | 'jump' };

/** How far under empty or over full a gauge may read by its own error, and how much of its room a store moves between two readings: common practice. */
const [ERROR_SHARE, JUMP_SHARE] = [0.03, 0.5];

/** Whether a reading can be, by the room of its store and the last that was believed. */
export function believed(m3: number | null, roomM3: number, before: number | null): Heard {
  if (m3 === null || !Number.isFinite(m3)) return { kind: 'silent' };
  if (m3 < -ERROR_SHARE * roomM3) return { kind: 'nonsense', m3, why: 'under' };
  if (m3 > (1 + ERROR_SHARE) * roomM3) return { kind: 'nonsense', m3, why: 'over' };
  if (before !== null && Math.abs(m3 - before) > JUMP_SHARE * roomM3) return { kind: 'nonsense', m3, why: 'jump' };
  return { kind: 'believed', m3: Math.min(roomM3, Math.max(0, m3)) };
}
