import { Upload } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { FileTrigger } from 'react-aria-components';
import type { GaugeQuality } from '#core/derive';
import { DAY_MIN, GEV_YEARS, LEAST_KNOWN, LEAST_YEARS, returnWords } from '#core/rain';
import { bringIn } from '../../app/import.ts';
import { setStorm, useAskRain, takeTable } from '../../app/rain.ts';
import { useFormat, useProject } from '../../app/selectors.ts';
import { dispatch, notify } from '../../app/store.ts';
import { Button, Choose, Fact, Inline, Muted, Part, Row, Table } from '../../kit/index.ts';
import { Toggle } from '../../kit/toggle.tsx';
import { FrequencyChart } from './FrequencyChart.tsx';
import { minutesText, momentText } from './words.ts';

function Bring({ isAgain }: { readonly isAgain: boolean }): ReactNode {
  return (
    <FileTrigger acceptedFileTypes={['.csv', '.txt']} onSelect={(files) => files?.[0] && void bringIn(files[0])}>
      <Button>
        <Upload size={16} aria-hidden />
        {isAgain ? 'Bring in another record' : 'Bring in a gauge’s record'}
      </Button>
    </FileTrigger>
  );
}

function QualityPart({ quality, source }: { readonly quality: GaugeQuality; readonly source: string }): ReactNode {
  const { years, wholeYears, gaps, gapCount, stepMin, fromMin, toMin } = quality;
  const poor = years.filter((y) => y.known < LEAST_KNOWN);
  return (
    <Part title="The record">
      <Fact label="File" value={source} />
      <Fact label="From" value={momentText(fromMin)} />
      <Fact label="To" value={momentText(toMin - stepMin)} />
      <Fact label="Step" value={stepMin === DAY_MIN ? '1 day' : minutesText(stepMin)} />
      <Fact label="Years known whole" value={`${wholeYears} of ${years.length}`} />
      <Muted>
        {gapCount === 0
          ? 'No gaps.'
          : `${gapCount} gap${gapCount === 1 ? '' : 's'}, the longest ${Math.round(gaps[0].durationMin / DAY_MIN) || '< 1'} days from ${momentText(gaps[0].fromMin)}.`}{' '}
        {poor.length > 0 &&
          `Left out of yearly maxima, since less than ${100 * LEAST_KNOWN} % is known: ${poor.map((y) => y.year).join(', ')}.`}
      </Muted>
    </Part>
  );
}

