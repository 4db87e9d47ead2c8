import { ImagePlus, MapPinned, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { FileTrigger } from 'react-aria-components';
import { offsOf } from '#core/geometry';
import { PICTURE_ENDINGS, type Picture, WORLD_ENDINGS, layingOf } from '#core/project';
import { bringInAll } from '../../app/import.ts';
import { beginPinning, endPinning, removePicture, usePinning } from '../../app/pictures.ts';
import { useFormat, useProject } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { Button, Inline, Muted, Part } from '../../kit/index.ts';
import { Slide, Toggle } from '../../kit/toggle.tsx';
import { PinPicture } from './PinPicture.tsx';

const ENDINGS = [...PICTURE_ENDINGS, ...WORLD_ENDINGS, 'prj', 'tif', 'tiff', 'zip'].map((ending) => `.${ending}`);

const change = (id: string, set: Readonly<Record<string, unknown>>, gesture?: string): void => {
  dispatch({ type: 'picture.change', payload: { id, set } }, gesture);
};

/** How well it is known where a picture lies, in a sentence. */
function useLies(picture: Picture): string {
  const format = useFormat();
  const { pins = [], source } = picture;
  const laying = layingOf(picture);
  if (!laying && pins.length >= 2) return 'Its places are all at one point: take them out and pin it by places far apart.';
  if (!laying) return 'Nobody has said where it lies: pin it by two places at least.';
  if (pins.length < 2) return `It lies as ${source} says.`;
  if (pins.length === 2) return 'It is pinned by two places: a third would show how well.';
  return `It is pinned by ${pins.length} places, ${format(Math.max(...offsOf(laying, pins)), 'length')} off at most.`;
}

function OnePicture({ picture }: { readonly picture: Picture }): ReactNode {
  const { id, name, opacityPercent, isHidden = false } = picture;
  const isPinning = usePinning((s) => s.id === id);
  const lies = useLies(picture);
  return (
    <>
      <Toggle label={name} isOn={!isHidden} onChange={(isOn) => change(id, { isHidden: isOn ? null : true })} />
      <Muted>{lies}</Muted>
      <Slide
        label={`How much of ${name} is seen`}
        value={opacityPercent}
        min={10}
        max={100}
        step={10}
        words={(v) => `${v} %`}
        onChange={(v) => change(id, { opacityPercent: v }, `seen-${id}`)}
      />
      <Inline>
        <Button aria-pressed={isPinning} onPress={() => (isPinning ? endPinning() : beginPinning(id))}>
          <MapPinned size={16} aria-hidden />
          Pin it by places
        </Button>
        <Button look="quiet" aria-label={`Remove ${name}`} onPress={() => removePicture(id)}>
          <Trash2 size={15} aria-hidden />
        </Button>
      </Inline>
      {isPinning && <PinPicture picture={picture} />}
    </>
  );
}

/** Photographs, scans and sketches under the plan: to draw by, never to work anything out from. */
export function PicturesPart(): ReactNode {
  const { pictures = [] } = useProject();
  return (
    <Part title="Pictures under the plan">
      {pictures.length === 0 && (
        <Muted>
          A photograph from above, a scanned map or a sketch to draw by. Choose its world file with it, if it has one. Nothing is worked out
          from it.
        </Muted>
      )}
      {pictures.map((picture) => (
        <OnePicture key={picture.id} picture={picture} />
      ))}
      <FileTrigger acceptedFileTypes={ENDINGS} allowsMultiple onSelect={(files) => files && void bringInAll([...files])}>
        <Button>
          <ImagePlus size={16} aria-hidden />
          Bring in a picture
        </Button>
      </FileTrigger>
    </Part>
  );
}
