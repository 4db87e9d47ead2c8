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
  width: 9em;
`;

/** What something is called, changed once the field is left; an empty name is no name. */
export function NameField(props: { readonly label: string; readonly value: string; readonly onChange: (name: string) => void }): ReactNode {
  const { label, value, onChange } = props;
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
          if (typed === '') e.target.value = value;
          else if (typed !== value) onChange(typed);
        }}
      />
    </Row>
  );
}