/** Fits of the yearly maxima, drawn and told, and a table from them. */
function FrequencyPart({ wholeYears }: { readonly wholeYears: number }): ReactNode {
  const format = useFormat();
  const frequency = useAskRain('frequency', {});
  const [durationMin, choose] = useState(DAY_MIN);
  const [kind, setKind] = useState<'gumbel' | 'gev'>('gumbel');
  const [carriesOn, carryOn] = useState(true);
  const curve = useAskRain('curve', frequency && !frequency.tooShort ? { durationMin, kind } : null);
  const table = useAskRain('table', frequency && !frequency.tooShort ? { kind, shorter: carriesOn } : null);
  if (!frequency) return null;
  if (frequency.tooShort) {
    return (
      <Part title="How rare">
        <Muted>
          <strong>
            {wholeYears} whole year{wholeYears === 1 ? ' is' : 's are'} too short for return periods:
          </strong>{' '}
          at least {LEAST_YEARS} are needed, and {GEV_YEARS} for a figure to trust. The seasons and single rains below can be used.
        </Muted>
      </Part>
    );
  }
  const trusted = 2 * wholeYears;
  const isDaily = frequency.fits[0].durationMin >= DAY_MIN;
  const at = (years: number): number => table?.table.returnYears.indexOf(years) ?? -1;
  const c = table?.table.durationsMin.indexOf(durationMin) ?? -1;
  return (
    <Part title="How rare: the wettest of each year">
      <Inline>
        <Choose
          label="In"
          value={String(durationMin)}
          choices={frequency.fits.map((f) => ({
            id: String(f.durationMin),
            name: f.durationMin === DAY_MIN ? '1 day' : minutesText(f.durationMin),
          }))}
          onChange={(d) => choose(Number(d))}
        />
        <Choose
          label="By"
          value={kind}
          choices={[
            { id: 'gumbel', name: 'Gumbel, two parameters' },
            { id: 'gev', name: 'GEV, three parameters' },
          ]}
          onChange={setKind}
        />
      </Inline>
      {kind === 'gev' && wholeYears < GEV_YEARS && (
        <Muted style={{ color: 'var(--strawText)' }}>{wholeYears} years are too few for a third parameter, so Gumbel is used.</Muted>
      )}
      {curve?.fit.gumbelSuffices === true && <Muted>Gumbel suits these years: a third parameter would only follow chance.</Muted>}
      {curve?.fit.gumbelSuffices === false && (
        <Muted>
          <strong>GEV suits these years better:</strong> their greatest stand off Gumbel’s line by more than chance.
        </Muted>
      )}
      {curve && <FrequencyChart fitted={curve} />}
      {table && c >= 0 && (
        <Muted style={{ marginTop: 8 }}>
          <strong>
            1 in 20 years: {format(table.table.depthMm[at(20)][c], 'rain')}, nine times in ten between{' '}
            {format(table.limits.lowMm[at(20)][c], 'rain')} and {format(table.limits.highMm[at(20)][c], 'rain')}.
          </strong>{' '}
          {wholeYears < GEV_YEARS ? `${wholeYears} years are a short record: take the high side. ` : ''}Rarer than 1 in {trusted} years is a
          guess by this record.
        </Muted>
      )}
      {curve && (
        <Table
          caption="Depth by return period"
          head={['1 in', 'Depth', 'From', 'To']}
          rows={curve.curve
            .filter((p) => [2, 5, 10, 20, 50, 100].includes(p.returnYears))
            .map((p) => [
              `${p.returnYears} years${p.returnYears > trusted ? ' ?' : ''}`,
              format(p.depthMm, 'rain'),
              format(p.low, 'rain'),
              format(p.high, 'rain'),
            ])}
        />
      )}
      {isDaily && (
        <>
          <Toggle label="Add durations under a day by a rough rule" isOn={carriesOn} onChange={carryOn} />
          <Muted>
            A daily gauge knows nothing shorter than a day. The rule takes the cube root of the share of a day: a guess, with wide limits.
            Without it short storms are carried on from the day’s depth and say so.
          </Muted>
        </>
      )}
      {table && (
        <Inline>
          <Button
            look="strong"
            onPress={() => {
              if (
                takeTable({
                  table: table.table,
                  limits: table.limits,
                  basis: 'record',
                  source: `${wholeYears} years of the gauge, by ${kind === 'gev' && wholeYears >= GEV_YEARS ? 'GEV' : 'Gumbel'}${isDaily && carriesOn ? '; under a day by a rough rule, a guess' : ''}`,
                })
              )
                notify({ tone: 'fine', title: 'The table of the record is in, with its limits.', problems: [] });
            }}
          >
            Use a table from this record
          </Button>
        </Inline>
      )}
    </Part>
  );
}

/** The deepest rains, any of which can be designed for. */
function EventsPart(): ReactNode {
  const format = useFormat();
  const { rain } = useProject();
  const events = useAskRain('events', { count: 6 });
  if (!events || events.length === 0) return null;
  return (
    <Part title="Deepest rains, up to a week long">
      {events.map((e) => (
        <Row key={e.fromMin}>
          <span>
            {momentText(e.fromMin)}: {format(e.depthMm, 'rain')} in {e.durationMin === DAY_MIN ? '1 day' : minutesText(e.durationMin)}
            {e.returned && !e.returned.beyond ? `, about ${returnWords(e.returned)}` : ''}
          </span>
          {rain && e.storm && (
            <Button
              look="quiet"
              aria-label={`Design for the rain of ${momentText(e.fromMin)}`}
              onPress={() => e.storm && setStorm({ shape: { kind: 'event', ...e.storm } })}
            >
              Design for it
            </Button>
          )}
        </Row>
      ))}
    </Part>
  );
}

/** A rain gauge's record and what it says. */
export function GaugePart(): ReactNode {
  const { gauge } = useProject();
  const quality = useAskRain('quality', gauge ? {} : null);
  if (!gauge) {
    return (
      <>
        <Muted>
          Years of your own gauge, or of one nearby, tell how rare a rain is and when it falls. A CSV with a date and a rain column, by the
          day or in shorter steps; gaps, traces and sums are understood.
        </Muted>
        <Inline>
          <Bring isAgain={false} />
        </Inline>
        <Muted>
          A sample file:{' '}
          <a href="/samples/sample-gauge.csv" download>
            sample-gauge.csv
          </a>
        </Muted>
      </>
    );
  }
  if (!quality) return <Muted>Reading the record.</Muted>;
  return (
    <>
      <QualityPart quality={quality} source={gauge.source} />
      <FrequencyPart wholeYears={quality.wholeYears} />
      <EventsPart />
      <Inline>
        <Bring isAgain />
        <Button onPress={() => dispatch({ type: 'gauge.set', payload: { gauge: null } })}>Put the record away</Button>
      </Inline>
    </>
  );
}
