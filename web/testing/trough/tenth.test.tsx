// A tenth technique: its two folders and a line in each list, and it is drawn, computed, checked, pegged, listed and shown.
import { afterEach, describe, expect, it, jest } from '@jest/globals';
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Command } from '#core/commands';
import { Graph, beginWorks, derive } from '#core/derive';
import type { Project } from '#core/project';
import { execute, startHistory, applyCommand } from '#core/commands';
import { SILL, noGrid, planeProject } from '../../../core/testing/projects.ts';

// Two lines in core: what it is, and what works it out.
jest.mock('../../../core/works/index.ts', () => {
  const works = jest.requireActual<typeof import('../../../core/works/index.ts')>('../../../core/works/index.ts');
  const { trough, troughDescriptor } = jest.requireActual<typeof import('../../../core/testing/trough/index.ts')>(
    '../../../core/testing/trough/index.ts',
  );
  return {
    ...works,
    registry: works.createRegistry([...works.TECHNIQUES, trough]),
    catalogue: works.createCatalogue([...works.DESCRIPTORS, troughDescriptor]),
  };
});
// The third: its twin in web.
jest.mock('../../works/index.ts', () => {
  const { createWorkUis } = jest.requireActual<typeof import('../../works/list.ts')>('../../works/list.ts');
  const { troughUi } = jest.requireActual<typeof import('./index.ts')>('./index.ts');
  return createWorkUis([troughUi]);
});
jest.mock('../../app/store.ts', () => {
  const { create } = jest.requireActual<typeof import('zustand')>('zustand');
  return {
    useApp: create(() => ({ system: 'metric', saved: 'saved' })),
    dispatch: jest.fn(() => true),
    select: jest.fn(),
    notify: jest.fn(),
    worker: jest.fn(),
  };
});

const { kindsOf, registry, valueAt } = jest.requireMock<typeof import('../../../core/works/index.ts')>('../../../core/works/index.ts');
const context = { registry, grids: noGrid, graph: new Graph() };
const begun = (project: Project) => beginWorks(project, context, { kind: 'trough', points: [[60, 121], [110, 121]] }).works; // prettier-ignore
const BASE = planeProject();
const WITH = applyCommand(BASE, { type: 'works.add', payload: { works: begun(BASE) } }, registry).project;
const RESULT = derive(WITH, { registry, grids: noGrid });

describe('a tenth technique', () => {
  it('is listed with its fields, traits, formulas, rules and a sample', () => {
    const listed = kindsOf(registry) as { readonly kind: string }[];
    expect(listed).toHaveLength(28);
    expect(listed.find((k) => k.kind === 'trough')).toMatchObject({
      family: 'store',
      traits: { retains: 'vessel' },
      formulas: ['trough.volume'],
      rules: [{ id: 'trough.freeboard', needs: ['rain', 'ground'] }],
      draws: [{ id: 'trough', what: 'line' }],
      sample: { kind: 'trough' },
    });
    expect(registry.formulas.map((f) => f.id)).toContain('trough.volume');
  });
  it('is drawn, computed, linked, checked and pegged as every other', () => {
    const { derived, view } = RESULT;
    const store = derived.stores.find((s) => s.id === 'trough-1')!;
    expect(store.heldM3).toBeCloseTo(50 * 1 * 0.6, 6);
    expect(store.inM3).toBeGreaterThan(0);
    expect(derived.catchments.find((c) => c.of === 'trough-1')?.areaM2).toBeGreaterThan(1000);
    // It catches what ran to the swale below, and spills into it.
    expect(derived.links.find((l) => l.work === 'trough-1' && l.role === 'end')?.to).toBe('w1');
    expect(view.order).toEqual(['trough-1', 'w1']);
    expect(derived.checks.filter((c) => c.on === 'trough-1').map((c) => c.id)).toEqual(
      expect.arrayContaining(['trough.freeboard', 'ground.rate-tested', 'runoff.peak-method']),
    );
    expect(derived.pegs.filter((p) => p.work === 'trough-1')).toHaveLength(2);
    expect(derived.balance?.errorFraction).toBeLessThan(1e-9);
    expect(derived.worksheets.some((w) => w.formula === 'trough.volume')).toBe(true);
    const dry = derive({ ...WITH, rain: null }, { registry, grids: noGrid }).derived;
    expect(dry.checks.find((c) => c.id === 'trough.freeboard')).toMatchObject({ severity: 'unknown', value: null });
    // A way out can be begun on it, and goes with it.
    const [sill] = beginWorks(WITH, context, { kind: 'level-sill', points: [], host: 'trough-1' }).works;
    const more = applyCommand(WITH, { type: 'works.add', payload: { works: [sill] } }, registry).project;
    const gone = applyCommand(more, { type: 'works.remove', payload: { ids: ['trough-1'] } }, registry).project;
    expect(gone.options[0].works.map((w) => w.id)).toEqual(['w1', 's1']);
  });
  it('what is wrong with it is refused, and undo takes it back', () => {
    const spoilt: Command = { type: 'works.change', payload: { changes: [{ id: 'trough-1', set: { 'dimensions.widthM': 99 } }] } };
    expect(() => applyCommand(WITH, spoilt, registry)).toThrow();
    const history = execute(startHistory(BASE), { type: 'works.add', payload: { works: begun(BASE) } }, { registry });
    expect(history.project.options[0].works).toHaveLength(3);
  });
});

