// A way out on the plan: at its place along the line of the work it lets out.
import OlPoint from 'ol/geom/Point.js';
import type { Command } from '#core/commands';
import type { WorkBase } from '#core/contract';
import { type Line, type Point, nearestOnLine, pointAlong } from '#core/geometry';
import { catalogue } from '#core/works';
import type { Drawing, PlanItem } from '../../plan/types.ts';
import { change } from '../levels.ts';

/** A way out as the plan knows it: at its place along its host, at a level. */
export interface Guest extends WorkBase {
  readonly host: string;
  readonly atM: number;
  readonly levels: { readonly sillM: number };
}

/** The line a work lets water out along: a swale's lip, a road, the crest of a wall, the rim of a pit. */
export function hostLine(works: readonly WorkBase[], id: string): Line | null {
  const host = works.find((w) => w.id === id);
  const [line] = host ? catalogue.describe(host).footprint : [];
  return line && line.length > 1 ? line : null;
}

/** Dragging a way out moves it along its host. */
export function dragAlongHost(work: Guest, to: Point, works: readonly WorkBase[]): Command | null {
  const line = hostLine(works, work.host);
  return line ? change(work.id, { atM: Math.round(10 * nearestOnLine(to, line).atM) / 10 }) : null;
}

/** Its mark, with the level water begins to leave at. */
export function guestItem(
  guest: Guest,
  { works, selected, levelText }: Drawing & { readonly works: readonly WorkBase[] },
  role: string,
): PlanItem[] {
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
