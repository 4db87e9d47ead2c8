import type { ReactNode } from 'react';
import { ANTECEDENTS, type Antecedent, type OneStorm, hasOwnLength, isSet, longestStorm, setChoices } from '#core/rain';
import { hours } from '#core/derive';
import type { Rain } from '#core/project';
import { setStorm } from '../../app/rain.ts';
import { useDerived } from '../../app/selectors.ts';
import { Button, ChooseRow, Inline, Muted, Quantity } from '../../kit/index.ts';
import { Toggle } from '../../kit/toggle.tsx';

const BEFORE: Readonly<Record<Antecedent, string>> = {
  dry: 'long dry: what soaks is empty',
  usual: 'one like it a day before',
  wet: 'one like it six hours before',
};

/** Lengths of the set, each in or out. */
function Lengths({ rain }: { readonly rain: Rain }): ReactNode {
  const set = useDerived()?.set ?? null;
  const { storm, table } = rain;
  const chosen = storm.durationsMin ?? set?.durationsMin ?? [];
  const choices = setChoices(table, chosen);
  const put = (durationMin: number, isOn: boolean): void => {
    const left = choices.filter((d) => (d === durationMin ? isOn : chosen.includes(d)));
    if (left.length > 0) setStorm({ durationsMin: left });
  };
  return (
    <>
      <Muted>
        {storm.durationsMin
          ? 'Only the lengths you chose are looked at: a storm between them may be worse.'
          : 'Short storms bring the greatest flow, long ones the most water. Every length your land answers to is looked at, and the worst of all counts.'}
      </Muted>
      <Inline style={{ flexWrap: 'wrap' }}>
        {choices.map((d) => (
          <Toggle key={d} label={hours(d)} isOn={chosen.includes(d)} onChange={(isOn) => put(d, isOn)} />
        ))}
      </Inline>
      {storm.durationsMin && <Button onPress={() => setStorm({ durationsMin: undefined })}>All that matter again</Button>}
    </>
  );
}

/** Whether the worst of all lengths is designed for or one storm alone, and how wet it was before. */
export function LengthsPart({ rain, one }: { readonly rain: Rain; readonly one: OneStorm }): ReactNode {
  const { storm, table } = rain;
  const isWorst = isSet(storm);
  const isItsOwn = hasOwnLength(storm);
  return (
    <>
      {!isItsOwn && (
        <ChooseRow
          label="Judged by"
          value={isWorst ? 'set' : 'one'}
          choices={[
            { id: 'set', name: 'the worst of all lengths' },
            { id: 'one', name: 'one storm alone' },
          ]}
          onChange={(id) =>
            setStorm(
              id === 'set'
                ? { durationMin: undefined }
                : { durationMin: Math.min(120, longestStorm(table, storm).durationMin), durationsMin: undefined },
            )
          }
        />
      )}
      {isWorst ? (
        <Lengths rain={rain} />
      ) : (
        <Quantity
          label="Duration"
          value={one.durationMin}
          kind="minutes"
          min={1}
          max={10080}
          isDisabled={isItsOwn}
          onChange={(durationMin) => setStorm({ durationMin })}
        />
      )}
      <ChooseRow
        label="Before it"
        value={storm.before ?? 'usual'}
        choices={ANTECEDENTS.map((id) => ({ id, name: BEFORE[id] }))}
        onChange={(id) => setStorm({ before: id === 'usual' ? undefined : id })}
      />
    </>
  );
}
