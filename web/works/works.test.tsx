import { afterEach, describe, expect, it, jest } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import { derived } from '../../core/testing/projects.ts';
import { BACKUP, BACKUP_SILL, CUT, DRAIN, PIPE, POND, POND_SILL, PUMP, ROAD, TRENCH, valleyProject } from '../../core/testing/valley.ts';

jest.mock('../app/store.ts', () => {
  const { create } = jest.requireActual<typeof import('zustand')>('zustand');
  return { useApp: create(() => ({ system: 'metric' })), dispatch: jest.fn(), select: jest.fn(), notify: jest.fn(), worker: jest.fn() };
});

const WORKS = [POND, POND_SILL, CUT, PIPE, TRENCH, BACKUP, BACKUP_SILL, ROAD, DRAIN, PUMP];
const project = valleyProject(WORKS);
const result = derived(project);

describe('works on the plan', () => {
  it('each draws itself under its own id, the pond with its water and wall, and nothing twice', async () => {
    const { planItems } = await import('../plan/items.ts');
    const items = planItems({ project, result, selected: 'pond', levelText: (m) => m.toFixed(2), flowText: String, showPegs: true });
    const ids = items.map((i) => i.id);
    for (const { id } of WORKS) expect(ids).toContain(id);
    expect(ids).toContain('wall:pond');
    expect(new Set(ids).size).toBe(ids.length);
    const look = (id: string) => items.find((i) => i.id === id)?.look;
    expect(look('pond')).toMatchObject({ role: 'water', isSelected: true, label: 'Pond' });
    expect(look('cut')).toMatchObject({ role: 'spillway', label: 'Emergency 106.10' });
    expect(items.filter((i) => i.isMovable).map((i) => i.id)).toEqual(expect.arrayContaining(['ps', 'cut', 'pipe', 'trench', 'bs']));
  });
  it('the water’s edge lies on the ground at the level of the lowest way out', () => {
    const [ring] = result.view.rings['pond'];
    const way = result.derived.stores.find((s) => s.id === 'pond')?.wayOutM ?? 0;
    const ground = ([x, y]: readonly [number, number]): number => 100 + 0.05 * y + 0.2 * Math.abs(x - 101);
    const behind = ring.filter(([, y]) => y > 86);
    expect(behind.length).toBeGreaterThan(8);
    for (const p of behind) expect(Math.abs(ground(p) - way)).toBeLessThan(0.25);
  });
  it('flags of the water line are pegged, and levels of joined works stand in one stack with one water', async () => {
    const flags = result.derived.pegs.filter((p) => p.name.startsWith('water line'));
    expect(flags.length).toBeGreaterThan(3);
    const { chainMarks } = await import('../stages/levels/stack.ts');
    const marks = chainMarks(result, WORKS, ['pond', 'ps', 'cut', 'pipe', 'backup', 'bs']);
    expect(marks.filter((m) => m.role === 'water')).toHaveLength(1);
    const levels = marks.map((m) => m.levelM);
    expect([...levels].sort((a, b) => b - a)).toEqual(levels);
  });
});

describe('sections', () => {
  afterEach(cleanup);
  it.each(['pond', 'cut', 'pipe', 'trench', 'road', 'drain'])('of %s is drawn to scale and told in words', async (id) => {
    const { ShapeDrawing } = await import('./shared/ShapeDrawing.tsx');
    const shape = result.view.shapes[id];
    render(<ShapeDrawing shape={shape} />);
    const drawing = screen.getByRole('img');
    const words = drawing.getAttribute('aria-label') ?? '';
    for (const { name, levelM } of shape.levels) expect(words).toContain(`${name} ${levelM.toFixed(2)}`);
    expect(drawing.querySelectorAll('path')).toHaveLength(shape.parts.length);
    expect(drawing.innerHTML).not.toContain('NaN');
  });
});
