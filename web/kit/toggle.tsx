import type { ReactNode } from 'react';
import { Checkbox, Slider, SliderThumb, SliderTrack, Label, SliderOutput } from 'react-aria-components';
import styled from 'styled-components';
import { FONT } from '../app/theme.ts';

const Box = styled(Checkbox)`
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 30px;
  cursor: pointer;
  .box {
    width: 17px;
    height: 17px;
    border: 1.5px solid var(--ink);
    border-radius: 3px;
    display: grid;
    place-items: center;
    flex: none;
  }
  &[data-selected] .box {
    background: var(--deepWater);
    color: var(--onDeep);
  }
  &[data-focus-visible] .box {
    outline: 2px solid var(--water);
    outline-offset: 2px;
  }
  @media (max-width: 700px) {
    min-height: 44px;
  }
`;

/** On or off, with its words. */
export function Toggle({
  label,
  isOn,
  onChange,
}: {
  readonly label: string;
  readonly isOn: boolean;
  readonly onChange: (isOn: boolean) => void;
}): ReactNode {
  return (
    <Box isSelected={isOn} onChange={onChange}>
      <span className="box" aria-hidden>
        {isOn ? '✓' : ''}
      </span>
      {label}
    </Box>
  );
}

const Line = styled(Slider)`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 10px;
  align-items: center;
  min-height: 34px;
  output {
    font-family: ${FONT.figures};
  }
  .track {
    grid-column: 1 / -1;
    height: 22px;
    position: relative;
  }
  .track::before {
    content: '';
    position: absolute;
    left: 0;
    right: 0;
    top: 10px;
    height: 2px;
    background: var(--line);
  }
  .thumb {
    top: 11px;
    width: 16px;
    height: 16px;
    border-radius: 50%;
    background: var(--deepWater);
    border: 2px solid var(--paper);
  }
  .thumb[data-focus-visible] {
    outline: 2px solid var(--water);
    outline-offset: 2px;
  }
`;

/** A value to slide. */
export function Slide(props: {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly words: (value: number) => string;
  readonly onChange: (value: number) => void;
}): ReactNode {
  const { label, value, min, max, step, words, onChange } = props;
  return (
    <Line value={value} minValue={min} maxValue={max} step={step} onChange={(v) => onChange(v as number)}>
      <Label>{label}</Label>
      <SliderOutput>{words(value)}</SliderOutput>
      <SliderTrack className="track">
        <SliderThumb className="thumb" />
      </SliderTrack>
    </Line>
  );
}
