import type { PointerEvent } from 'react';
import { dispatch } from '../../app/store.ts';
import { withLevel } from '../levels.ts';

let gesture = 0;

/** Starts dragging one level up and down; `perM` is the drawing's pixels a metre before it is scaled to the page. */
export function useLevelDrag(): (on: {
  id: string;
  path: string;
  levelM: number;
  perM: number;
}) => (event: PointerEvent<SVGElement>) => void {
  return ({ id, path, levelM, perM }) =>
    (event) => {
      event.preventDefault();
      const svg = event.currentTarget.ownerSVGElement;
      const scale = svg ? svg.getBoundingClientRect().height / svg.viewBox.baseVal.height : 1;
      const startY = event.clientY;
      const name = `level-${++gesture}`;
      const move = (e: globalThis.PointerEvent): void => {
        dispatch(withLevel(id, path, levelM - (e.clientY - startY) / (perM * scale)), name);
      };
      const end = (): void => {
        window.removeEventListener('pointermove', move);
        window.removeEventListener('pointerup', end);
      };
      window.addEventListener('pointermove', move);
      window.addEventListener('pointerup', end);
    };
}
