import { useEffect, useMemo, useState, type ReactNode } from 'react';
import type { StoreThrough } from '#core/derive';
import { middleOf } from '#core/geometry';
import { type Heard, believed } from '#core/season';
import { catalogue } from '#core/works';
import { type LiveLevel, setLand } from '../../app/land.ts';
import { useFormat, useWorks } from '../../app/selectors.ts';
import { useSeason } from '../../app/season.ts';
import { Muted, Part } from '../../kit/index.ts';
import { Toggle } from '../../kit/toggle.tsx';

interface Message {
  readonly n: number;
  readonly rainMm: number;
  readonly levelM3: Readonly<Record<string, number | null>>;
}

/** What was heard of a store last, and what of it was believed last and how many messages ago. */
interface Known {
  readonly heard: Heard;
  readonly lastM3: number | null;
  readonly ago: number;
}

/** What a message adds to what is known of a store. */
function after(known: Known | undefined, m3: number | null, roomM3: number): Known {
  const heard = believed(m3, roomM3, known?.lastM3 ?? null);
  if (heard.kind === 'believed') return { heard, lastM3: heard.m3, ago: 0 };
  return { heard, lastM3: known?.lastM3 ?? null, ago: (known?.ago ?? 0) + 1 };
}

type State = Readonly<Record<string, Known>>;

/** Listens to the gauges of some stores while it is wanted. */
function useGauges(stores: readonly StoreThrough[], isOn: boolean): { readonly state: State; readonly rainMm: number; readonly isOff: boolean } {
  const [state, setState] = useState<State>({});
  const [rainMm, setRain] = useState(0);
  const [isOff, setOff] = useState(false);
  const asked = stores.map((s) => `${s.id}:${s.roomM3.toFixed(3)}`).join(',');
  useEffect(() => {
    if (!isOn || asked === '') return undefined;
    const rooms = new Map(asked.split(',').map((part) => [part.slice(0, part.lastIndexOf(':')), Number(part.slice(part.lastIndexOf(':') + 1))]));
    const source = new EventSource(`/api/telemetry?of=${encodeURIComponent(asked)}`);
    source.onopen = () => setOff(false);
    source.onerror = () => setOff(true);
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const message = JSON.parse(data) as Message;
      setRain((mm) => mm + message.rainMm);
      setState((now) => Object.fromEntries([...rooms].map(([id, room]) => [id, after(now[id], message.levelM3[id] ?? null, room)])));
    };
    return () => source.close();
  }, [asked, isOn]);
  return { state, rainMm, isOff };
} // prettier-ignore

const WHY: Readonly<Record<'under' | 'over' | 'jump', string>> = {
  under: 'less than nothing',
  over: 'more than it holds',
  jump: 'more than it can have moved',
};

function Said({ known, roomM3 }: { readonly known: Known | undefined; readonly roomM3: number }): ReactNode {
  const format = useFormat();
  if (!known) return <>not heard yet</>;
  const kind = roomM3 < 50 ? 'liquid' : 'volume';
  const last = known.lastM3 === null ? 'nothing believed yet' : `${format(known.lastM3, kind)}, ${Math.round((100 * known.lastM3) / roomM3)} % full`;
  if (known.heard.kind === 'believed') return <strong>{last}</strong>;
  const what = known.heard.kind === 'silent' ? 'silent now' : `reads ${format(known.heard.m3, kind)}, ${WHY[known.heard.why]}: not believed`;
  return (
    <>
      {what}; {known.ago} s ago {last}
    </>
  );
} // prettier-ignore

/** What stands on the plan at a store: how full it is, or was when it was believed last. */
function liveText(known: Known, roomM3: number): string {
  const share = known.lastM3 === null ? '?' : `${Math.round((100 * known.lastM3) / roomM3)} %`;
  if (known.heard.kind === 'believed') return share;
  return known.heard.kind === 'silent' ? `silent; ${known.ago} s ago ${share}` : `not believed; ${known.ago} s ago ${share}`;
}

/** Shows what gauges say on the plan too, for as long as they are watched. */
function useLiveOnPlan(stores: readonly StoreThrough[], state: State, isOn: boolean): void {
  const works = useWorks();
  useEffect(() => {
    const live = stores.flatMap((store): LiveLevel[] => {
      const known = state[store.id] as Known | undefined;
      const work = works.find((w) => w.id === store.work);
      const line = work && catalogue.describe(work).footprint[0];
      if (!known || !line) return [];
      return [{ id: store.id, at: middleOf(line), text: liveText(known, store.roomM3), isBelieved: known.heard.kind === 'believed' }];
    });
    setLand({ live: isOn ? live : [] });
  }, [stores, state, isOn, works]);
  useEffect(() => () => setLand({ live: [] }), []);
}

/** Levels as gauges tell them: a stand-in, and said to be. */
export function LivePart(): ReactNode {
  const season = useSeason('season', {});
  const format = useFormat();
  const [isOn, turn] = useState(false);
  const stores = useMemo(() => season?.stores.filter((s) => s.roomM3 > 0) ?? [], [season]);
  const { state, rainMm, isOff } = useGauges(stores, isOn);
  useLiveOnPlan(stores, state, isOn);
  if (stores.length === 0) return <Muted>Draw a tank or a pond first: a gauge reads a store.</Muted>;
  return (
    <Part title="Gauges, simulated">
      <Toggle label="Watch them" isOn={isOn} onChange={turn} />
      <Muted>
        Invented readings, once a second, with the gaps and the nonsense real gauges have: what cannot be is told and not believed.
      </Muted>
      {isOn && isOff && <p role="alert">The simulated gauges cannot be reached: start the app with its server.</p>}
      {isOn && !isOff && (
        <>
          <ul aria-label="Levels now" style={{ paddingLeft: 18 }}>
            {stores.map((s) => (
              <li key={s.id}>
                {s.name}: <Said known={state[s.id]} roomM3={s.roomM3} />
              </li>
            ))}
          </ul>
          <Muted>Rain since you watch: {format(rainMm, 'rainFine')}</Muted>
        </>
      )}
    </Part>
  );
}
