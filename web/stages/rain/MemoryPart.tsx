import { useState, type ReactNode } from 'react';
import { tableFromMemory } from '#core/rain';
import { takeTable } from '../../app/rain.ts';
import { useFormat } from '../../app/selectors.ts';
import { Button, Inline, Muted, Quantity } from '../../kit/index.ts';

/** A year's rain and the wettest day make a table to begin with. */
export function MemoryPart({ onTaken }: { readonly onTaken: () => void }): ReactNode {
  const format = useFormat();
  const [annualMm, setAnnual] = useState<number | null>(null);
  const [wettestDayMm, setWettest] = useState<number | null>(null);
  const [years, setYears] = useState(20);
  const isReady = annualMm !== null && annualMm > 0 && years >= 1;
  const made = isReady ? tableFromMemory({ annualMm, wettestDayMm, years }) : null;
  const [row, column] = [2, made ? made.table.durationsMin.indexOf(60) : 0];
  const use = (): void => {
    if (!made || annualMm === null) return;
    const day = wettestDayMm === null ? 'no day recalled' : `${format(wettestDayMm, 'rain')} on the wettest day of ${years} years`;
    if (
      takeTable({
        table: made.table,
        limits: made.limits,
        source: `a guess from memory: ${format(annualMm, 'rain')} a year, ${day}`,
        basis: 'memory',
      })
    )
      onTaken();
  };
  return (
    <section aria-label="Guess from memory">
      <Quantity label="Rain of a usual year" value={annualMm} kind="rain" min={1} onChange={setAnnual} />
      <Quantity
        label="Wettest day anyone recalls"
        help="Leave it empty when nobody knows"
        value={wettestDayMm}
        kind="rain"
        min={1}
        onChange={setWettest}
      />
      <Quantity label="Years the memory reaches back" value={years} kind="years" min={1} max={120} onChange={setYears} />
      {made && (
        <Muted>
          <strong>
            1 in 10 years: {format(made.table.depthMm[row][column], 'rain')} in an hour, somewhere between{' '}
            {format(made.limits.lowMm[row][column], 'rain')} and {format(made.limits.highMm[row][column], 'rain')}.
          </strong>{' '}
          A guess: replace it by a table as soon as you can, and design with the high side meanwhile. {made.notes.join(' ')}
        </Muted>
      )}
      <Inline>
        <Button look="strong" isDisabled={!isReady} onPress={use}>
          Use this guess
        </Button>
      </Inline>
    </section>
  );
}
