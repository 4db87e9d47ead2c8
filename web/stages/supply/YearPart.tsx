import { useState, type ReactNode } from 'react';
import { LACKS_WORDS, type Season, type StoreThrough } from '#core/derive';
import { valueAt } from '#core/works';
import { useFormat, useProject, useWorks } from '../../app/selectors.ts';
import { hasDays, setSupply, useSeason } from '../../app/season.ts';
import { useApp } from '../../app/store.ts';
import { Choose, Fact, FoldPart, Inline, Muted, Part, Table } from '../../kit/index.ts';
import { MONTHS } from '../rain/words.ts';
import { LevelChart } from './LevelChart.tsx';

const percent = (share: number | null): string => (share === null ? '–' : `${(100 * share).toFixed(0)} %`);

/** The store to look at first: the one whose needs are met least, else the largest. */
function firstOf({ stores, demands }: Season): string {
  const [least] = demands.filter((d) => d.suppliedShare !== null).sort((a, b) => (a.suppliedShare ?? 1) - (b.suppliedShare ?? 1));
  return least?.store ?? stores.reduce((a, b) => (b.roomM3 > a.roomM3 ? b : a)).id;
}

function StoreFacts({ store, season }: { readonly store: StoreThrough; readonly season: Season }): ReactNode {
  const format = useFormat();
  const { told, roomM3, lacks } = store;
  if (!told)
    return (
      <Muted role="alert">
        Not told: {lacks.map((l) => LACKS_WORDS[l]).join(', ')}. Ground is described under Ground, what dries off under The place.
      </Muted>
    );
  const kind = roomM3 < 50 ? 'liquid' : 'volume';
  const aYear = (m3: number): string => `${format(m3 / season.years, kind)} a year`;
  const { lastsTo } = told;
  return (
    <>
      <Fact label="Comes in" value={aYear(told.inM3)} />
      <Fact label="Drawn off" value={aYear(told.suppliedM3)} />
      <Fact label="Runs over" value={aYear(told.spilledM3)} />
      {told.soakedM3 > 0 && <Fact label="Soaks in" value={aYear(told.soakedM3)} />}
      {told.evaporatedM3 > 0 && <Fact label="Dries off" value={aYear(told.evaporatedM3)} />}
      {told.liftedM3 > 0 && <Fact label="Led on to other stores" value={aYear(told.liftedM3)} />}
      {told.toppedUpM3 > 0 && <Fact label="Brought in" value={aYear(told.toppedUpM3)} />}
      {told.suppliedShare !== null && <Fact label="Of what is asked, met" value={percent(told.suppliedShare)} />}
      {told.dryDaysAYear !== null && <Fact label="Days short of it in a mean year" value={format(told.dryDaysAYear, 'days')} />}
      {told.monthsCarried !== null && <Fact label="Months of a mean year it carries" value={told.monthsCarried.toFixed(1)} />}
      <Fact
        label="Empty on end, at the worst"
        value={told.longestEmptyDays === 0 ? 'never' : `${told.longestEmptyDays} days from ${told.longestEmptyFrom ?? ''}`}
      />
      <Fact
        label="Lasts to"
        value={lastsTo ? `${lastsTo.day} ${MONTHS[lastsTo.month - 1]} in a usual year` : told.emptyYears > 0 ? `the next rain, but in ${told.emptyYears} of ${season.years} years` : 'the next rain, every year'}
      />
      <Fact label="Of all days, above half" value={percent(told.aboveHalf)} />
    </>
  ); // prettier-ignore
}

/** One store on the evenings of one year. */
function StoreYear({ store }: { readonly store: StoreThrough }): ReactNode {
  const system = useApp((s) => s.system);
  const worst = store.told?.worst?.year;
  const best = store.told?.best?.year;
  const years = store.told?.years.map((y) => y.year) ?? [];
  const [chosen, choose] = useState<number | null>(null);
  const year = chosen !== null && years.includes(chosen) ? chosen : (worst ?? years[years.length - 1]);
  const days = useSeason('season', year === undefined ? null : { year });
  const series = days?.series;
  const nameOf = (y: number): string => (y === worst ? `${y}, the worst` : y === best ? `${y}, the best` : String(y));
  if (!store.told || store.roomM3 <= 0) return null;
  const rain = store.told.years.find((y) => y.year === year)?.rainMm;
  return (
    <Part title="Day by day">
      <Inline>
        <Choose
          label="Year"
          value={String(year)}
          choices={years.map((y) => ({ id: String(y), name: nameOf(y) }))}
          onChange={(v) => choose(Number(v))}
        />
        {rain !== undefined && <Muted>{rain.toFixed(0)} mm of rain</Muted>}
      </Inline>
      {series && series.dates[0]?.startsWith(String(year)) && store.id in series.volumeM3 ? (
        <LevelChart
          name={store.name}
          dates={series.dates}
          rainMm={series.rainMm}
          volumeM3={series.volumeM3[store.id]}
          roomM3={store.roomM3}
          deadM3={store.deadM3}
          system={system}
        />
      ) : (
        <Muted role="status">Working the year out…</Muted>
      )}
    </Part>
  );
}

