import type { ReactNode } from 'react';
import type { WorkBase } from '#core/contract';
import { dispatch, notify } from '../../app/store.ts';
import { FoldPart, Muted, NameField } from '../../kit/index.ts';
import { typedPoint } from '../../plan/points.ts';
import { cornerTo, cornersIn } from '../corners.ts';

/** Corners of what was drawn, each as it lies, to be typed anew. */
export function CornersPart({ work }: { readonly work: WorkBase }): ReactNode {
  const corners = cornersIn(work);
  if (corners.length === 0) return null;
  return (
    <FoldPart title="Corners">
      <Muted>Drag one on the plan, or type where it lies: easting, northing.</Muted>
      {corners.map((corner, k) => (
        <NameField
          key={`${corner.path}${corner.k}`}
          label={`Corner ${k + 1}`}
          value={corner.at.map((v) => v.toFixed(2)).join(', ')}
          onChange={(text) => {
            const to = typedPoint(text);
            const command = to && cornerTo(work, corner, to);
            if (command) return dispatch(command);
            notify({
              tone: 'mend',
              title: 'That is no place',
              problems: [{ code: 'corner.typed', what: `"${text.slice(0, 40)}" is not two numbers`, where: {}, do: 'Give easting and northing, as 440012.5, 4606020.' }], // prettier-ignore
            });
            return false;
          }}
        />
      ))}
    </FoldPart>
  );
}
