import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { spoken } from '#core/units';
import { setLand, useLandPick } from '../../app/land.ts';
import { useApp } from '../../app/store.ts';
import { Button, SectionStrip } from '../../kit/index.ts';
import { nearestInSection } from '../../plan/land-items.ts';

/** The section asked for: a place pointed at here is marked on the plan, and the other way round. */
export function LandSection(): ReactNode {
  const { shown, probe } = useLandPick('shown', 'probe');
  const system = useApp((s) => s.system);
  if (!shown) return null;
  const { points } = shown.section;
  const near = probe ? nearestInSection(shown.section, probe) : null;
  return (
    <SectionStrip
      title={spoken(shown.title, system)}
      points={points}
      markM={near?.atM ?? null}
      onPoint={(atM) => {
        const at = atM === null ? null : points.reduce((a, p) => (Math.abs(p.atM - atM) < Math.abs(a.atM - atM) ? p : a)).at;
        setLand({ probe: at });
      }}
      action={
        <Button look="quiet" aria-label="Close the section" onPress={() => setLand({ shown: null, probe: null })}>
          <X size={15} aria-hidden />
        </Button>
      }
    />
  );
}
