import { afterEach, describe, expect, it, jest } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import { type QuantityKind, displayUnit } from '#core/units';
import userEvent from '@testing-library/user-event';

jest.mock('../app/store.ts', () => {
  const { create } = jest.requireActual<typeof import('zustand')>('zustand');
  return { useApp: create(() => ({ system: 'metric' })) };
});

describe('Quantity', () => {
  afterEach(cleanup);
  const show = async (kind: QuantityKind, value: number | null, system: 'metric' | 'us' = 'metric') => {
    const { Quantity } = await import('./quantity.tsx');
    const { useApp } = await import('../app/store.ts');
    useApp.setState({ system });
    const onChange = jest.fn<(v: number) => void>();
    render(<Quantity label="Bank above the sill" kind={kind} value={value} onChange={onChange} />);
    const field = screen.getByRole('textbox', { name: 'Bank above the sill' });
    return { onChange, field: field as HTMLInputElement };
  };

  it('shows its value in the unit of the page and gives back SI', async () => {
    const { field, onChange } = await show('length', 0.3048, 'us');
    expect(field.value).toBe('1.00');
    await userEvent.clear(field);
    await userEvent.type(field, '2{Tab}');
    expect(onChange).toHaveBeenCalledTimes(1);
    expect(onChange.mock.calls[0][0]).toBeCloseTo(0.6096, 9);
  });
  it('does not round what is left untouched', async () => {
    const { field, onChange } = await show('length', 0.349999);
    expect(field.value).toBe('0.35');
    await userEvent.click(field);
    await userEvent.tab();
    expect(onChange).not.toHaveBeenCalled();
  });
  it('lets a level be typed to the millimetre', async () => {
    const { field, onChange } = await show('level', 119.831);
    expect(field.value).toBe('119.831');
    await userEvent.clear(field);
    await userEvent.type(field, '119.786{Enter}');
    expect(onChange).toHaveBeenCalledWith(119.786);
  });
  it.each(['area', 'volume', 'count', 'days', 'percent', 'difference', 'distance', 'liquid', 'flow'] as const)(
    'a point that is typed is never lost, also where whole numbers are usual: %s',
    async (kind) => {
      const { field, onChange } = await show(kind, 0);
      await userEvent.clear(field);
      await userEvent.type(field, '17.5{Tab}');
      const [[taken]] = onChange.mock.calls;
      expect(taken * displayUnit(kind, 'metric').factor).toBeCloseTo(17.5, 9);
    },
  );
  it('is empty while nothing is known, and ignores what is no number', async () => {
    const { field, onChange } = await show('length', null);
    expect(field.value).toBe('');
    await userEvent.type(field, 'deep{Tab}');
    expect(onChange).not.toHaveBeenCalled();
  });
});
