import OlPoint from 'ol/geom/Point.js';
import { pointAlong } from '#core/geometry';
import type { LevelSill } from '#core/works';
import { dragAlongHost, hostLine } from '../shared/on-host.ts';
import type { WorkUi } from '../types.ts';
import { SillSheet } from './SillSheet.tsx';

export const levelSillUi: WorkUi<LevelSill> = {
  kind: 'level-sill',
  Sheet: SillSheet,
  drag: dragAlongHost,
  planItems: (sill, { works, selected, levelText }) => {
    const line = hostLine(works, sill.host);
    if (!line) return [];
    const look = { role: 'sill', label: `sill ${levelText(sill.levels.sillM)}`, isSelected: sill.id === selected };
    return [
      {
        id: sill.id,
        version: JSON.stringify([line, sill.atM, look]),
        geometry: new OlPoint([...pointAlong(line, sill.atM).point]),
        look,
        isMovable: true,
      },
    ];
  },
};
