import { useState, type ReactNode } from 'react';
import { readReadings } from '#core/formats';
import type { FieldTest } from '#core/ground';
import { UserError, type UserProblem } from '#core/project';
import { dispatch } from '../../app/store.ts';
import { Button, Inline, Problems } from '../../kit/index.ts';
import { Paste } from '../../kit/paste.tsx';

/** Readings typed or pasted from a notebook, all at once. */
export function PasteReadings({ test }: { readonly test: FieldTest }): ReactNode {
  const [isOpen, setOpen] = useState(false);
  const [text, setText] = useState('');
  const [problems, setProblems] = useState<readonly UserProblem[]>([]);
  const take = (): void => {
    try {
      const readings = readReadings({ name: 'what was pasted', bytes: new TextEncoder().encode(text) });
      setProblems([]);
      if (!dispatch({ type: 'test.change', payload: { id: test.id, set: { readings } } })) return;
      setText('');
      setOpen(false);
    } catch (error) {
      if (!(error instanceof UserError)) throw error;
      setProblems(error.problems);
    }
  };
  if (!isOpen) {
    return (
      <Inline>
        <Button look="quiet" onPress={() => setOpen(true)}>
          Paste readings from a notebook
        </Button>
      </Inline>
    );
  }
  return (
    <>
      <Paste
        label="Time, depth, filled to; one line each"
        value={text}
        onChange={setText}
        placeholder={'0, 100\n10, 86, 100\n20, 91, 100'}
      />
      {problems.length > 0 && <Problems title="Not taken" problems={problems} />}
      <Inline>
        <Button look="strong" isDisabled={text.trim() === ''} onPress={take}>
          {test.readings.length > 0 ? 'Put them in place of those above' : 'Take them'}
        </Button>
        <Button onPress={() => setOpen(false)}>Cancel</Button>
      </Inline>
    </>
  );
}
