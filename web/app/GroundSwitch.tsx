import type { ReactNode } from 'react';
import { canHeal } from '#core/derive';
import { healedYearsOf } from '#core/project';
import { Choose } from '../kit/index.ts';
import { setGround } from './ground.ts';
import { useApp } from './store.ts';

/** Ground as it is now or healed: every figure of every stage follows. Shown once some ground has a plan for its healing. */
export function GroundSwitch(): ReactNode {
  const ground = useApp((s) => s.history?.project.ground ?? null);
  if (!ground || !canHeal(ground)) return null;
  const years = healedYearsOf(ground);
  return (
    <Choose<'now' | 'healed'>
      label="ground"
      value={ground.as ?? 'now'}
      choices={[
        { id: 'now', name: 'as it is now' },
        { id: 'healed', name: `healed in ${years} yr` },
      ]}
      onChange={(as) => setGround({ as: as === 'healed' ? 'healed' : undefined })}
    />
  );
}
