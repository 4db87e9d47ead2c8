// From document and results to what is drawn. Works draw themselves through their own twin in web/works.
import LineString from 'ol/geom/LineString.js';
import OlPoint from 'ol/geom/Point.js';
import Polygon from 'ol/geom/Polygon.js';
import { type Line, type Point, closed, distance, simplify } from '#core/geometry';
import type { Derived } from '#core/derive';
import { optionOf } from '#core/project';
import { seenKind } from '#core/seen';
import { cornerItems } from '../works/corners.ts';
import { drawnOnce } from './once.ts';
import { itemsOf } from './work-items.ts';
import type { Drawing, PlanItem } from './types.ts';

export const toRing = (ring: Line): number[][][] => [closed(ring).map(([x, y]) => [x, y])];
const toLine = (line: Line): number[][] => line.map(([x, y]) => [x, y]);
const version = (...parts: unknown[]): string => JSON.stringify(parts);

/** Kinds with a mark of their own; what was seen is told apart by what it does. */
const ROLES: Readonly<Record<string, string>> = {
  building: 'building',
  track: 'track',
  road: 'track',
  pool: 'pool',
  'flow-arrow': 'arrow',
  septic: 'zone',
  tree: 'tree',
  well: 'well',
  wood: 'wood',
};
/** Kinds so many and so plain that names would only crowd the plan. */
const UNNAMED: ReadonlySet<string> = new Set(['track', 'tree', 'wood']);
const roleOf = (kind: string): string => {
  const effect = seenKind(kind)?.effect;
  return ROLES[kind] ?? (effect === undefined ? 'feature' : `seen-${effect}`);
};

function featureItems({ project, selected }: Drawing): PlanItem[] {
  return project.features.flatMap((f): PlanItem[] => {
    const look = {
      role: roleOf(f.kind),
      isSelected: f.id === selected,
      ...(UNNAMED.has(f.kind) || f.name === undefined ? {} : { label: f.name }),
    };
    if (f.at) return [{ id: `feature:${f.id}`, version: version(f.at, look), geometry: new OlPoint([...f.at]), look }];
    if (f.ring) return [{ id: `feature:${f.id}`, version: version(f.ring, look), geometry: new Polygon(toRing(f.ring)), look }];
    if (f.line) return [{ id: `feature:${f.id}`, version: version(f.line, look), geometry: new LineString(toLine(f.line)), look }];
    return [];
  });
}

/** An outline without the steps of its cells: within a cell and a half of the true edge; with what told it apart from others. */
interface Evened {
  readonly shape: string;
  readonly ring: Line;
}
const evened = drawnOnce<Evened>();
const outlined = drawnOnce<PlanItem>();
/** As they were drawn last, by what they are of: a catchment told anew of other rain has the outline it had. */
let lastEvened: ReadonlyMap<string, Evened> = new Map();

const allOutlined = drawnOnce<readonly PlanItem[]>();
const catchmentItems = ({ result, selected }: Drawing): readonly PlanItem[] =>
  result ? allOutlined(result.derived.catchments, [selected], () => outlinesOf(result.derived.catchments, selected)) : [];

function outlinesOf(catchments: Derived['catchments'], selected: string | null): readonly PlanItem[] {
  const now = new Map<string, Evened>();
  const items = catchments.flatMap((c): PlanItem[] => {
    if (c.ring.length < 3) return [];
    const even = evened(c, [], () => {
      const shape = version(c.of, c.areaM2, c.longestPathM, c.ring[0], c.ring.length);
      const last = lastEvened.get(c.of);
      return last?.shape === shape ? last : { shape, ring: withoutSteps(c.ring) };
    });
    now.set(c.of, even);
    const isSelected = c.of === selected;
    return [
      outlined(even, [isSelected], () => {
        const look = { role: 'catchment', isSelected };
        return { id: `catchment:${c.of}`, version: version(even.shape, look), geometry: new Polygon(toRing(even.ring)), look };
      }),
    ];
  });
  lastEvened = now;
  return items;
}

function withoutSteps(ring: Line): Line {
  const [a, b] = ring;
  return simplify(closed(ring), 1.1 * Math.max(0.5, Math.min(4, distance(a, b)))).slice(0, -1);
}

const led = drawnOnce<PlanItem>();
const allLed = drawnOnce<readonly PlanItem[]>();
const linkItems = ({ result, selected }: Drawing): readonly PlanItem[] =>
  result ? allLed(result.derived.links, [selected], () => waysOf(result.derived.links, selected)) : [];

function waysOf(links: Derived['links'], selected: string | null): readonly PlanItem[] {
  return links.flatMap((link): PlanItem[] => {
    // Ways are drawn as they usually run.
    if (link.path.length < 2 || link.isRare) return [];
    const isSelected = link.from === selected || link.outlet === selected;
    return [
      led(link, [isSelected], () => {
        const end = link.path[link.path.length - 1];
        const look = { role: 'spill', isSelected };
        return {
          id: `link:${link.outlet}`,
          version: version(link.path[0], end, link.path.length, look),
          geometry: new LineString(link.path.map(([x, y]) => [x, y])),
          look,
        };
      }),
    ];
  });
}

