import { afterEach, describe, expect, it } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { FoldPart } from './layout.tsx';

describe('a part that folds', () => {
  afterEach(cleanup);
  const show = () => {
    render(
      <>
        <FoldPart title="Shape">wide</FoldPart>
        <FoldPart title="Working" sum="3 formulas" isLookedUp>
          t = V / Q
        </FoldPart>
      </>,
    );
  };
  const press = (name: RegExp): Promise<void> => userEvent.click(screen.getByRole('button', { name }));

  it('is open, what is only looked up is folded with its sum beside it; each stays as it was left', async () => {
    localStorage.clear();
    show();
    expect(screen.getByText('wide')).toBeTruthy();
    expect(screen.queryByText('t = V / Q')).toBeNull();
    expect(screen.getByRole('button', { name: /Working/ }).textContent).toBe('Working3 formulas');
    await press(/Working/);
    await press(/Shape/);
    cleanup();
    show();
    expect(screen.queryByText('wide')).toBeNull();
    expect(screen.getByText('t = V / Q')).toBeTruthy();
    expect(JSON.parse(localStorage.getItem('outlet-folded') ?? '')).toEqual(['Working', 'Shape']);
    // Turned back, nothing is kept of them.
    await press(/Working/);
    await press(/Shape/);
    expect(JSON.parse(localStorage.getItem('outlet-folded') ?? '')).toEqual([]);
  });
  it('keeps what is typed in it while it is folded', async () => {
    localStorage.clear();
    render(
      <FoldPart title="Machine">
        <input aria-label="It costs" />
      </FoldPart>,
    );
    await userEvent.type(screen.getByLabelText('It costs'), '900');
    await press(/Machine/);
    await press(/Machine/);
    expect(screen.getByLabelText<HTMLInputElement>('It costs').value).toBe('900');
  });
});
