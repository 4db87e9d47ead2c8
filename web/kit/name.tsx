import { type ReactNode, useId } from 'react';
import styled from 'styled-components';
import { Row } from './layout.tsx';

const Field = styled.input`
  font: inherit;
  font-weight: 600;
  color: var(--ink);
  border: 0;
  border-bottom: 1.5px solid var(--water);
  background: transparent;
  padding: 3px 2px;
  flex: 1;
  min-width: 0;
  max-width: 13em;
`;

/** Words that are changed once the field is left, or by Enter; what is empty or refused goes back to what it was. */
export function NameField(props: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => unknown;
  /** Whether it may be left empty, for words nobody needs. */
  readonly mayBeEmpty?: boolean;
}): ReactNode {
  const { label, value, onChange, mayBeEmpty = false } = props;
  const id = useId();
  return (
    <Row>
      <label htmlFor={id}>{label}</label>
      <Field
        id={id}
        key={value}
        defaultValue={value}
        onBlur={(e) => {
          const typed = e.target.value.trim();
          if ((typed === '' && !mayBeEmpty) || (typed !== value && onChange(typed) === false)) e.target.value = value;
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.currentTarget.blur();
        }}
      />
    </Row>
  );
}
