import { useMemo, useState, type ReactNode } from 'react';
import { type Smoothing, noiseOf } from '#core/terrain';
import { useFormat, useProject } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { smoothGround } from '../../app/take-ground.ts';
import { Button, ChooseRow, FoldPart, Inline, Muted } from '../../kit/index.ts';

/** Noise under which contours a quarter of a metre apart run smoothly [m]. */
const RAGGED_M = 0.02;

const HOWS: readonly { readonly id: Smoothing; readonly name: string }[] = [
  { id: 'light', name: 'a little' },
  { id: 'medium', name: 'well' },
  { id: 'strong', name: 'strongly' },
];

/** The noise of the ground, and what takes it out. */
export function SmoothPart(): ReactNode {
  const { terrain } = useProject();
  const view = useApp((s) => s.terrain);
  const [how, setHow] = useState<Smoothing>('medium');
  const format = useFormat();
  const noiseM = useMemo(() => (view ? noiseOf({ ...view.frame, z: view.z }) : null), [view]);
  if (noiseM === null || terrain?.kind !== 'asset') return null;
  const isRagged = noiseM > RAGGED_M;
  return (
    <FoldPart title="Noise of the survey">
      <p style={{ margin: '2px 0' }}>
        Cells stand <strong>{format(noiseM, 'difference')}</strong> off their neighbours:{' '}
        {isRagged ? 'contours nearer than a few times that are ragged.' : 'it need not be smoothed.'}
      </p>
      {isRagged && (
        <>
          <ChooseRow label="Smooth it" value={how} choices={HOWS} onChange={setHow} />
          <Muted>Banks, ditches and gullies stay: only what faces the same way is drawn together.</Muted>
          <Inline>
            <Button onPress={() => void smoothGround(how)}>Smooth the ground</Button>
          </Inline>
        </>
      )}
    </FoldPart>
  );
}
