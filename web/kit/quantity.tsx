import { memo, useCallback, useLayoutEffect, useRef, type ReactNode } from 'react';
import { Input, Label, NumberField } from 'react-aria-components';
import styled from 'styled-components';
import { type QuantityKind, displayUnit, fromDisplay, toDisplay } from '#core/units';
import { useApp } from '../app/store.ts';
import { FONT } from '../app/theme.ts';

/** A number in a row of a sheet, its name before it. */
export const NumberRow = styled(NumberField)`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  min-height: 34px;
  border-bottom: 1px solid var(--line);
  @media (max-width: 700px) {
    min-height: 44px;
  }
`;
const Value = styled.span`
  display: inline-flex;
  align-items: baseline;
  gap: 6px;
  flex: none;
`;
/** The figure that is typed in it. */
export const Figure = styled(Input)`
  width: 5.8em;
  text-align: right;
  font-family: ${FONT.figures};
  color: var(--water);
  background: transparent;
  border: 0;
  border-bottom: 1.5px solid var(--water);
  padding: 3px 0;
  &[data-focused] {
    background: var(--paperDeep);
  }
  &[data-disabled] {
    color: var(--muted);
    border-color: var(--line);
  }
  @media (max-width: 700px) {
    min-height: 36px;
    font-size: 18px;
  }
`;
const Unit = styled.span`
  width: 2.4em;
  color: var(--muted);
`;

export interface QuantityProps {
  readonly label: string;
  /** SI value; null shows an empty field. */
  readonly value: number | null;
  readonly kind: QuantityKind;
  readonly onChange: (value: number) => void;
  /** Called when the field is emptied; left out, it then shows again what it showed. */
  readonly onClear?: () => void;
  readonly min?: number;
  readonly max?: number;
  readonly help?: string;
  readonly isDisabled?: boolean;
  readonly isLabelHidden?: boolean;
}

/** Typing needs finer digits than reading: a level is set to the millimetre. */
const FINER: Partial<Record<QuantityKind, number>> = { level: 1, intensity: 1, slope: 1, rain: 1, minutes: 2 };
/** A field of whole numbers only would let the point of "17.5" fall and take 175: every one takes a digit behind it. */
const LEAST_DIGITS = 1;

/**
 * The one control for a number with a unit: shown and typed in the unit system of the page, kept in SI. It is drawn again only
 * when what it shows changes: a sheet has many, and a drag renders the sheet at every step.
 */
export function Quantity({ onChange, onClear, ...rest }: QuantityProps): ReactNode {
  const latest = useRef({ onChange, onClear });
  useLayoutEffect(() => {
    latest.current = { onChange, onClear };
  });
  const change = useCallback((value: number) => latest.current.onChange(value), []);
  const clear = useCallback(() => latest.current.onClear?.(), []);
  return <Control {...rest} onChange={change} onClear={clear} />;
}

const Control = memo(function Control(props: QuantityProps): ReactNode {
  const { label, value, kind, onChange, onClear, min, max, help, isDisabled, isLabelHidden } = props;
  const system = useApp((s) => s.system);
  const { unit, decimals } = displayUnit(kind, system);
  const digits = Math.max(LEAST_DIGITS, decimals + (FINER[kind] ?? 0));
  const shown = value === null ? NaN : Number(toDisplay(value, kind, system).toFixed(digits));
  const change = (typed: number): void => {
    if (Number.isNaN(typed) && value !== null) onClear?.();
    // Leaving a field untouched must not round what it shows.
    if (Number.isFinite(typed) && typed !== shown) onChange(fromDisplay(typed, kind, system));
  };
  return (
    <NumberRow
      {...(isLabelHidden === true ? { 'aria-label': label } : {})}
      value={shown}
      onChange={change}
      isDisabled={isDisabled ?? false}
      {...(min === undefined ? {} : { minValue: toDisplay(min, kind, system) })}
      {...(max === undefined ? {} : { maxValue: toDisplay(max, kind, system) })}
      formatOptions={{ minimumFractionDigits: kind === 'rain' ? digits : decimals, maximumFractionDigits: digits, useGrouping: false }}
    >
      {isLabelHidden === true ? null : <Label title={help}>{label}</Label>}
      <Value>
        <Figure />
        {unit === '' && isLabelHidden === true ? null : <Unit>{unit}</Unit>}
      </Value>
    </NumberRow>
  );
});
