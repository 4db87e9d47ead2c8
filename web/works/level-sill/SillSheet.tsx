import type { ReactNode } from 'react';
import type { LevelSill } from '#core/works';
import { dispatch } from '../../app/store.ts';
import { Button, FoldPart, Quantity } from '../../kit/index.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import { change } from '../levels.ts';

/** What the level read along the finished crest. */
function AsFound({ sill }: { readonly sill: LevelSill }): ReactNode {
  const { id, asFound, levels } = sill;
  return (
    <FoldPart title="As found">
      {asFound ? (
        <>
          <Quantity
            label="Lowest level along the crest"
            value={asFound.lowM}
            kind="level"
            onChange={(lowM) => dispatch(change(id, { asFound: { ...asFound, lowM } }))}
          />
          <Quantity
            label="Highest level along the crest"
            value={asFound.highM}
            kind="level"
            onChange={(highM) => dispatch(change(id, { asFound: { ...asFound, highM } }))}
          />
        </>
      ) : (
        <Button look="quiet" onPress={() => dispatch(change(id, { asFound: { lowM: levels.sillM, highM: levels.sillM } }))}>
          Note what the level read along the crest
        </Button>
      )}
    </FoldPart>
  );
}

/** Everything about one level sill. */
export const SillSheet = ({ work }: { readonly work: LevelSill }): ReactNode => (
  <WorkSheet work={work}>
    <AsFound sill={work} />
  </WorkSheet>
);
