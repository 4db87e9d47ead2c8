import { type ReactNode, useState } from 'react';
import { ownOrHire } from '#core/derive';
import { useFormat } from '../../app/selectors.ts';
import { Fact, FoldPart, Muted, Quantity } from '../../kit/index.ts';

const ASKED = [
  ['price', 'A machine costs'],
  ['resale', 'Sells again for'],
  ['upkeepAnHour', 'Fuel and wear an hour'],
  ['hireAnHour', 'Hired, an hour'],
  ['bringing', 'Bringing a hired one'],
  ['hours', 'Hours it works'],
] as const;
type Said = Partial<Record<(typeof ASKED)[number][0], number>>;

/** A machine bought, used and sold again, against one that is hired: nothing is told before all of it is known. */
export function MachinePart(): ReactNode {
  const [said, say] = useState<Said>({});
  const format = useFormat();
  const { price, resale, upkeepAnHour, hireAnHour, bringing, hours } = said;
  const isKnown = [price, resale, upkeepAnHour, hireAnHour, bringing, hours].every((v) => v !== undefined);
  const held = isKnown ? ownOrHire({ price, resale, upkeepAnHour, hireAnHour, bringing, hours } as Required<Said>) : null;
  return (
    <FoldPart title="A machine: own it or hire it">
      {ASKED.map(([key, label]) => (
        <Quantity
          key={key}
          label={label}
          kind={key === 'hours' ? 'hours' : 'number'}
          min={0}
          max={1e7}
          value={said[key] ?? null}
          onChange={(v) => say({ ...said, [key]: v })}
        />
      ))}
      {held ? (
        <>
          <Fact label="Bought, used and sold again" value={format(held.owned, 'count')} />
          <Fact label="Hired" value={format(held.hired, 'count')} />
          <Fact label="The own one is cheaper from" value={held.evenAtHours === null ? 'never' : format(held.evenAtHours, 'hours')} />
        </>
      ) : (
        <Muted>Give all six, in one money.</Muted>
      )}
    </FoldPart>
  );
}
