import { SquareDashed, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { useSoil } from '../../app/ground.ts';
import { useProject } from '../../app/selectors.ts';
import { dispatch, select, startTool, useApp } from '../../app/store.ts';
import { Button, Choose, Inline, NameField, Row } from '../../kit/index.ts';

/** Which ground is described: the property's, or that of a zone drawn on the plan. */
export function WhichGround(): ReactNode {
  const { ground } = useProject();
  const { zone, name } = useSoil();
  const hasTerrain = useApp((s) => s.terrain !== null);
  const zones = ground?.zones ?? [];
  return (
    <>
      <Row>
        <Choose
          label="Ground of"
          value={zone ?? 'all'}
          choices={[{ id: 'all', name: 'the property' }, ...zones.map((z) => ({ id: z.id, name: z.name }))]}
          onChange={(id) => select(id === 'all' ? null : id)}
        />
        {zone !== null && (
          <Button
            look="quiet"
            aria-label={`Remove ${name}`}
            onPress={() => {
              if (dispatch({ type: 'zone.remove', payload: { id: zone } })) select(null);
            }}
          >
            <Trash2 size={15} aria-hidden />
          </Button>
        )}
      </Row>
      {zone !== null && (
        <NameField
          key={zone}
          label="Name"
          value={name}
          onChange={(typed) => dispatch({ type: 'zone.change', payload: { id: zone, set: { name: typed } } })}
        />
      )}
      {zone !== null && hasTerrain && (
        <Inline>
          <Button
            onPress={() => {
              select(zone);
              startTool('zone-again');
            }}
          >
            <SquareDashed size={15} aria-hidden />
            Draw it anew
          </Button>
        </Inline>
      )}
      {zone === null && hasTerrain && (
        <Inline>
          <Button onPress={() => startTool('zone')}>
            <SquareDashed size={15} aria-hidden />
            Draw a zone where it differs
          </Button>
        </Inline>
      )}
    </>
  );
}
