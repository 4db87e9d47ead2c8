import type { ReactNode } from 'react';
import { type Stage, verdict } from '#core/derive';
import { Pieces } from './Pieces.tsx';
import { useProject } from './selectors.ts';
import { useAppPick } from './store.ts';

/** The answer of a stage in one sentence, as core says it. */
export function StageSays({ stage }: { readonly stage: Stage }): ReactNode {
  const project = useProject();
  const { result, system, selected } = useAppPick('result', 'system', 'selected');
  return result && <Pieces pieces={verdict(stage, project, { derived: result.derived, system, selected })} />;
}
