import OlPoint from 'ol/geom/Point.js';
import { nearestOnLine, pointAlong } from '#core/geometry';
import type { LevelSill, Swale } from '#core/works';
import { change } from '../levels.ts';
import type { WorkUi } from '../types.ts';
import { SillSheet } from './SillSheet.tsx';

export const levelSillUi: WorkUi = {
  kind: 'level-sill',
  Sheet: SillSheet,
  drag: (work, to, works) => {
    const sill = work as LevelSill;
    const host = works.find((w) => w.id === sill.host) as Swale | undefined;
    return host ? change(sill.id, { atM: Math.round(10 * nearestOnLine(to, host.line).atM) / 10 }) : null;
  },
  planItems: (work, { works, selected, levelText }) => {
    const sill = work as LevelSill;
    const host = works.find((w) => w.id === sill.host) as Swale | undefined;
    if (!host) return [];
    const look = { role: 'sill', label: `sill ${levelText(sill.levels.sillM)}`, isSelected: sill.id === selected };
    return [
      {
        id: sill.id,
        version: JSON.stringify([host.line, sill.atM, look]),
        geometry: new OlPoint([...pointAlong(host.line, sill.atM).point]),
        look,
        isMovable: true,
      },
    ];
  },
};
