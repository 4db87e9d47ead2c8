import { useState, type ReactNode } from 'react';
import { BUCKET_RAIN, READING_ERROR, type ReadBy, TIME_ERROR, returnWords, whichStorm } from '#core/rain';
import { useFormat, useProject } from '../../app/selectors.ts';
import { ChooseRow, Muted, Part, Quantity } from '../../kit/index.ts';
import { minutesText } from './words.ts';

interface Bucket {
  readonly h: number;
  readonly D: number;
  readonly d: number;
  readonly H: number;
}

/** How rare a measured rain was. */
export function WhichPart(): ReactNode {
  const { rain } = useProject();
  const format = useFormat();
  const [by, choose] = useState<ReadBy>('gauge');
  const [gaugeMm, setGauge] = useState<number | null>(null);
  const [bucket, setBucket] = useState<Bucket>({ h: 40, D: 280, d: 220, H: 300 });
  const [minutes, setMinutes] = useState(60);
  if (!rain) return <Muted>A table is needed to compare with: begin under Table.</Muted>;
  const isBucket = by === 'bucket';
  const isFull = isBucket && bucket.h > bucket.H;
  const depthMm = isBucket ? (isFull ? null : BUCKET_RAIN.evaluate({ h: bucket.h, D: bucket.D, d: bucket.d, H: bucket.H })) : gaugeMm;
  const read =
    depthMm !== null && depthMm > 0 && minutes > 0
      ? whichStorm(rain.table, { depthMm, durationMin: minutes, by }, rain.limits ?? null)
      : null;
  return (
    <Part title="What storm was that?">
      <ChooseRow
        label="Measured with"
        value={by}
        choices={[
          { id: 'gauge', name: 'a rain gauge' },
          { id: 'bucket', name: 'a bucket' },
        ]}
        onChange={choose}
      />
      {isBucket ? (
        <>
          <Quantity label="Depth of water in it" value={bucket.h} kind="rain" min={0} onChange={(h) => setBucket({ ...bucket, h })} />
          <Quantity label="Width inside at the rim" value={bucket.D} kind="rain" min={10} onChange={(D) => setBucket({ ...bucket, D })} />
          <Quantity
            label="Width inside at the bottom"
            value={bucket.d}
            kind="rain"
            min={10}
            onChange={(d) => setBucket({ ...bucket, d })}
          />
          <Quantity label="Height inside" value={bucket.H} kind="rain" min={10} onChange={(H) => setBucket({ ...bucket, H })} />
        </>
      ) : (
        <Quantity label="Rain in the gauge" value={gaugeMm} kind="rain" min={0} onChange={setGauge} />
      )}
      <Quantity label="It fell in" value={minutes} kind="minutes" min={1} max={10080} onChange={setMinutes} />
      {isFull && (
        <Muted style={{ color: 'var(--strawText)' }}>The water stands above the rim: a bucket that ran over only says “at least”.</Muted>
      )}
      {!read && !isFull && <Muted>Give what was measured, and the time in which most of it fell.</Muted>}
      {read && depthMm !== null && (
        <div role="status">
          <p style={{ fontSize: 17, margin: '12px 0 4px' }}>
            {format(depthMm, 'rain')} in {minutesText(minutes)} is <strong>{returnWords(read.best)}</strong>.
          </p>
          <Muted>
            It may be anything from {returnWords(read.least)} to {returnWords(read.most)}: {isBucket ? 'a bucket' : 'a gauge'} reads within{' '}
            {100 * READING_ERROR[by]} %, the time is remembered within {100 * TIME_ERROR} %
            {read.withLimits ? ', and the table has its own limits' : '; how sure the table is, it does not say'}.
            {read.extrapolated ? ' This time lies outside your table, so its depths were carried on.' : ''}
          </Muted>
        </div>
      )}
    </Part>
  );
}