/** What leaves the property, with the works and with nothing built. */
function LeavingPart({ season }: { readonly season: Season }): ReactNode {
  const format = useFormat();
  const places = season.exits.filter((e) => e.withoutM3 > 0 || e.withM3 !== 0);
  if (places.length === 0) return null;
  const aYear = (v: number | null): string => (v === null ? '–' : (v / season.years).toFixed(0));
  return (
    <FoldPart title="Does the creek run longer?">
      <Muted>Days of a mean year on which more than a cubic metre leaves over the ground, with the works and with nothing built.</Muted>
      <Table
        caption="What leaves the property through the year"
        head={['Where', 'Days now', 'Days without', 'Now', 'Without']}
        rows={places.map((e, k) => [
          e.id === 'exit-rest' ? 'here and there' : `place ${k + 1}`,
          aYear(e.flowDaysWith),
          aYear(e.flowDaysWithout),
          format(e.withM3 === null ? null : e.withM3 / season.years, 'volume'),
          format(e.withoutM3 / season.years, 'volume'),
        ])}
      />
      <Muted>What soaked in and comes out again below is counted only where a work says so.</Muted>
    </FoldPart>
  );
}

/** What each roof brings in a mean year, and what that costs: by its yearly litre a catching roof is judged. */
function RoofsPart({ season }: { readonly season: Season }): ReactNode {
  const format = useFormat();
  const works = useWorks();
  const roofs = season.stores.filter((s) => s.isRoof && s.told);
  if (roofs.length === 0) return null;
  return (
    <FoldPart title="What each roof brings">
      <Table
        caption="Roofs, what they bring and what that costs"
        head={['Roof', 'Brings a year', 'Cost for each 1000 L a year']}
        rows={roofs.map(({ work, name, told }) => {
          const aYear = (told?.inM3 ?? 0) / season.years;
          const cost = valueAt(works.find((w) => w.id === work), 'cost'); // prettier-ignore
          return [name, format(aYear, aYear < 50 ? 'liquid' : 'volume'), typeof cost === 'number' && aYear > 0 ? (cost / aYear).toFixed(1) : 'cost not said'];
        })}
      />
      <Muted>What it costs is said with the roof, under Works.</Muted>
    </FoldPart>
  ); // prettier-ignore
}

/** The year's water: how much of each need is met, store by store and day by day. */
export function YearPart(): ReactNode {
  const project = useProject();
  const format = useFormat();
  const season = useSeason('season', {});
  const [shown, show] = useState<string | null>(null);
  if (!hasDays(project)) return <Muted>Bring in a gauge’s record under Rain, or give monthly rain under The place.</Muted>;
  if (season === undefined) return <Muted role="status">Following the water day by day…</Muted>;
  if (season === null) return <Muted>Draw a roof and a tank, a pond or a swale: its water is then followed through the year.</Muted>;
  const keeping = season.stores.filter((s) => s.roomM3 > 0);
  if (keeping.length === 0) return <Muted>Nothing that is drawn keeps water: draw a tank, a pond or a swale.</Muted>;
  const id = keeping.some((s) => s.id === shown) ? shown : firstOf({ ...season, stores: keeping });
  const store = keeping.find((s) => s.id === id) ?? keeping[0];
  const nameOf = (of: string): string => season.stores.find((s) => s.id === of)?.name ?? 'a store that is gone';
  return (
    <>
      {season.isApart && <Muted>Without terrain only roofs and tanks are followed; bring in your land for ponds and swales.</Muted>}
      {season.demands.length > 0 && (
        <Part title="How much of each need is met">
          <Table
            caption="Needs and how they are met"
            head={['Need', 'From', 'Asks a year', 'Met', 'Short']}
            rows={season.demands.map((d) => [
              d.name,
              nameOf(d.store),
              d.demandM3 === null ? '–' : format(d.demandM3 / season.years, d.demandM3 / season.years < 50 ? 'liquid' : 'volume'),
              percent(d.suppliedShare),
              d.dryDays === null ? '–' : `${(d.dryDays / season.years).toFixed(0)} days`,
            ])}
          />
        </Part>
      )}
      <Part title="Store">
        <Choose label="Look at" value={store.id} choices={keeping.map((s) => ({ id: s.id, name: s.name }))} onChange={show} />
        <StoreFacts store={store} season={season} />
      </Part>
      <StoreYear key={store.id} store={store} />
      <RoofsPart season={season} />
      <LeavingPart season={season} />
      <FoldPart title="How a day is reckoned">
        <Choose
          label="What comes on a day is"
          value={season.order}
          choices={[
            { id: 'after', name: 'not counted on until the next' },
            { id: 'before', name: 'used first, before it spills' },
          ]}
          onChange={(order) => setSupply({ order })}
        />
        {(season.leftOut.length > 0 || season.unknownDays > 0) && (
          <Muted>
            {season.leftOut.length > 0 && `Too little is known of ${season.leftOut.join(', ')}: left out. `}
            {season.unknownDays > 0 && `${season.unknownDays} single days nobody knows count as dry.`}
          </Muted>
        )}
        <Muted>
          The first is the safe reading. Ground sheds by its curve number, drier or wetter by the rain of five days before; roofs by what
          they are covered with, after the first of each wet spell is let go. Stores begin as the first year, run once before, leaves them.
          Soil under a store takes in water at its rate without an end. Pumps and lines between stores run in the evening, as long as there
          is room. What soaked in comes out again only where you said so of a swale, a pond or a soakaway.
        </Muted>
      </FoldPart>
    </>
  );
}
