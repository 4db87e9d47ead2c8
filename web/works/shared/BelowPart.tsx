import type { ReactNode } from 'react';
import { HAZARD_CLASSES, canFail, crestYears } from '#core/checks';
import type { Hazard } from '#core/contract';
import { optionOf } from '#core/project';
import { catalogue } from '#core/works';
import { lowered, rough } from '#core/units';
import { useDerived, useFormat, useProject, useWorks } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { Choose, Fact, FoldPart, Muted } from '../../kit/index.ts';

/** Nobody has said: the map is asked. */
const BY_MAP = 'map';

/** Who lies below a store if it fails, and what that asks of it. */
export function BelowPart({ id }: { readonly id: string }): ReactNode {
  const store = useDerived()?.stores.find((s) => s.id === id);
  const work = useWorks().find((w) => w.id === id);
  const said = optionOf(useProject()).hazards?.[id] ?? null;
  const format = useFormat();
  if (!store || !work) return null;
  const { traits } = catalogue.describe(work);
  if (!canFail(traits)) return null;
  const { below, crest, breach } = store;
  const asked = HAZARD_CLASSES.find((c) => c.id === store.hazard);
  const seen = below && HAZARD_CLASSES.find((c) => c.id === below.hazard);
  const choose = (value: Hazard | typeof BY_MAP): unknown =>
    dispatch({ type: 'hazard.set', payload: { store: id, hazard: value === BY_MAP ? null : value } });
  return (
    <FoldPart title="Who lies below it">
      <Choose<Hazard | typeof BY_MAP>
        label="If it goes, its water reaches"
        value={said ?? BY_MAP}
        choices={[
          { id: BY_MAP, name: seen ? `As the map shows: ${lowered(seen.name)}` : 'Not said, and not on the map' },
          ...HAZARD_CLASSES.map(({ id: hazard, name }) => ({ id: hazard, name })),
        ]}
        onChange={choose}
      />
      <Muted>
        {below === null
          ? 'The map does not tell: nothing is drawn below it, or the way of its flood runs off the map. '
          : below.feature === null
            ? 'Nothing drawn lies in the way of its flood. '
            : `By the map: ${below.name}, ${format(below.alongM, 'distance')} down the way of its flood. `}
        Walk that way, beyond your line too.
      </Muted>
      {asked && (
        <>
          <Fact label="Least storm for its ways out" value={`1 in ${asked.waysYears} yr`} />
          <Fact label="Storm its crest must stand" value={`1 in ${crestYears({ said: asked.id, seen: null }, traits)} yr`} />
        </>
      )}
      {crest && (
        <Fact
          label={`Left under its crest in 1 in ${crest.years}`}
          value={crest.leftM === null ? 'the table ends before it' : format(crest.leftM, 'difference')}
        />
      )}
      {breach && (
        <>
          <Fact label="If it goes, roughly" value={format(rough(breach.peakM3s), 'flow')} />
          <Fact label="Within" value={format(breach.peakAtS / 60, 'minutes')} />
          <Fact label="Through a gap of about" value={format(rough(breach.widthM), 'distance')} />
          <Fact label="Water that comes down" value={format(rough(breach.volumeM3), 'volume')} />
          <Muted>
            By laws made from dams that went, and its own water run through the gap: half or twice would be no surprise. Dams of its size
            let go about {format(rough(breach.seenM3s), 'flow')}.
          </Muted>
        </>
      )}
      <Muted>Common practice, after guidance for small dams: local rules come first.</Muted>
    </FoldPart>
  );
}