/** Links that end this near a place where water leaves are told with it [m]. */
const NEAR_EXIT_M = 15;

const allLeft = drawnOnce<readonly PlanItem[]>();
const exitItems = ({ result, flowText }: Drawing): readonly PlanItem[] =>
  result ? allLeft(result.derived.exits, [result.derived.links, flowText], () => leavingItems(result.derived, flowText)) : [];

/** Where water leaves: the places that are told one by one, and where an overflow crosses the line elsewhere. */
function leavingItems(derived: Derived, flowText: Drawing['flowText']): readonly PlanItem[] {
  const mark = (id: string, at: Point, label: string | undefined): PlanItem => {
    const look = { role: 'exit', ...(label === undefined ? {} : { label }) };
    return { id: `exit:${id}`, version: version(at, look), geometry: new OlPoint([...at]), look };
  };
  const leaves = (m3s: number | null, start: string): string | undefined =>
    m3s !== null && m3s > 0 ? `${start}: ${flowText(m3s)}` : undefined;
  const exits = derived.exits.filter((e) => e.isPlace);
  const places = exits.map((exit, k) => mark(exit.id, exit.at, leaves(exit.with.peakM3s, `${k + 1} leaves`)));
  const elsewhere = derived.links.flatMap((link): PlanItem[] => {
    const end = link.path[link.path.length - 1];
    if (!end || link.isRare || (link.to !== 'property-edge' && link.to !== 'terrain-edge')) return [];
    const at: Point = [end[0], end[1]];
    return exits.some((e) => distance(e.at, at) <= NEAR_EXIT_M) ? [] : [mark(link.outlet, at, leaves(link.peakM3s, 'leaves'))];
  });
  return [...places, ...elsewhere];
}

/** Kinds of ground beside the property's, and where they were tested. */
function groundItems({ project, selected }: Drawing): PlanItem[] {
  const { zones = [], tests = [] } = project.ground ?? {};
  const areas = zones.map((zone): PlanItem => {
    const look = { role: 'zone', label: zone.name, isSelected: zone.id === selected };
    return { id: `zone:${zone.id}`, version: version(zone.ring, look), geometry: new Polygon(toRing(zone.ring)), look };
  });
  const places = tests.flatMap((test): PlanItem[] => {
    const look = { role: 'test', label: test.name, isSelected: test.id === selected };
    return test.at ? [{ id: `test:${test.id}`, version: version(test.at, look), geometry: new OlPoint([...test.at]), look }] : [];
  });
  return [...areas, ...places];
}

function pinItems({ project, selected }: Drawing): PlanItem[] {
  return project.pins.map((pin): PlanItem => {
    const look = { role: 'pin', label: pin.name ?? 'Pin', isSelected: pin.id === selected };
    return { id: pin.id, version: version(pin.at, look), geometry: new OlPoint([...pin.at]), look, isMovable: true };
  });
}

/** Places of a picture that were found on the plan, by the numbers they bear in it. */
function pinnedItems({ project, pinning }: Drawing): PlanItem[] {
  const { pins = [] } = project.pictures?.find((picture) => picture.id === pinning) ?? {};
  return pins.map(({ at }, k): PlanItem => {
    const look = { role: 'pin', label: String(k + 1) };
    return { id: `pinned:${k}`, version: version(at, look), geometry: new OlPoint([...at]), look };
  });
}

/** What is shown of a work that is not computed says so. */
function asUncomputed(item: PlanItem): PlanItem {
  const { label } = item.look;
  if (label === undefined) return item;
  return { ...item, version: `${item.version} not computed`, look: { ...item.look, label: `${label} (not computed)` } };
}

/** All that is drawn on the plan above the contours, lowest first. */
export function planItems(drawing: Drawing): PlanItem[] {
  const { project, result } = drawing;
  const { outline } = project.site;
  const edge: PlanItem[] =
    outline.length < 3
      ? []
      : [{ id: 'outline', version: version(outline), geometry: new Polygon(toRing(outline)), look: { role: 'outline' } }];
  const works = optionOf(project).works;
  const uncomputed = new Set((result?.derived.uncomputed ?? []).map((u) => u.work));
  const on = { ...drawing, works };
  const workItems = works.flatMap((work) => {
    const items = itemsOf(work, on);
    const shown = uncomputed.has(work.id) ? items.map(asUncomputed) : items;
    return work.id === drawing.selected ? [...shown, ...cornerItems(work)] : shown;
  });
  const pegs = drawing.showPegs
    ? (result?.derived.pegs ?? []).map((p, i): PlanItem => ({
        id: `peg:${i}`,
        version: version(p.x, p.y),
        geometry: new OlPoint([p.x, p.y]),
        look: { role: 'peg' },
      }))
    : [];
  return [
    ...catchmentItems(drawing),
    ...edge,
    ...groundItems(drawing),
    ...featureItems(drawing),
    ...linkItems(drawing),
    ...exitItems(drawing),
    ...workItems,
    ...pegs,
    ...pinItems(drawing),
    ...pinnedItems(drawing),
  ];
}
