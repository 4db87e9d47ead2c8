import type { ReactNode } from 'react';
import { type SurveyPart, surveysOf } from '#core/project';
import { SURVEY_KNOWN_M } from '#core/terrain';
import { setLand, useAsk, useLand } from '../../app/land.ts';
import { useFormat, useProject } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { Button, ChooseRow, FoldPart, Inline, Muted, Quantity, Row } from '../../kit/index.ts';

/** How near levels are usually known, two times in three [m]: common practice, to be taken only where it fits. */
const USUAL: readonly { readonly id: string; readonly name: string; readonly levelsM: number | null }[] = [
  { id: 'none', name: 'nobody has said', levelsM: null },
  { id: 'own', name: 'as typed below', levelsM: null },
  { id: 'staff', name: 'level and staff', levelsM: 0.01 },
  { id: 'frame', name: 'A-frame or water tube', levelsM: 0.02 },
  { id: 'satellite', name: 'satellite receiver, corrected', levelsM: 0.04 },
  { id: 'drone', name: 'pictures from a drone, with marks', levelsM: 0.1 },
  { id: 'laser', name: 'laser from the air', levelsM: 0.15 },
  { id: 'map', name: 'contours of a map, 5 m apart', levelsM: 1.5 },
  { id: 'country', name: 'elevation of a country, 30 m cells', levelsM: 4 },
  { id: 'phone', name: 'a phone', levelsM: 5 },
];

function OneSurvey({ survey, at }: { readonly survey: SurveyPart; readonly at: number }): ReactNode {
  const format = useFormat();
  const { levelsM, growsBy, away } = survey;
  const called = survey.name.replace(/^.*\//, '');
  const set = (value: number | null): void => {
    dispatch({ type: 'survey.known', payload: { survey: at, levelsM: value } }, `survey-${at}`);
  };
  const chosen = levelsM === undefined ? 'none' : (USUAL.find((u) => u.levelsM === levelsM)?.id ?? 'own');
  const choices = USUAL.filter(({ id }) => id !== 'own' || chosen === 'own').map(({ id, name: words, levelsM: m }) => ({
    id,
    name: m === null ? words : `${words} (${format(m, 'difference')})`,
  }));
  return (
    <>
      <p style={{ margin: '6px 0 0' }}>
        <strong>{called}</strong>
      </p>
      <ChooseRow
        label={`How ${called} was levelled`}
        title="How it was levelled"
        value={chosen}
        choices={choices}
        onChange={(id) => {
          const usual = USUAL.find((u) => u.id === id);
          if (usual && id !== 'own') set(usual.levelsM);
        }}
      />
      <Row>
        <span>Its levels are known to</span>
      <Quantity
        label={`Levels of ${called} known to`}
          isLabelHidden
        value={levelsM ?? null}
        kind="difference"
        min={SURVEY_KNOWN_M[0]}
        max={SURVEY_KNOWN_M[1]}
        onChange={set}
        onClear={() => set(null)}
      />
      </Row>
      {growsBy !== undefined && (
        <Muted>
          Between its readings it is known less nearly: by {format(10 * growsBy, 'difference')} where the nearest lies {format(10, 'length')} away, as they tell
          of each other.
        </Muted>
      )}
      {growsBy === undefined && away !== undefined && <Muted>What lies between its readings they are too few to tell.</Muted>}
    </>
  );
} // prettier-ignore

/** From this share on it is all of the ground: cells at its rim may have no say. */
const ALL = 0.995;
const shareOf = (share: number): string => (share < 0.01 ? 'less than 1 %' : `${Math.round(100 * share)} %`);

/** How near the ground is known: by each survey it is made of, over all of it, and on the plan. */
export function KnownPart(): ReactNode {
  const { terrain } = useProject();
  const format = useFormat();
  const overlay = useLand((s) => s.overlay);
  const surveys = terrain ? surveysOf(terrain) : [];
  const isSaid = surveys.some((s) => s.levelsM !== undefined);
  const known = useAsk('known', isSaid ? {} : null);
  if (!terrain) return null;
  const near = (m: number | null): string => (m === null ? 'unknown' : format(m, 'difference'));
  return (
    <FoldPart title="How near it is known">
      <p style={{ margin: '2px 0' }}>
        {known && known.halfM !== null ? (
          <>
            {known.share < ALL ? `It is said of ${shareOf(known.share)} of the ground: half of that` : 'Half of the ground'} is known to{' '}
            <strong>{near(known.halfM)}</strong> or nearer, nine tenths to <strong>{near(known.mostM)}</strong>, the worst of it to {near(known.worstM)}.
          </>
        ) : (
          'Nobody has said how near its levels are known: works are not held against it.'
        )}
      </p>
      {surveys.map((survey, k) => (
        <OneSurvey key={k} survey={survey} at={k} />
      ))}
      <Muted>Two levels in three lie nearer than is said here. Figures beside the ways of levelling are common practice: take one only where it fits.</Muted>
      {isSaid && (
        <Inline>
          <Button aria-pressed={overlay === 'known'} onPress={() => setLand({ overlay: overlay === 'known' ? 'none' : 'known' })}>
            {overlay === 'known' ? 'Hide it on the plan' : 'Show it on the plan'}
          </Button>
        </Inline>
      )}
    </FoldPart>
  );
} // prettier-ignore
