// What whoever lives with a tank must know of it: the sheet that is left at the house when those who built it go.
import type { SheetPart } from '../../contract/index.ts';
import { type Said, amount, say } from '../../units/index.ts';
import { type Tank, rimHeight } from './model.ts';
import { daysToFull, fillDay, wetFromDay } from './mortar.ts';
import { holdsM3 } from './standing.ts';

const litres = (m3: number) => amount(m3, 'liquid');

function whatItIs(tank: Tank): SheetPart {
  const { overflowM, tapM } = tank.dimensions;
  const below = holdsM3(tank, tapM);
  return {
    title: 'What it is',
    says: [
      say`It holds ${litres(holdsM3(tank, overflowM))} up to its overflow${tank.count > 1 ? ` in ${tank.count} vessels joined at their feet` : ''}.`,
      ...(below > 0 ? [say`The lowest ${litres(below)} stay in it for the silt to settle: they are not drawn.`] : []),
      say`Water runs over ${amount(rimHeight(tank) - overflowM, 'length')} under its rim; that way must always be free.`,
    ],
  };
}

function untilFull(tank: Tank): SheetPart[] {
  if (tank.made !== 'mortar') return [];
  const [wet, fill] = [wetFromDay(tank), fillDay(tank)];
  return [
    {
      title: 'Until it may be full',
      says: [
        'First day of work: ____________   Kept wet by: ____________',
        say`From day ${String(wet)} to day ${String(fill)}: wet sacks on it, morning and evening, and a hand of water inside. Mortar that dries now has half of its strength for good.`,
        say`From day ${String(fill)}: let a quarter in each day, and mark the level in the evening. In the morning it stands within 5 mm, or the damp place is plastered over from inside.`,
        say`It may be full on day ${String(daysToFull(tank))}: ____________`,
      ],
    },
  ];
}

const CARE: readonly Said[] = [
  'Each month and before the rains: clean the screens of inlet, overflow and vent; empty what keeps the first of the rain out.',
  'After a heavy rain: look where the overflow ran, and that it washed nothing.',
];

function care(tank: Tank): SheetPart {
  const silt =
    tank.made === 'crates'
      ? 'Each season: look into the shaft, and draw the silt off before it reaches the pump.'
      : 'Each year, when it is lowest: draw the silt off, from outside.';
  const gnats = tank.lid === 'open' || tank.screen === 'none' ? ['Larvae in it: close every opening with mesh of 1 mm, or mosquitoes live on it.'] : []; // prettier-ignore
  const frost = {
    'not-said': ['Whether it freezes here nobody has said. If it does: empty it before, and leave the tap open.'],
    none: [],
    emptied: ['Before the first hard frost: empty it, and leave the tap open until spring. Day: ____________'],
    stays: ['It stays full in frost: ice may burst it. Empty it before the first hard frost instead.'],
  }[tank.frost];
  return { title: 'Through the year', says: [...CARE, silt, ...gnats, ...frost] };
}

function never({ use, treated, made, crates, mortar, lid }: Tank): SheetPart {
  const isSafe = use === 'drinking' && treated === 'filtered';
  const over = {
    lawn: 'Nothing drives over it, and no tree is planted on it.',
    patio: 'Nothing drives over it.',
    vehicle: 'Nothing heavier drives over it than what it was built for.',
  }[crates.over];
  return {
    title: 'Never',
    says: [
      'Nobody climbs in alone: its air may kill. Somebody stays outside and holds the rope.',
      'The lid stays closed and too heavy for a child: children drown in a hand of water.',
      isSafe
        ? 'Nobody drinks of it while its filter or disinfection is not working.'
        : 'Nobody drinks of it as it is. Mark every tap: not for drinking.',
      'It is never joined to pipes of the mains: local rules say how far they must stay apart.',
      ...(made === 'mortar' && mortar.top === 'dome' && lid === 'closed' ? ['Nobody stands on its dome.'] : []),
      ...(made === 'crates' ? [over] : []),
    ],
  };
}

/** The sheet for whoever lives with a tank. Advice is common practice. */
export const handOverOf = (tank: Tank): SheetPart[] => [
  whatItIs(tank),
  ...untilFull(tank),
  care(tank),
  never(tank),
  { title: 'Whom to ask', says: ['It cracks, leans, sweats or tastes: shut the tap, keep away below it, and call: ____________'] },
];
