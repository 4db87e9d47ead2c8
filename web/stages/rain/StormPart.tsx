import { useState, type ReactNode } from 'react';
import { CHANCE, PATTERNS, PATTERN_MIN, PURPOSES, type StormShape, longestStorm, rowFor, stepsOfStorm, totalsOf } from '#core/rain';
import type { Rain } from '#core/project';
import { setStorm } from '../../app/rain.ts';
import { useFormat, useProject } from '../../app/selectors.ts';
import { Button, Choose, ChooseRow, Fact, Inline, Muted, Part, Quantity, Row } from '../../kit/index.ts';
import { Toggle } from '../../kit/toggle.tsx';
import { LengthsPart } from './LengthsPart.tsx';
import { OwnStorm } from './OwnStorm.tsx';
import { StormBars } from './StormBars.tsx';
import { minutesText } from './words.ts';

const SHAPES: Readonly<Record<string, string>> = {
  blocks: 'Wettest in the middle',
  uniform: 'Even all through',
  ...Object.fromEntries(PATTERNS.map((p) => [`pattern-${p}`, `24-hour pattern ${p}`])),
  own: 'My own, step by step',
  event: 'A real rain of the gauge',
};

const HINTS: Readonly<Record<string, string>> = {
  blocks: 'For every duration up to its own it holds what your table says, and no more. The safe choice where nothing else is known.',
  uniform: 'Gives the right volume and far too low a peak: for storage only, never for a sill or a spillway.',
  pattern:
    'Regional patterns of the USA: I and IA for the Pacific coast, II for most of the inland, III for the Gulf and Atlantic coasts. Always 24 hours.',
  own: 'Any rain you like, for instance one that a local rule sets.',
  event: 'A rain of your gauge’s record, as it fell.',
};

/** Steps as long as this hide the peaks that size sills and pipes [min]. */
const COARSE_MIN = 60;

const idOf = (shape: StormShape | undefined): string =>
  shape?.kind === 'pattern' ? `pattern-${shape.pattern}` : (shape?.kind ?? 'blocks');

function chooseShape(id: string): void {
  if (id.startsWith('pattern-'))
    setStorm({
      shape: { kind: 'pattern', pattern: id.slice('pattern-'.length) as 'II' },
      durationMin: PATTERN_MIN,
      durationsMin: undefined,
    });
  else if (id === 'blocks') setStorm({ shape: undefined });
  else if (id === 'uniform') setStorm({ shape: { kind: 'uniform' } });
  else if (id === 'own') setStorm({ shape: { kind: 'own', name: 'my own storm', stepMin: 10, stepsMm: [2, 4, 10, 6, 3, 2] } });
}

/** Which return period fits what is built, and why. */
function PurposeAdvice({ rain }: { readonly rain: Rain }): ReactNode {
  const [id, choose] = useState('soaking');
  const purpose = PURPOSES.find((p) => p.id === id) ?? PURPOSES[0];
  const row = rowFor(rain.table.returnYears, purpose.years);
  const { isOwn } = totalsOf(rain.table, longestStorm(rain.table, rain.storm));
  const isChosen = !isOwn && rain.storm.returnYears === row;
  const life = Math.round(100 * CHANCE.evaluate({ T: Math.max(1, row), n: 25 }));
  return (
    <Part title="How rare a storm">
      <Row>
        <Choose label="Designing" value={id} choices={PURPOSES.map((p) => ({ id: p.id, name: p.name }))} onChange={choose} />
      </Row>
      <Muted>
        <strong>
          1 in {purpose.years} years is usual, 1 in {purpose.leastYears} the least.
        </strong>{' '}
        {purpose.why} {purpose.caution} Common practice; local rules come first.
      </Muted>
      {row < purpose.years && (
        <Muted style={{ color: 'var(--strawText)' }}>Your table ends at 1 in {row} years: look for a longer one.</Muted>
      )}
      <Inline>
        <Button
          look={isChosen ? 'plain' : 'strong'}
          isDisabled={isChosen}
          onPress={() => setStorm({ returnYears: row, ...(isOwn ? { shape: undefined } : {}) })}
        >
          {isChosen ? `Designing for 1 in ${row} years` : `Design for 1 in ${row} years`}
        </Button>
        <Muted>Passed once or more in 25 years with a chance of {life} %.</Muted>
      </Inline>
    </Part>
  );
}

function ShapePart({ rain }: { readonly rain: Rain }): ReactNode {
  const { storm } = rain;
  const id = idOf(storm.shape);
  const steps = stepsOfStorm(storm);
  const choices = Object.entries(SHAPES).filter(([key]) => key !== 'event' || id === 'event');
  return (
    <>
      <ChooseRow label="How it falls" value={id} choices={choices.map(([key, name]) => ({ id: key, name }))} onChange={chooseShape} />
      <Muted style={{ margin: '4px 0' }}>
        {HINTS[id.split('-')[0]]}
        {steps && steps.stepMin >= COARSE_MIN && (
          <strong> Within a step of {minutesText(steps.stepMin)} it falls evenly, so peaks come out low.</strong>
        )}
      </Muted>
      {storm.shape?.kind === 'own' && <OwnStorm steps={storm.shape} />}
    </>
  );
}

/** The storm designed for. */
export function StormPart(): ReactNode {
  const { rain } = useProject();
  const format = useFormat();
  if (!rain)
    return (
      <Muted>
        There is no table yet, so no storm. Begin under Table: type one, paste one, bring in a file or a gauge, or guess from memory.
      </Muted>
    );
  const { storm, table } = rain;
  const one = longestStorm(table, storm);
  const totals = totalsOf(table, one);
  const isAgain = storm.againAfterH !== undefined;
  return (
    <>
      <Part title="Design storm">
        {!totals.isOwn && (
          <ChooseRow
            label="Return period"
            value={String(storm.returnYears)}
            choices={table.returnYears.map((y) => ({ id: String(y), name: `1 in ${y} years` }))}
            onChange={(y) => setStorm({ returnYears: Number(y) })}
          />
        )}
        <LengthsPart rain={rain} one={one} />
        <ShapePart rain={rain} />
        <Quantity
          label="Added to be careful"
          help="For a climate that grows wetter or a table you trust little"
          value={storm.upliftPercent ?? 0}
          kind="percent"
          min={-50}
          max={200}
          onChange={(u) => setStorm({ upliftPercent: u === 0 ? undefined : u })}
        />
        <Toggle label="It falls a second time" isOn={isAgain} onChange={(isOn) => setStorm({ againAfterH: isOn ? 12 : undefined })} />
        {isAgain && (
          <Quantity
            label="Dry hours between"
            value={storm.againAfterH ?? 0}
            kind="hours"
            min={0}
            max={168}
            onChange={(againAfterH) => setStorm({ againAfterH })}
          />
        )}
        <Toggle label="Count what soaks in during the storm" isOn={storm.soakage === true} onChange={(soakage) => setStorm({ soakage })} />
        <Fact label={isAgain ? 'Depth of both' : 'Depth'} value={format(totals.times * totals.depthMm, 'rain')} />
        {rain.limits && !totals.isOwn && (
          <Fact
            label={rain.basis === 'memory' ? 'Somewhere between' : 'Nine times in ten between'}
            value={[rain.limits.lowMm, rain.limits.highMm]
              .map((depthMm) => format(totals.times * totalsOf({ ...table, depthMm }, one).depthMm, 'rain'))
              .join(' and ')}
          />
        )}
        <StormBars rain={rain} />
      </Part>
      <PurposeAdvice rain={rain} />
    </>
  );
}
