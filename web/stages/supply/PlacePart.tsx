import { useState, type ReactNode } from 'react';
import { useProject } from '../../app/selectors.ts';
import { setClimate, useSeason } from '../../app/season.ts';
import { useAskRain } from '../../app/rain.ts';
import { Button, Fact, FoldPart, Muted, Part, Quantity } from '../../kit/index.ts';
import { Paste } from '../../kit/paste.tsx';
import { MONTHS } from '../rain/words.ts';

type Months = 'evaporationMm' | 'rainMm' | 'wetDays';

/** Numbers of a pasted or typed line; null unless there are twelve. */
function twelve(text: string): readonly number[] | null {
  const values = text.split(/[\s;,\t]+/).filter((t) => t !== '').map(Number); // prettier-ignore
  return values.length === 12 && values.every((v) => Number.isFinite(v) && v >= 0) ? values : null;
}

/** Twelve figures, one a month, typed one by one or pasted together. */
function MonthTable({
  member,
  title,
  kind,
  says,
}: {
  readonly member: Months;
  readonly title: string;
  readonly kind: 'rain' | 'count';
  readonly says: string;
}): ReactNode {
  // prettier-ignore
  const { climate } = useProject();
  const values = climate?.[member];
  const [text, type] = useState('');
  const [isRefused, refuse] = useState(false);
  const take = (): void => {
    const found = twelve(text);
    refuse(found === null);
    if (found && setClimate({ [member]: found })) type('');
  };
  return (
    <FoldPart title={title}>
      <Muted>{says}</Muted>
      {values ? (
        <>
          {MONTHS.map((month, k) => (
            <Quantity
              key={month}
              label={`${month}`}
              kind={kind}
              value={values[k]}
              min={0}
              onChange={(v) => setClimate({ [member]: values.map((own, m) => (m === k ? v : own)) })}
            />
          ))}
          <Fact label="In the year" value={values.reduce((a, v) => a + v, 0).toFixed(0)} />
          <Button look="quiet" onPress={() => setClimate({ [member]: undefined })}>
            Forget these
          </Button>
        </>
      ) : (
        <Muted>
          <strong>Not known yet.</strong>
        </Muted>
      )}
      <Paste
        label="Twelve numbers, January first"
        value={text}
        onChange={type}
        rows={2}
        placeholder="31 44 76 104 138 160 172 152 108 68 40 30"
      />
      {isRefused && <p role="alert">Not taken: give twelve numbers, January first, with spaces, commas or new lines between them.</p>}
      <Button isDisabled={text.trim() === ''} onPress={take}>
        Use these months
      </Button>
    </FoldPart>
  );
}

/** What is known of the place through the year: by a record, or by monthly figures. */
export function PlacePart(): ReactNode {
  const { gauge, climate } = useProject();
  const season = useSeason('season', {});
  const quality = useAskRain('quality', gauge ? {} : null);
  return (
    <>
      <Part title="Rain, day by day">
        {gauge ? (
          <Muted>
            By the record of {gauge.source}
            {quality ? `: ${quality.wholeYears} whole years` : ''}. Bring another in under Rain.
          </Muted>
        ) : (
          <Muted>
            No gauge’s record is there: days are made from monthly figures, thirty years of them, and are marked so. Real years differ more
            from one another than these do.
          </Muted>
        )}
        <Quantity
          label="Amounts of rain times"
          kind="number"
          value={climate?.rainTimes ?? 1}
          min={0.2}
          max={3}
          onChange={(v) => setClimate({ rainTimes: v === 1 ? undefined : v })}
          help="An assumption on what is to come: 0.8 for a fifth less."
        />
        {climate?.rainTimes !== undefined && <Muted>An assumption: every rain of the record is counted {climate.rainTimes} times.</Muted>}
        {season && <Fact label="Rain of a mean year" value={`${season.meanYearMm.toFixed(0)} mm`} />}
      </Part>
      {!gauge && (
        <>
          <MonthTable member="rainMm" title="Rain of each month" kind="rain" says="Means of many years, from a weather office or a neighbour’s notebook." />
          <MonthTable member="wetDays" title="Days with rain" kind="count" says="Days of each month with a millimetre and more." />
        </>
      )}
      <MonthTable
        member="evaporationMm"
        title="What dries off open water"
        kind="rain"
        says="Ponds and open tanks lose it. From a pan: seven tenths of what the pan loses."
      />
    </>
  ); // prettier-ignore
}
