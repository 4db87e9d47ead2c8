import { useCallback, useDeferredValue, useEffect, useMemo, useRef, type KeyboardEvent, type ReactNode } from 'react';
import { useLocation } from 'react-router';
import styled from 'styled-components';
import 'ol/ol.css';
import type { Point } from '#core/geometry';
import { seenKind } from '#core/seen';
import { formatQuantity } from '#core/units';
import { select, setDrawn, startTool, useApp, useAppPick } from '../app/store.ts';
import { useProject } from '../app/selectors.ts';
import { FONT, THEMES } from '../app/theme.ts';
import { setLand, useAsk, useLand, useLandPick } from '../app/land.ts';
import { STAGE_UI } from '../stages/index.ts';
import { drag } from './drag.ts';
import { ownerOf } from './marks.ts';
import { usePinning } from '../app/pictures.ts';
import { planItems } from './items.ts';
import { PlanMap } from './map.ts';
import { PlanBar } from './PlanBar.tsx';
import { useGround } from './Ground.tsx';
import { usePictures } from './pictures.ts';
import { TRENCH_GRADE, landItems } from './land-items.ts';
import { Legend } from './Legend.tsx';
import { usePointer } from './pointer.ts';
import { PointerMarks, ReadOut } from './ReadOut.tsx';
import { TOOLS, finishTool, placePoint } from './tools.ts';

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
/** What a click on an item selects: a work, a pin or a feature; null where it is only a result. */
function selectable(id: string | null): string | null {
  if (id === null) return null;
  const kept = ['feature:', 'zone:', 'test:'].find((start) => id.startsWith(start));
  if (kept !== undefined) return id.slice(kept.length);
  return id.includes(':') ? null : ownerOf(id);
}

const STEPS: Readonly<Record<string, Point>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };

/** The plan: map, drawing tools, read-out, and the same by keyboard. */
export function Plan(): ReactNode {
  const stage = useLocation().pathname.split('/').pop() ?? '';
  const showPegs = STAGE_UI.find((s) => s.id === stage)?.showsPegs === true;
  const target = useRef<HTMLDivElement>(null);
  const map = useRef<PlanMap | null>(null);
  const project = useProject();
  const { result, terrain, selected, theme, system } = useAppPick('result', 'terrain', 'selected', 'theme', 'system');
  const palette = THEMES[theme];

  useEffect(() => {
    if (!target.current) return undefined;
    /** Whether the last click was a tool's. */
    let wasTools = false;
    const created = new PlanMap(target.current, THEMES[useApp.getState().theme], {
      onPointer: (at) => {
        usePointer.setState({ pointer: at });
        // Only a section shown has a place pointed at in it.
        if (useLand.getState().shown) setLand({ probe: at });
      },
      onDrag: drag,
      canTake: () => useApp.getState().tool === null,
      onClick: (at, id, isDouble) => {
        const active = useApp.getState().tool;
        // A double click may end a tool with its first: its second then chooses nothing.
        const isDone = !active && isDouble && wasTools;
        wasTools = active !== null;
        if (isDone) return;
        if (!active) select(selectable(id) ?? useApp.getState().selected);
        else if (isDouble) finishTool();
        else placePoint(useLand.getState().snaps && !TOOLS[active].isInside ? created.snap(at) : at);
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
  usePictures(map);
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

  const { showsCatchments, showsPlaces, shown, answer, live } = useLandPick('showsCatchments', 'showsPlaces', 'shown', 'answer', 'live');
  const places = useAsk('places', showsPlaces ? {} : null);
  const storage = useAsk('storage', answer?.kind === 'wall' ? { line: answer.line } : null);
  const hollow = useAsk('hollowAt', answer?.kind === 'hollow' ? { at: answer.at } : null);
  const receiver = project.features.find((f) => f.id === selected && !seenKind(f.kind));
  const runsOn = useAsk('runOn', receiver?.ring ? { ring: receiver.ring } : receiver?.line ? { line: receiver.line } : null);
  const fallLine = useAsk('fall', answer?.kind === 'fall' ? { ...answer, gradeM: TRENCH_GRADE } : null);
  const pinning = usePinning((s) => s.id);
  // What is drawn may come a frame after what is typed: it waits for the fields and the sheet.
  const [drawnProject, drawnResult] = [useDeferredValue(project), useDeferredValue(result)];
  // The same as long as they say the same: marks drawn from them stay.
  const levelText = useCallback((m: number): string => formatQuantity(m, 'level', system).replace(/\s.*/, ''), [system]);
  const flowText = useCallback((q: number): string => formatQuantity(q, 'flow', system), [system]);
  const items = useMemo(
    () => [
      ...planItems({ project: drawnProject, result: drawnResult, selected, showPegs, pinning, levelText, flowText }).filter(
        (item) => showsCatchments || item.look.role !== 'catchment',
      ),
      ...landItems({ places, shown, answer, storage: storage ?? hollow, fallLine, from: runsOn?.shape.ring ?? [], live }),
    ],
    [
      drawnProject,
      drawnResult,
      selected,
      showPegs,
      pinning,
      levelText,
      flowText,
      showsCatchments,
      places,
      shown,
      answer,
      storage,
      hollow,
      fallLine,
      runsOn,
      live,
    ],
  );
  useEffect(() => map.current?.setItems(items), [items]);
  const moveTo = useCallback((at: Point): void => {
    usePointer.setState({ crosshair: at });
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
    const { tool, drawn } = useApp.getState();
    const at = usePointer.getState().crosshair ?? map.current?.centre() ?? [0, 0];
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
        onFocus={() => usePointer.setState((s) => ({ hasFocus: true, crosshair: s.crosshair ?? map.current?.centre() ?? null }))}
        onBlur={() => usePointer.setState({ hasFocus: false })}
      />
      <PlanBar onTyped={onTyped} onZoom={onZoom} />
      <Legend />
      <ReadOut />
      <PointerMarks map={map} />
    </Frame>
  );
}

declare global {
  interface Window {
    /** The map, for measuring where a place lies on the page. */
    outletPlan?: PlanMap;
  }
}
