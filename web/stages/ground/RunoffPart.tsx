import { useState, type ReactNode } from 'react';
import type { MethodsTold } from '#core/derive';
import type { PeakMethod, TimeMethod } from '#core/project';
import {
  ABSTRACTIONS,
  type Abstraction,
  HORTON_DECAY,
  HORTON_TIMES,
  LEAST_PEAK_FACTOR,
  LOSSES,
  LOSS_METHODS,
  type LossMethod,
  MOST_PEAK_FACTOR,
  PEAK_FACTOR,
  USUAL_LOSS,
  WETNESSES,
  type Wetness,
} from '#core/runoff';
import { setRunoff, useAskGround } from '../../app/ground.ts';
import { useDerived, useFormat, useProject, useView, useWorks } from '../../app/selectors.ts';
import { Choose, ChooseRow, Fact, Muted, Part, Quantity, Row, Table } from '../../kit/index.ts';
import { Working } from '../../works/Working.tsx';
import { FlowChart } from './FlowChart.tsx';
import { type MethodLine, MethodTable } from './MethodTable.tsx';

const WET_WORDS: Readonly<Record<Wetness, string>> = {
  dry: 'dry, after weeks without rain',
  average: 'of average wetness',
  wet: 'wet, after days of rain',
};
const FIRST_LOSS: Readonly<Record<Abstraction, string>> = { '0.2': '0.2 S, as the tables go with', '0.05': '0.05 S, as newer work finds' };

/** How losses are worked out, for the whole property. */
function LossPart({ told }: { readonly told: MethodsTold | null }): ReactNode {
  const { runoff = {} } = useProject();
  const format = useFormat();
  const loss = runoff.loss ?? USUAL_LOSS.loss;
  return (
    <Part title="What is lost before it runs">
      <ChooseRow<Wetness>
        label="The ground beforehand"
        title="The ground beforehand is"
        value={runoff.wetness ?? USUAL_LOSS.wetness}
        choices={WETNESSES.map((id) => ({ id, name: WET_WORDS[id] }))}
        onChange={(wetness) => setRunoff({ wetness })}
      />
      {told ? (
        <MethodTable
          caption="Ways to tell what is lost"
          head={['runs off', 'peak']}
          lines={told.losses.map((l): MethodLine => ({
            id: l.method,
            title: l.title,
            says: l.says,
            figures: [format(l.runoffMm, 'rain'), format(l.peakM3s, 'flow')],
            unfit: [],
          }))}
          chosen={loss}
          onChoose={(id) => setRunoff({ loss: id as LossMethod })}
        />
      ) : (
        <Row>
          <Choose<LossMethod>
            label="By"
            value={loss}
            choices={LOSS_METHODS.map((id) => ({ id, name: LOSSES[id].title }))}
            onChange={(id) => setRunoff({ loss: id })}
          />
        </Row>
      )}
      {loss === 'curve-number' && (
        <ChooseRow<Abstraction>
          label="First loss"
          value={runoff.abstraction ?? USUAL_LOSS.abstraction}
          choices={ABSTRACTIONS.map((id) => ({ id, name: FIRST_LOSS[id] }))}
          onChange={(abstraction) => setRunoff({ abstraction })}
        />
      )}
      {loss === 'horton' && (
        <>
          <Quantity
            label="Times its last rate at first"
            value={runoff.hortonTimes ?? HORTON_TIMES}
            kind="number"
            min={1}
            max={50}
            onChange={(hortonTimes) => setRunoff({ hortonTimes })}
          />
          <Quantity
            label="Slackens by (1/h)"
            value={runoff.hortonDecay ?? HORTON_DECAY}
            kind="number"
            min={0.1}
            max={60}
            onChange={(hortonDecay) => setRunoff({ hortonDecay })}
          />
          <Muted>Usual starting values, from memory; the last rate is what you measured.</Muted>
        </>
      )}
      <Muted>The same for all the property; roofs, paving and pools go by their curve number of 98, apart from soil.</Muted>
    </Part>
  );
}

/** How peaked the hydrograph of the land is, for the whole property. */
function PeakednessPart(): ReactNode {
  const { runoff = {} } = useProject();
  return (
    <Part title="How peaked it comes">
      <Quantity
        label="Peak rate factor"
        value={runoff.peakFactor ?? PEAK_FACTOR}
        kind="count"
        min={LEAST_PEAK_FACTOR}
        max={MOST_PEAK_FACTOR}
        onChange={(peakFactor) => setRunoff({ peakFactor })}
      />
      <Muted>484 is usual; 300 and less on flat land with ponding, towards 600 on steep land (from memory: look locally).</Muted>
    </Part>
  );
}