describe('its sheet', () => {
  afterEach(cleanup);
  type Store = { useApp: { setState: (s: object) => void }; dispatch: jest.Mock };
  const store = jest.requireMock<Store>('../../app/store.ts');
  const show = async (project: Project, result = RESULT): Promise<void> => {
    store.useApp.setState({ history: startHistory(project), result, selected: 'trough-1' });
    const { workUi } = await import('../../works/index.ts');
    const { Sheet } = workUi('trough');
    const work = project.options[0].works.find((w) => w.id === 'trough-1')!;
    render(<Sheet work={work} />);
  };
  const sent = (): unknown => store.dispatch.mock.calls.at(-1)?.[0];
  it('shows the answer first: section and what to mend, then its shape, then how it was worked out', async () => {
    await show(WITH);
    const titles = screen.getAllByRole('region').map((s) => s.getAttribute('aria-label'));
    const at = (title: string): number => titles.indexOf(title);
    for (const title of ['To mend and to weigh', 'What it comes to', 'Kind', 'Levels', 'Shape', 'Cracks', 'Working'])
      expect([title, at(title) >= 0]).toEqual([title, true]);
    expect(at('To mend and to weigh')).toBeLessThan(at('Levels'));
    expect(at('Shape')).toBeLessThan(at('Working'));
    expect(screen.getByText('Holds to its edge')).toBeTruthy();
    expect(screen.getByRole('img', { name: /Section of the trough/ })).toBeTruthy();
  });
  it('tells what must be mended of the ways out it hosts, by their names', async () => {
    const edgeM = valueAt(begun(BASE)[0], 'levels.edgeM') as number;
    const levels = { sillM: edgeM - 0.2 };
    const crooked = {
      ...SILL,
      id: 'crooked',
      name: 'Crooked',
      host: 'trough-1',
      levels,
      asFound: { lowM: edgeM - 0.26, highM: edgeM - 0.16 },
    };
    const project = applyCommand(WITH, { type: 'works.add', payload: { works: [crooked] } }, registry).project;
    await show(project, derive(project, { registry, grids: noGrid }));
    const toMend = screen.getByRole('region', { name: 'To mend and to weigh' });
    expect(within(toMend).getByText(/^Crooked: /)).toBeTruthy();
    expect(within(toMend).queryAllByText(/^Stone trough/)).toEqual([]);
  });
  it('parts fold, and stay so', async () => {
    await show(WITH);
    const user = userEvent.setup();
    expect(screen.getByRole('button', { name: 'Levels' }).getAttribute('aria-expanded')).toBe('true');
    await user.click(screen.getByRole('button', { name: 'Levels' }));
    cleanup();
    await show(WITH);
    expect(screen.getByRole('button', { name: 'Levels' }).getAttribute('aria-expanded')).toBe('false');
    await user.click(screen.getByRole('button', { name: 'Levels' }));
    expect(localStorage.getItem('outlet-folded')).toBe('[]');
  });
  it('a field may be hidden, left out, noted and taken away; a list grows and shrinks', async () => {
    const user = userEvent.setup();
    await show(WITH);
    expect(screen.queryByText('Note its boards')).toBeNull();
    await user.click(screen.getByRole('button', { name: /Add a crack/ }));
    expect(sent()).toMatchObject({ payload: { changes: [{ id: 'trough-1', set: { cracks: [{ atM: 25, widthM: 0.01 }] } }] } });
    cleanup();
    const change = (set: Record<string, unknown>): Project =>
      applyCommand(WITH, { type: 'works.change', payload: { changes: [{ id: 'trough-1', set }] } }, registry).project;
    await show(change({ lid: 'boards', cracks: [{ atM: 25, widthM: 0.01 }] }));
    await user.click(screen.getByRole('button', { name: 'Note its boards' }));
    expect(sent()).toMatchObject({ payload: { changes: [{ set: { boardMm: 30 } }] } });
    await user.click(within(screen.getByRole('region', { name: 'Cracks' })).getByRole('button', { name: /Mended/ }));
    expect(sent()).toMatchObject({ payload: { changes: [{ set: { cracks: null } }] } });
    cleanup();
    await show(change({ lid: 'boards', boardMm: 40 }));
    await user.click(screen.getByRole('button', { name: 'Take away: Board' }));
    expect(sent()).toMatchObject({ payload: { changes: [{ set: { boardMm: null } }] } });
  });
});
