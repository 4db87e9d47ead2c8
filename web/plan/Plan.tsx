import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import styled from 'styled-components';
import 'ol/ol.css';
import LineString from 'ol/geom/LineString.js';
import OlPoint from 'ol/geom/Point.js';
import { type Point, distance } from '#core/geometry';
import { seenKind } from '#core/seen';
import { formatQuantity } from '#core/units';
import { select, setDrawn, startTool, useApp, useAppPick } from '../app/store.ts';
import { useFormat, useProject } from '../app/selectors.ts';
import { FONT, THEMES } from '../app/theme.ts';
import { setLand, useAsk, useLand, useLandPick } from '../app/land.ts';
import { drag } from './drag.ts';
import { planItems } from './items.ts';
import { PlanMap } from './map.ts';
import { PlanBar } from './PlanBar.tsx';
import { useGround } from './Ground.tsx';
import { TRENCH_GRADE, landItems, nearestInSection } from './land-items.ts';
import { Legend } from './Legend.tsx';
import { readGround } from './read.ts';
import { finishTool, placePoint } from './tools.ts';

const Frame = styled.div`
  position: relative;
  min-height: 0;
  height: 100%;
  background: var(--paperDeep);
  outline-offset: -3px;
  overflow: hidden;
  .ol-scale-line {
    background: none;
    left: 16px;
    bottom: 12px;
  }
  .ol-scale-line-inner {
    border-color: var(--ink);
    color: var(--ink);
    font: 500 12px ${FONT.figures};
  }
`;
const Target = styled.div`
  position: absolute;
  inset: 0;
`;
const ReadOut = styled.output`
  position: absolute;
  right: 12px;
  bottom: 10px;
  font: 500 12.5px ${FONT.figures};
  background: var(--paper);
  padding: 2px 7px;
  border-radius: 3px;
  pointer-events: none;
`;

/** What a click on an item selects: a work, a pin or a feature; null where it is only a result. */
function selectable(id: string | null): string | null {
  if (id === null) return null;
  const kept = ['feature:', 'zone:', 'test:'].find((start) => id.startsWith(start));
  if (kept !== undefined) return id.slice(kept.length);
  return id.includes(':') ? null : id;
}

const STEPS: Readonly<Record<string, Point>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };

/** The plan: map, drawing tools, read-out, and the same by keyboard. */
export function Plan({ showPegs }: { readonly showPegs: boolean }): ReactNode {
  const target = useRef<HTMLDivElement>(null);
  const map = useRef<PlanMap | null>(null);
  const project = useProject();
  const { result, terrain, selected, tool, drawn, theme, system } = useAppPick(
    'result',
    'terrain',
    'selected',
    'tool',
    'drawn',
    'theme',
    'system',
  );
  const format = useFormat();
  const [pointer, setPointer] = useState<Point | null>(null);
  const [crosshair, setCrosshair] = useState<Point | null>(null);
  const [hasFocus, setFocus] = useState(false);
  const palette = THEMES[theme];

  useEffect(() => {
    if (!target.current) return undefined;
    const created = new PlanMap(target.current, THEMES[useApp.getState().theme], {
      onPointer: (at) => {
        setPointer(at);
        setLand({ probe: at });
      },
      onDrag: drag,
      onClick: (at, id, isDouble) => {
        const active = useApp.getState().tool;
        if (!active) select(selectable(id) ?? useApp.getState().selected);
        else if (isDouble) finishTool();
        else placePoint(useLand.getState().snaps ? created.snap(at) : at);
      },
    });
    map.current = created;
    const watch = new ResizeObserver(() => created.resize());
    watch.observe(target.current);
    window.outletPlan = created;
    return () => {
      watch.disconnect();
      created.dispose();
      map.current = null;
    };
  }, []);

  useEffect(() => map.current?.setPalette(palette), [palette]);
  useEffect(() => map.current?.setSystem(system), [system]);
  useGround(map);
  const ground = terrain?.terrain;
  useEffect(() => {
    const frame = useApp.getState().terrain?.frame;
    if (!frame) return;
    const { west, south, cellM, ncols, nrows } = frame;
    const { outline } = useApp.getState().history?.project.site ?? { outline: [] };
    const xs = outline.length >= 3 ? outline.map((p) => p[0]) : [west, west + ncols * cellM];
    const ys = outline.length >= 3 ? outline.map((p) => p[1]) : [south, south + nrows * cellM];
    map.current?.fit([Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)]);
  }, [ground]);

  const { showsCatchments, showsPlaces, shown, answer, probe } = useLandPick('showsCatchments', 'showsPlaces', 'shown', 'answer', 'probe');
  const places = useAsk('places', showsPlaces ? {} : null);
  const storage = useAsk('storage', answer?.kind === 'wall' ? { line: answer.line } : null);
  const hollow = useAsk('hollowAt', answer?.kind === 'hollow' ? { at: answer.at } : null);
  const receiver = project.features.find((f) => f.id === selected && !seenKind(f.kind));
  const runsOn = useAsk('runOn', receiver?.ring ? { ring: receiver.ring } : receiver?.line ? { line: receiver.line } : null);
  const fallLine = useAsk('fall', answer?.kind === 'fall' ? { ...answer, gradeM: TRENCH_GRADE } : null);
  // What is drawn may come a frame after what is typed: it waits for the fields and the sheet.
  const [drawnProject, drawnResult] = [useDeferredValue(project), useDeferredValue(result)];
  const items = useMemo(
    () => [
      ...planItems({
        project: drawnProject,
        result: drawnResult,
        selected,
        showPegs,
        levelText: (m) => formatQuantity(m, 'level', system).replace(/\s.*/, ''),
        flowText: (q) => formatQuantity(q, 'flow', system),
      }).filter((item) => showsCatchments || item.look.role !== 'catchment'),
      ...landItems({ places, shown, answer, storage: storage ?? hollow, fallLine, from: runsOn?.shape.ring ?? [] }),
    ],
    [drawnProject, drawnResult, selected, showPegs, system, showsCatchments, places, shown, answer, storage, hollow, fallLine, runsOn],
  );
  useEffect(() => map.current?.setItems(items), [items]);
  useEffect(() => {
    const open = drawn.length > 1 ? [{ geometry: new LineString(drawn.map(([x, y]) => [x, y])), look: { role: 'drawing' } }] : [];
    const dots = drawn.map((p) => ({ geometry: new OlPoint([...p]), look: { role: 'vertex' } }));
    const cross = hasFocus && crosshair ? [{ geometry: new OlPoint([...crosshair]), look: { role: 'crosshair' } }] : [];
    const mark = shown && probe ? nearestInSection(shown.section, probe) : null;
    const probed = mark ? [{ geometry: new OlPoint([...mark.at]), look: { role: 'probe' } }] : [];
    map.current?.setTools([...open, ...dots, ...cross, ...probed]);
  }, [drawn, crosshair, hasFocus, shown, probe]);

  const moveTo = useCallback((at: Point): void => {
    setCrosshair(at);
    map.current?.reveal(at);
  }, []);
  const onTyped = useCallback(
    (at: Point): void => {
      moveTo(at);
      if (useApp.getState().tool) placePoint(at);
    },
    [moveTo],
  );
  const onZoom = useCallback((by: number): void => map.current?.zoom(by), []);
  const onKey = (event: KeyboardEvent): void => {
    if (event.target !== event.currentTarget) return;
    const step = STEPS[event.key];
    const at = crosshair ?? map.current?.centre() ?? [0, 0];
    if (step) {
      const by = (terrain?.frame.cellM ?? 1) * (event.shiftKey ? 10 : 1);
      moveTo([at[0] + step[0] * by, at[1] + step[1] * by]);
    } else if (event.key === 'Enter') {
      const last = drawn[drawn.length - 1];
      // Placing the same point twice is the keyboard's double click.
      if (tool && last && last[0] === at[0] && last[1] === at[1]) finishTool();
      else if (tool) placePoint(at);
    } else if (event.key === 'Backspace') setDrawn(drawn.slice(0, -1));
    else if (event.key === 'Escape') startTool(null);
    else if (event.key === '+' || event.key === '=') map.current?.zoom(0.5);
    else if (event.key === '-') map.current?.zoom(-0.5);
    else return;
    event.preventDefault();
  };

  const place = hasFocus && crosshair ? crosshair : pointer;
  const under = place && terrain ? readGround(terrain, place) : null;
  const said =
    place && under
      ? `E ${place[0].toFixed(0)} N ${place[1].toFixed(0)}  ${format(under.levelM, 'level')}  slope ${format(under.slope, 'slope')}  above ${format(under.areaM2, 'land')}`
      : 'off the terrain';
  const last = drawn[drawn.length - 1];
  const lastGround = last && terrain ? readGround(terrain, last) : null;
  // While something is drawn: how far the pointer is from its last point, and how much higher or lower.
  const reach =
    place && under && last && lastGround
      ? `  ${format(distance(place, last), 'distance')} on, ${format(under.levelM - lastGround.levelM, 'difference')}`
      : '';

  return (
    <Frame>
      {/* The application role hands the arrow keys to the crosshair. */}
      <Target
        ref={target}
        role="application"
        tabIndex={0}
        aria-label="Plan. Arrow keys move the crosshair, Enter places a point, Enter again finishes, Backspace takes one back."
        data-testid="plan"
        onKeyDown={onKey}
        onFocus={() => {
          setFocus(true);
          setCrosshair((c) => c ?? map.current?.centre() ?? null);
        }}
        onBlur={() => setFocus(false)}
      />
      <PlanBar onTyped={onTyped} onZoom={onZoom} />
      <Legend />
      {place && (
        <ReadOut aria-hidden="true">
          {said}
          {reach}
        </ReadOut>
      )}
      <div className="visually-hidden" role="status" aria-live="polite" data-testid="crosshair">
        {hasFocus && crosshair ? said : ''}
      </div>
    </Frame>
  );
}

declare global {
  interface Window {
    /** The map, for measuring where a place lies on the page. */
    outletPlan?: PlanMap;
  }
}