/** How sure volume and peak are. */
function BandsPart({ of }: { readonly of: string }): ReactNode {
  const bands = useAskGround('bands', { of });
  const format = useFormat();
  if (!bands) return null;
  const { runoffMm, peakM3s, samples } = bands;
  return (
    <Part title="How sure that is">
      <p style={{ margin: '4px 0' }}>
        Nine times in ten{' '}
        <strong>
          {format(runoffMm.low, 'rain')} to {format(runoffMm.high, 'rain')}
        </strong>{' '}
        runs off, with a peak of{' '}
        <strong>
          {format(peakM3s.low, 'flow')} to {format(peakM3s.high, 'flow')}
        </strong>
        .
      </p>
      <Muted>
        By {samples} draws of rate and curve number within their limits, each zone by itself; give those under Ground. How sure the rain is
        comes on top of it.
      </Muted>
    </Part>
  );
}

/** Every catchment’s runoff by several methods, and the ones chosen. */
export function RunoffPart(): ReactNode {
  const { pins, runoff } = useProject();
  const derived = useDerived();
  const view = useView();
  const works = useWorks();
  const format = useFormat();
  const [wanted, choose] = useState<string | null>(null);
  const catchments = derived?.runoff ?? [];
  const nameOf = (id: string): string => works.find((w) => w.id === id)?.name ?? pins.find((p) => p.id === id)?.name ?? id;
  const own = catchments.find((r) => r.of === wanted) ?? catchments.find((r) => works.some((w) => w.id === r.of)) ?? catchments[0];
  const told = useAskGround('methods', own ? { of: own.of } : null);
  if (!own) {
    return (
      <>
        <Muted>Give rain, and drop a pin or draw a swale: its catchment is worked out by several methods, side by side.</Muted>
        <LossPart told={null} />
        <PeakednessPart />
      </>
    );
  }
  const set = (part: { readonly time?: TimeMethod; readonly peak?: PeakMethod }): boolean =>
    setRunoff({ of: { ...runoff?.of, [own.of]: { ...runoff?.of?.[own.of], ...part } } });
  const series = view?.flows.find((f) => f.id === own.of);
  const fresh = told?.of === own.of ? told : null;
  return (
    <>
      <Part title="Catchment">
        <Row>
          <Choose label="Runoff of" value={own.of} choices={catchments.map((r) => ({ id: r.of, name: nameOf(r.of) }))} onChange={choose} />
        </Row>
        <Fact label="Rain, and what of it runs off" value={`${format(own.rainMm, 'rain')}, ${format(own.runoffMm, 'rain')}`} />
        <Fact label="Volume" value={format(own.volumeM3, 'volume')} />
        <Fact label="Time of concentration" value={format(own.tcMin, 'minutes')} />
        <Fact label="Peak works are made for" value={format(own.chosenPeakM3s, 'flow')} />
        {series && <FlowChart series={series} name={nameOf(own.of)} />}
      </Part>
      {fresh && (
        <>
          <Part title="Peak">
            <MethodTable
              caption="Ways to the peak"
              head={['peak']}
              lines={fresh.peaks.map((p): MethodLine => ({
                id: p.method,
                title: p.title,
                says: p.says,
                figures: [p.peakM3s === null ? '–' : format(p.peakM3s, 'flow')],
                unfit: p.unfit,
                isOut: p.peakM3s === null,
              }))}
              chosen={fresh.chosen.peak}
              onChoose={(id) => set({ peak: id as PeakMethod })}
            />
            <Muted>{fresh.spread}</Muted>
          </Part>
          <Part title="Time of concentration">
            <MethodTable
              caption="Ways to the time of concentration"
              head={['time', 'peak with it']}
              lines={fresh.times.map((t): MethodLine => ({
                id: t.method,
                title: t.title,
                figures: [t.tcMin === null ? '–' : format(t.tcMin, 'minutes'), t.peakM3s === null ? '–' : format(t.peakM3s, 'flow')],
                unfit: t.unfit,
                isOut: t.tcMin === null,
              }))}
              chosen={fresh.chosen.time}
              onChoose={(id) => set({ time: id as TimeMethod })}
            />
            <WayPart of={own.of} />
          </Part>
        </>
      )}
      <LossPart told={fresh} />
      <PeakednessPart />
      <BandsPart of={own.of} />
      <Part title="Working">
        <Working ids={[own.of]} />
      </Part>
    </>
  );
}

/** The longest way its water takes, in the parts it runs differently in. */
function WayPart({ of }: { readonly of: string }): ReactNode {
  const way = useAskGround('way', { of });
  const format = useFormat();
  if (!way) return null;
  const parts = [
    ['a thin sheet', way.sheet],
    ['shallow runnels', way.shallow],
    ['a channel', way.channel],
  ] as const;
  return (
    <Table
      caption="The longest way its water takes"
      head={['As', 'for', 'at']}
      rows={parts.filter(([, p]) => p.lengthM > 0).map(([name, p]) => [name, format(p.lengthM, 'distance'), format(p.slope, 'slope')])}
    />
  );
}
