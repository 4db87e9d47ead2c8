import type { ReactNode } from 'react';
import { supplyVerdict, verdict } from '#core/derive';
import { Pieces } from '../../app/Pieces.tsx';
import { useProject } from '../../app/selectors.ts';
import { hasDays, useSeason } from '../../app/season.ts';
import { useAppPick } from '../../app/store.ts';

/** The year's water in one sentence, once it was followed. */
export function SupplySays(): ReactNode {
  const project = useProject();
  const { result, system, selected } = useAppPick('result', 'system', 'selected');
  const season = useSeason('season', {});
  if (season) return <Pieces pieces={supplyVerdict(season, system)} />;
  if (!hasDays(project)) return <>Bring in a gauge’s record under Rain, or give monthly rain under The place: days follow from either.</>;
  if (season === undefined && (project.supply?.needs.length ?? 0) > 0) return <>Following the water day by day…</>;
  return result && <Pieces pieces={verdict('supply', project, { derived: result.derived, system, selected })} />;
}
