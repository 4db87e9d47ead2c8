import type { ReactNode } from 'react';
import { partsOf } from '#core/derive';
import { formatQuantity } from '#core/units';
import { useApp } from '../../app/store.ts';
import { endName, useChain, useDerived, useNamed } from '../../app/selectors.ts';
import { type SectionPoint, SectionStrip } from '../../kit/index.ts';

/** Where most of the selected work's overflow goes once it has left the last of it: the ground down its path, with levels and distance. */
export function LongSection(): ReactNode {
  const { host } = useChain();
  const derived = useDerived();
  const named = useNamed();
  const system = useApp((s) => s.system);
  if (!host || !derived) return null;
  const own = partsOf(derived, host.id);
  const links = derived.links.filter((l) => own.has(l.from) && !own.has(l.to) && l.path.length > 1 && !l.isRare);
  const link = [...links].sort((a, b) => (b.volumeM3 ?? 0) - (a.volumeM3 ?? 0))[0];
  if (!link) return null;
  const points: SectionPoint[] = [];
  link.path.forEach(([x, y, levelM], i) => {
    const [px, py] = link.path[Math.max(0, i - 1)];
    points.push({ atM: (points[i - 1]?.atM ?? 0) + Math.hypot(x - px, y - py), levelM });
  });
  const fall = points[0].levelM - points[points.length - 1].levelM;
  const ends = endName(named, link.to);
  const title = `Where the water goes: ${endName(named, link.from)} to ${ends}, ${formatQuantity(link.lengthM, 'length', system)}, falls ${formatQuantity(fall, 'length', system)}`;
  // Without a storm nobody knows whether it runs.
  const endText = link.peakM3s === null ? '' : link.peakM3s > 0 ? formatQuantity(link.peakM3s, 'flow', system) : 'dry';
  return <SectionStrip title={title} points={points} endText={endText} />;
}
