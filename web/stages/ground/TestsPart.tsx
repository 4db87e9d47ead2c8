import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { TEST_KINDS, designRateOf, reduceTest, testKind } from '#core/ground';
import { addTest } from '../../app/ground.ts';
import { useFormat, useProject } from '../../app/selectors.ts';
import { dispatch, select, useApp } from '../../app/store.ts';
import { ActionMenu, Button, Muted, Part, Row } from '../../kit/index.ts';
import { TestPage } from './TestPage.tsx';

/** Field tests: which there are, and the one in hand. */
export function TestsPart(): ReactNode {
  const { ground } = useProject();
  const selected = useApp((s) => s.selected);
  const format = useFormat();
  const tests = ground?.tests ?? [];
  const test = tests.find((t) => t.id === selected);
  const zoneOf = (id: string | null): string => ground?.zones?.find((z) => z.id === id)?.name ?? 'the property';
  return (
    <>
      <Part title="Tests of the ground">
        {tests.length === 0 && (
          <Muted>
            None yet. A ring driven in, or a hole filled and watched, tells more in an afternoon than any table. Choose one below, or “Test
            here” on the plan.
          </Muted>
        )}
        {tests.map((t) => {
          const { isSteady } = reduceTest(t);
          const design = designRateOf(t);
          return (
            <Row key={t.id}>
              <Button look="quiet" onPress={() => select(t.id)}>
                {t.id === selected ? <strong>{t.name}</strong> : t.name}
              </Button>
              <span>
                {zoneOf(t.zone)}: {design ? format(design.testedMmPerHour, 'intensity') : 'not read yet'}
                {design && !isSteady ? ', not steady' : ''}
              </span>
              <Button look="quiet" aria-label={`Remove ${t.name}`} onPress={() => dispatch({ type: 'test.remove', payload: { id: t.id } })}>
                <Trash2 size={15} aria-hidden />
              </Button>
            </Row>
          );
        })}
        <div style={{ margin: '10px 0' }}>
          <ActionMenu label="Add a test" icon={null} choices={TEST_KINDS.map((k) => ({ id: k.kind, name: k.title }))} onChoose={addTest} />
        </div>
      </Part>
      {test && testKind(test.kind) && <TestPage key={test.id} test={test} />}
    </>
  );
}
