// What was said rather than measured: frost, current, mains, dry running, buried services, filters.
import type { Rule } from '../../contract/index.ts';
import { COMMON_PRACTICE } from '../rules.ts';
import { FINE, saidRule } from '../said-rule.ts';
import type { SupplyLineFacts } from './standing.ts';

const byPump = ({ work }: SupplyLineFacts): boolean => work.drive === 'pump';
/** Under so much ground frost seldom goes [m]: common practice, and a matter of the place. */
const FROST_M = 0.8;

const frost = saidRule<SupplyLineFacts>(
  {
    id: 'supply-line.frost',
    title: 'Water in it in frost',
    why: 'Ice bursts a pipe that is full, mostly at a joint nobody sees.',
    source: { ...COMMON_PRACTICE, locator: 'emptied, or deeper than frost goes: ask locally how deep' },
  },
  ({ work }) => {
    if (work.frost === 'not-said')
      return { severity: 'unknown', do: 'Say whether it freezes there, and what becomes of the water in it then.' };
    if (work.frost !== 'stays') return FINE;
    return work.pipe.coverM >= FROST_M
      ? { severity: 'weigh', do: 'Ask how deep frost goes here, and empty what stands out of the ground.' }
      : { severity: 'mend', do: 'Empty it before the first frost, or bury it deeper than frost goes.' };
  },
);

const mains = saidRule<SupplyLineFacts>(
  {
    id: 'supply-line.mains',
    title: 'Its join with drinking water',
    why: 'A valve that leaks lets rain water back into a street’s drinking water: it has made whole towns ill.',
    source: { ...COMMON_PRACTICE, locator: 'an air gap and nothing less; local codes and a licensed plumber' },
  },
  ({ work }) => {
    if (work.mains === 'not-said')
      return { severity: 'unknown', do: 'Say whether mains or drinking water is joined to it or to what it fills.' };
    return work.mains === 'joined'
      ? { severity: 'mend', do: 'Part them: let drinking water fall into the tank through an air gap. A licensed plumber, by local codes.' }
      : FINE;
  },
);

const services = saidRule<SupplyLineFacts>(
  {
    id: 'supply-line.services',
    title: 'Buried cables and pipes in its trench',
    why: 'A spade through a cable kills.',
    source: { ...COMMON_PRACTICE, locator: 'ask before anything is dug' },
    applies: ({ work }) => work.pipe.coverM >= 0.05,
  },
  ({ work }) => (work.services === 'asked' ? FINE : { severity: 'unknown', do: 'Ask for buried cables and pipes, and have them marked.' }),
);

const dryRun = saidRule<SupplyLineFacts>(
  {
    id: 'supply-line.dry-run',
    title: 'The pump when its water is gone',
    why: 'A pump that runs dry is ruined in minutes, and nobody stands beside it.',
    source: { ...COMMON_PRACTICE, locator: 'a float or a sensor that stops it' },
    applies: byPump,
  },
  ({ work }) => (work.pump.stops === 'by-itself' ? FINE : { severity: 'weigh', do: 'Fit a float that stops it when the water is low.' }),
);

const current = saidRule<SupplyLineFacts>(
  {
    id: 'supply-line.current',
    title: 'Electricity beside water',
    why: 'A pump with a worn cable makes the whole pond live.',
    source: { ...COMMON_PRACTICE, locator: 'a breaker that trips at 30 mA, fitted by a licensed electrician' },
    applies: byPump,
  },
  ({ work }) => {
    if (work.pump.guarded === 'breaker') return FINE;
    return work.pump.guarded === 'none'
      ? { severity: 'mend', do: 'No current there before a licensed electrician has fitted a breaker that trips at a leak.' }
      : { severity: 'unknown', do: 'Look for a breaker that trips at a leak, and try its button.' };
  },
);

const filter = saidRule<SupplyLineFacts>(
  {
    id: 'supply-line.drip-filter',
    title: 'A filter before the drippers',
    why: 'Drippers have holes as wide as a hair: one season of silt closes them.',
    source: { ...COMMON_PRACTICE, locator: 'a mesh of 0.13 mm, cleaned weekly at first' },
    applies: ({ work }) => work.serves === 'drip',
  },
  ({ work }) =>
    work.drip.filter === 'mesh'
      ? FINE
      : { severity: 'mend', do: 'Put a filter before them that can be reached, and clean it weekly at first.' },
);

export const CAUTION_RULES: readonly Rule<SupplyLineFacts>[] = [frost, mains, services, dryRun, current, filter];
