// Who waits for an answer, and when it is given up.
import { afterEach, beforeEach, expect, it, jest } from '@jest/globals';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import type { Answer } from '../workers/protocol.ts';
import { planeProject } from '../../core/testing/projects.ts';

interface Asked {
  readonly name: string;
  readonly ticket: number;
  readonly reply: (answer: Answer<unknown>) => void;
}
const asked: Asked[] = [];
const dropped: number[] = [];
/** Whether the worker is busy, and answers what is given up only later. */
let mockBusy = false;

jest.mock('./store.ts', () => {
  const { create } = jest.requireActual<typeof import('zustand')>('zustand');
  return {
    useApp: create(() => ({
      history: {
        project: jest.requireActual<typeof import('../../core/testing/projects.ts')>('../../core/testing/projects.ts').planeProject(),
      },
    })),
    giveAssets: () => Promise.resolve(),
    notify: jest.fn(),
    worker: () => ({
      ask: (name: string, _: unknown, { ticket }: { readonly ticket: number }) =>
        new Promise<Answer<unknown>>((reply) => asked.push({ name, ticket, reply })),
      drop: (ticket: number) => {
        dropped.push(ticket);
        if (!mockBusy) asked.find((a) => a.ticket === ticket)?.reply({ ok: false, problems: [], isDropped: true });
        return Promise.resolve();
      },
    }),
  };
});

const { useAnswer } = jest.requireActual<typeof import('./ask.ts')>('./ask.ts');

function Shows({ of, label }: { readonly of: string; readonly label: string }): ReactNode {
  const answer = useAnswer({ name: 'failureOrder', args: {} }, { key: [of], keeps: false, tells: false });
  return <p>{`${label}: ${answer === undefined ? 'waiting' : JSON.stringify(answer)}`}</p>;
}

beforeEach(() => {
  asked.length = 0;
  dropped.length = 0;
  mockBusy = false;
});
afterEach(cleanup);
const order = { steps: [], wrong: [] };

it('asks once for all who show it, and gives it up when the last of them is gone', async () => {
  const { rerender, unmount } = render(<><Shows of="a" label="one" /><Shows of="a" label="two" /></>); // prettier-ignore
  await waitFor(() => expect(asked).toHaveLength(1));
  rerender(<><Shows of="a" label="one" /></>); // prettier-ignore
  expect(dropped).toEqual([]);
  unmount();
  await waitFor(() => expect(dropped).toEqual([asked[0].ticket]));
});

it('gives up what the document has gone past, and shows what comes for it as it is', async () => {
  const { rerender } = render(<Shows of="b" label="one" />);
  await waitFor(() => expect(asked).toHaveLength(1));
  rerender(<Shows of="c" label="one" />);
  await waitFor(() => expect(asked).toHaveLength(2));
  await waitFor(() => expect(dropped).toEqual([asked[0].ticket]));
  asked[1].reply({ ok: true, value: order });
  await screen.findByText(`one: ${JSON.stringify(order)}`);
  // What was given up is asked again when the document comes back to it.
  rerender(<Shows of="b" label="one" />);
  await waitFor(() => expect(asked).toHaveLength(3));
  asked[2].reply({ ok: true, value: order });
  await screen.findByText(`one: ${JSON.stringify(order)}`);
  expect(dropped).toHaveLength(1);
});

it('an answer that has come is not given up', async () => {
  const { unmount } = render(<Shows of="d" label="one" />);
  await waitFor(() => expect(asked).toHaveLength(1));
  asked[0].reply({ ok: true, value: order });
  await screen.findByText(`one: ${JSON.stringify(order)}`);
  unmount();
  expect(dropped).toEqual([]);
  expect(planeProject().id).toBe('p');
});

it('what is shown again before a busy worker has let go of it is asked once more', async () => {
  mockBusy = true;
  const { rerender } = render(<Shows of="e" label="one" />);
  await waitFor(() => expect(asked).toHaveLength(1));
  rerender(<p>elsewhere</p>);
  await waitFor(() => expect(dropped).toEqual([asked[0].ticket]));
  rerender(<Shows of="e" label="one" />);
  asked[0].reply({ ok: false, problems: [], isDropped: true });
  await waitFor(() => expect(asked).toHaveLength(2));
  asked[1].reply({ ok: true, value: order });
  await screen.findByText(`one: ${JSON.stringify(order)}`);
});
