import { useState, type ReactNode } from 'react';
import type { StormSteps } from '#core/rain';
import { displayUnit, fromDisplay, toDisplay } from '#core/units';
import { setStorm } from '../../app/rain.ts';
import { notify, useApp } from '../../app/store.ts';
import { Button, Inline, Muted, Quantity } from '../../kit/index.ts';
import { Paste } from '../../kit/paste.tsx';

/** Depths as typed, in the reader's unit: numbers between spaces, commas or line ends. Null at the first that is none, with it. */
export function depthsIn(text: string): { readonly values: number[]; readonly bad: string | null } {
  const words = text.split(/[\s;]+|,(?=\s|$)|,(?!\d)/).filter((w) => w !== '');
  const values = words.map((w) => Number(w.replace(',', '.')));
  const bad = words.find((_, i) => !Number.isFinite(values[i]) || values[i] < 0);
  return { values, bad: bad ?? null };
}

/** A storm typed step by step. */
export function OwnStorm({ steps }: { readonly steps: StormSteps }): ReactNode {
  const system = useApp((s) => s.system);
  const { unit, decimals } = displayUnit('rain', system);
  const shown = steps.stepsMm.map((v) => Number(toDisplay(v, 'rain', system).toFixed(decimals + 2))).join(' ');
  const [text, type] = useState<string | null>(null);
  const set = (change: Partial<StormSteps>): boolean => setStorm({ shape: { kind: 'own', ...steps, ...change } });
  const use = (): void => {
    const { values, bad } = depthsIn(text ?? shown);
    if (bad !== null || values.length === 0) {
      const what = bad === null ? 'there is no number in it' : `"${bad.slice(0, 24)}" is no depth of rain`;
      notify({
        tone: 'mend',
        title: 'The storm was not taken; nothing has changed',
        problems: [{ code: 'rain.own', what, where: { field: 'depths' }, do: `Give ${unit} for each step, 0 where it did not rain.` }],
      });
      return;
    }
    if (set({ stepsMm: values.map((v) => fromDisplay(v, 'rain', system)) })) type(null);
  };
  return (
    <>
      <Quantity label="Length of a step" value={steps.stepMin} kind="minutes" min={1} max={1440} onChange={(stepMin) => set({ stepMin })} />
      <Paste label={`Rain of each step, in ${unit}`} value={text ?? shown} onChange={type} rows={3} />
      <Inline>
        <Button look={text === null ? 'plain' : 'strong'} isDisabled={text === null} onPress={use}>
          Use these steps
        </Button>
        <Muted>{steps.stepsMm.length} steps.</Muted>
      </Inline>
    </>
  );
}
