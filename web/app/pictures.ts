// Pictures under the plan: taken in, and pinned by places found both in the picture and on the ground.
import { create } from 'zustand';
import type { Point } from '#core/geometry';
import { MOST_PICTURE_PINS, type Picture } from '#core/project';
import type { TakenIn } from '../workers/protocol.ts';
import { newId } from './selectors.ts';
import { dispatch, keepAsset, notify, startTool, useApp } from './store.ts';

type Taken = Extract<TakenIn, { readonly kind: 'picture' }>;

/** How much of the ground's shading a picture lets through at first [%]. */
const FIRST_OPACITY = 70;

/** The picture being pinned, and the place just found in it that is not yet found on the ground [px]. */
export const usePinning = create<{ readonly id: string | null; readonly px: Point | null }>(() => ({ id: null, px: null }));

const picturesNow = (): readonly Picture[] => useApp.getState().history?.project.pictures ?? [];

/** Takes a picture in. Returns whether it was taken. */
export async function takePicture({ picture, asset, laying, crs, source, notes }: Taken): Promise<boolean> {
  const project = useApp.getState().history?.project;
  if (!project) return false;
  const isElsewhere = laying !== null && crs !== null && crs !== project.site.crs && (project.terrain !== null || project.site.crs !== null);
  if (isElsewhere) {
    const what = `it lies in ${crs}, and the ground of this project in ${project.site.crs ?? 'local metres'}`;
    notify({
      tone: 'mend',
      title: `${source} was not taken in; nothing has changed`,
      problems: [{ code: 'picture.elsewhere', what, where: { file: source }, do: 'Bring it in without its world file, and pin it by places you know.' }],
    });
    return false;
  }
  await keepAsset(asset.sha256, asset.blob);
  const id = newId('picture');
  const name = source.replace(/\.[^.]*$/, '') || source;
  const made: Picture = { id, name, sha256: asset.sha256, ...picture, source, laying, opacityPercent: FIRST_OPACITY };
  if (!dispatch({ type: 'picture.add', payload: { picture: made, ...(crs === null ? {} : { crs }) } })) return false;
  notify({ tone: 'fine', title: [`The picture ${name} is in.`, ...notes].join(' '), problems: [] });
  if (!laying) beginPinning(id);
  return true;
} // prettier-ignore

export const beginPinning = (id: string): void => usePinning.setState({ id, px: null });

export function endPinning(): void {
  if (useApp.getState().tool === 'picture-pin') startTool(null);
  usePinning.setState({ id: null, px: null });
}

/** A place found in the picture: next it is to be found on the ground. */
export function foundIn(px: Point): void {
  usePinning.setState({ px });
  startTool('picture-pin');
}

/** The place just found in the picture is here on the ground. */
export function foundAt(at: Point): void {
  const { id, px } = usePinning.getState();
  const picture = picturesNow().find((p) => p.id === id);
  if (!picture || !px) return;
  const pins = [...(picture.pins ?? []), { px, at }];
  usePinning.setState({ px: null });
  dispatch({ type: 'picture.change', payload: { id: picture.id, set: { pins } } });
  if (pins.length >= MOST_PICTURE_PINS) endPinning();
}

/** Takes a picture out; what was being pinned of it with it. */
export function removePicture(id: string): void {
  if (usePinning.getState().id === id) endPinning();
  dispatch({ type: 'picture.remove', payload: { id } });
}

/** Takes a pin out again. */
export function unpin(picture: Picture, index: number): void {
  const pins = (picture.pins ?? []).filter((_, k) => k !== index);
  dispatch({ type: 'picture.change', payload: { id: picture.id, set: { pins: pins.length > 0 ? pins : null } } });
}
