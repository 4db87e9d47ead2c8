// Rules for a swale that opens into a pond, and for the stretch of its bank that is to go first.
import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { BROAD_CREST } from '../../hydraulics/index.ts';
import { amount, say } from '../../units/index.ts';
import { cureBy, downToMm, gradeMin } from '../rules.ts';
import { groundAlong } from '../lip.ts';
import { reachOf, tiltOf } from './joint.ts';
import type { SwaleFacts } from './place-checks.ts';
import { fuseOf } from './store.ts';

/** Flow through the mouth at its peak; null before a storm is known or without a mouth. */
export const mouthPeak = ({ swale, links }: Pick<SwaleFacts, 'swale' | 'links'>): number | null =>
  links.find((l) => l.outlet === `${swale.id}#mouth`)?.peakM3s ?? null;

/** Water at the mouth when it stands highest at the way out [m]; null where no water runs between them. */
export function mouthLevel(facts: Pick<SwaleFacts, 'swale' | 'links' | 'store' | 'storm'>): number | null {
  const { swale, store, storm } = facts;
  const flowM3s = mouthPeak(facts);
  if (!swale.joins || !store || !storm || flowM3s === null) return null;
  return storm.peakLevelM + tiltOf(swale, { reachM: reachOf(swale, store.outlets), flowM3s, lowM: storm.peakLevelM });
}

const mouthFreeboard: Rule<SwaleFacts> = {
  id: 'swale.mouth-freeboard',
  isOfLevels: true,
  title: 'Freeboard at the mouth, where its water line stands highest',
  why: 'A level swale that carries flow to a far sill is not level on top: water stands higher at the pond.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'chow1959', locator: 'section 10-4, standard step', fromMemory: true },
  needs: NEEDS_STORM,
  applies: ({ swale }) => swale.joins !== undefined,
  find: (facts) => {
    const level = mouthLevel(facts);
    if (level === null) return null;
    const { swale } = facts;
    const value = swale.levels.bankCrestM - level;
    return {
      value,
      limit: 0.3,
      at: swale.joins?.end === 'end' ? swale.line[swale.line.length - 1] : swale.line[0],
      severity: gradeMin(value, 0.2, 0.3),
      do: value < 0.3 ? 'Widen the swale, bring the sill nearer to the pond, or raise the bank there.' : 'Nothing.',
    };
  },
};

const fuse: Rule<SwaleFacts> = {
  id: 'swale.fuse',
  isOfLevels: true,
  title: 'Fuse under the rest of the bank',
  why: 'When all else is full, the bank should go where you chose: on natural ground, clear of houses, and not so low that the pond drains.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'common-practice', locator: 'a chosen fuse stretch on natural ground, floor high enough not to drain the pond' },
  find: ({ swale, ground, store }) => {
    const [stretch] = fuseOf(swale);
    if (!stretch || !store) return null;
    const middle = (stretch.fromM + stretch.toM) / 2;
    const value = swale.levels.bankCrestM - stretch.crestM;
    const groundM = groundAlong(ground, middle);
    const drains = (store.sillM ?? store.wayOutM) - groundM;
    const breach = BROAD_CREST.evaluate({ C: 1.5, L: stretch.toM - stretch.fromM, H: Math.max(0, stretch.crestM - groundM) });
    return {
      value,
      limit: 0.05,
      at: pointAlong(swale.line, middle).point,
      severity: value < 0.02 || drains > 0.3 ? 'mend' : value < 0.05 || drains > 0.1 ? 'weigh' : 'fine',
      do:
        drains > 0.1
          ? say`Its ground lies ${amount(drains, 'difference')} under the sill: gone, it would drain as much. Move it to higher ground.`
          : value < 0.05
            ? say`Lower its crest by ${amount(0.05 - value, 'difference')}, or raise the rest of the bank.`
            : say`Nothing. Gone, it lets ${amount(breach, 'flow')} through at first.`,
      ...cureBy(drains <= 0.1 && value < 0.05, {
        work: swale.id,
        set: { 'fuse.crestM': downToMm(swale.levels.bankCrestM - 0.05) },
        says: say`Lower its crest by ${amount(0.05 - value, 'difference')}`,
      }),
    };
  },
};

const safeBank: Rule<SwaleFacts> = {
  id: 'swale.joined-bank',
  title: 'A chosen place for the bank to go',
  why: 'The bank of a swale beside a pond holds the pond too: where it goes first decides who gets the water.',
  unit: '',
  kind: 'count',
  sense: 'min',
  source: { key: 'common-practice', locator: 'order of failure is designed' },
  find: ({ swale }) => {
    if (!swale.joins) return null;
    const value = fuseOf(swale).length;
    return {
      value,
      limit: 1,
      severity: value < 1 ? 'weigh' : 'fine',
      do: value < 1 ? 'Choose a stretch on natural ground as its fuse, a little lower than the rest.' : 'Nothing.',
    };
  },
};

export const JOIN_RULES: readonly Rule<SwaleFacts>[] = [mouthFreeboard, fuse, safeBank];
