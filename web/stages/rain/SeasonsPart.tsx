import type { ReactNode } from 'react';
import { Bar, BarChart, Cell, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { ONSET_MM, type Seasons } from '#core/rain';
import { displayUnit, toDisplay } from '#core/units';
import { useAskRain } from '../../app/rain.ts';
import { useFormat, useProject } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { AXIS_TICK, Fact, Muted, Part, Table } from '../../kit/index.ts';
import { MONTHS, dayText } from './words.ts';

function MonthBars({ months }: { readonly months: Seasons['months'] }): ReactNode {
  const system = useApp((s) => s.system);
  const { unit } = displayUnit('rain', system);
  const rows = months.map((m) => ({ name: MONTHS[m.month - 1].slice(0, 1), mm: toDisplay(m.meanMm, 'rain', system), isWet: m.isWet }));
  const wet = months.filter((m) => m.isWet).map((m) => MONTHS[m.month - 1]);
  return (
    <div role="img" aria-label={`Mean rain of each month in ${unit}; wet months are ${wet.join(', ')}`} style={{ marginTop: 8 }}>
      <ResponsiveContainer width="100%" height={150}>
        <BarChart data={rows} margin={{ top: 6, right: 8, bottom: 0, left: 0 }} barCategoryGap={3}>
          <XAxis dataKey="name" tick={AXIS_TICK} stroke="var(--ink)" interval={0} allowDuplicatedCategory />
          <YAxis tick={AXIS_TICK} stroke="var(--line)" width={46} />
          <Bar dataKey="mm" isAnimationActive={false}>
            {rows.map((r, i) => (
              <Cell key={i} fill={r.isWet ? 'var(--water)' : 'var(--straw)'} />
            ))}
          </Bar>
        </BarChart>
      </ResponsiveContainer>
      <Muted>Mean rain of each month in {unit}; blue months bring more than a twelfth of the year.</Muted>
    </div>
  );
}

/** When it rains, how bunched, and when to be finished. */
export function SeasonsPart(): ReactNode {
  const { gauge } = useProject();
  const format = useFormat();
  const seasons = useAskRain('seasons', gauge ? {} : null);
  if (!gauge) return <Muted>Seasons are read from a gauge’s record: bring one in under Gauge.</Muted>;
  if (!seasons) return <Muted>Reading the record.</Muted>;
  const { finishBy, longestDry, wettestDay, leastYear, mostYear } = seasons;
  const share = (v: number | null): string => (v === null ? 'not known' : `${Math.round(100 * v)} %`);
  return (
    <>
      <Part title="When to be finished">
        <Muted>
          {finishBy ? (
            <>
              <strong>
                Finish by {finishBy.day} {MONTHS[finishBy.month - 1]}.
              </strong>{' '}
              In nine years of ten the first rains, {format(ONSET_MM, 'rain')} within three days after the dry season, had not come sooner.
            </>
          ) : (
            <strong>No season is dry enough to build in: watch the forecast, and leave no bank raw over a night.</strong>
          )}{' '}
          By {seasons.yearsKnown} whole year{seasons.yearsKnown === 1 ? '' : 's'}
          {seasons.yearsKnown < 10 ? ', which is few' : ''}.
        </Muted>
      </Part>
      <Part title="The year">
        <Fact label="Rain of a mean year" value={format(seasons.meanYearMm, 'rain')} />
        {leastYear && mostYear && (
          <Fact
            label="Driest and wettest year"
            value={`${format(leastYear.totalMm, 'rain')} (${leastYear.year}), ${format(mostYear.totalMm, 'rain')} (${mostYear.year})`}
          />
        )}
        {wettestDay && <Fact label="Wettest day" value={`${format(wettestDay.mm, 'rain')}, ${dayText(wettestDay.day)}`} />}
        {longestDry && <Fact label="Longest dry spell" value={`${longestDry.days} days from ${dayText(longestDry.fromDay)}`} />}
        <Fact
          label="Longest dry spell of a usual year"
          value={seasons.usualDryDays === null ? 'not known' : `${Math.round(seasons.usualDryDays)} days`}
        />
        <Fact label="Rain on the wettest tenth of wet days" value={share(seasons.bunched)} />
        <Fact
          label="Half of a year falls in"
          value={seasons.halfInDays === null ? 'not known' : `${Math.round(seasons.halfInDays)} days`}
        />
        <MonthBars months={seasons.months} />
        <Table
          caption="Rain by month"
          head={['Month', 'Mean', 'Least', 'Most', 'Wet days']}
          rows={seasons.months.map((m) => [
            MONTHS[m.month - 1],
            ...(Number.isFinite(m.meanMm)
              ? [format(m.meanMm, 'rain'), format(m.leastMm, 'rain'), format(m.mostMm, 'rain'), m.wetDays.toFixed(0)]
              : ['not known', '', '', '']),
          ])}
        />
      </Part>
    </>
  );
}
