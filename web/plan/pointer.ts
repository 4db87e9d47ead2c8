// Where the pointer and the crosshair are: kept apart from all that does not follow them.
import { create } from 'zustand';
import type { Point } from '#core/geometry';
import { picking } from '../app/pick.ts';

interface PointerView {
  readonly pointer: Point | null;
  readonly crosshair: Point | null;
  readonly hasFocus: boolean;
}

export const usePointer = create<PointerView>(() => ({ pointer: null, crosshair: null, hasFocus: false }));
export const usePointerPick = picking(usePointer);
