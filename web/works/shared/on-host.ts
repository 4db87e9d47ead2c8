// A way out on the plan: at its place along the line of the work it lets out.
import OlPoint from 'ol/geom/Point.js';
import type { Command } from '#core/commands';
import type { WorkBase } from '#core/contract';
import { type Line, type Point, closed, nearestOnLine, pointAlong } from '#core/geometry';
import type { Drawing, PlanItem } from '../../plan/types.ts';
import { change } from '../levels.ts';

interface Guest extends WorkBase {
  readonly host: string;
  readonly atM: number;
}

/** The line a work lets water out along: a swale's lip, a road, the crest of a wall, the rim of a pit. */
export function hostLine(works: readonly WorkBase[], id: string): Line | null {
  const host = works.find((w) => w.id === id) as { line?: Line; wall?: Line; pit?: Line } | undefined;
  const line = host?.line ?? host?.wall ?? (host?.pit ? closed(host.pit) : undefined);
  return line && line.length > 1 ? line : null;
}

/** Dragging a way out moves it along its host. */
export function dragAlongHost(work: WorkBase, to: Point, works: readonly WorkBase[]): Command | null {
  const line = hostLine(works, (work as Guest).host);
  return line ? change(work.id, { atM: Math.round(10 * nearestOnLine(to, line).atM) / 10 }) : null;
}

/** Its mark, with the level water begins to leave at. */
export function guestItem(
  work: WorkBase,
  { works, selected, levelText }: Drawing & { readonly works: readonly WorkBase[] },
  role: string,
): PlanItem[] {
  const guest = work as Guest & { readonly levels: { readonly sillM: number } };
  const line = hostLine(works, guest.host);
  if (!line) return [];
  const look = { role, label: `${guest.name} ${levelText(guest.levels.sillM)}`, isSelected: guest.id === selected };
  return [
    {
      id: guest.id,
      version: JSON.stringify([line, guest.atM, look]),
      geometry: new OlPoint([...pointAlong(line, guest.atM).point]),
      look,
      isMovable: true,
    },
  ];
}
