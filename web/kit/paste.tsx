import type { ReactNode } from 'react';
import { Label, TextArea, TextField } from 'react-aria-components';
import styled from 'styled-components';
import { FONT } from '../app/theme.ts';

const Box = styled(TextField)`
  display: grid;
  gap: 4px;
  margin: 8px 0;
  textarea {
    font: 14px/1.45 ${FONT.figures};
    color: var(--ink);
    background: var(--paperDeep);
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 8px;
    resize: vertical;
    width: 100%;
    box-sizing: border-box;
  }
  textarea[data-focused] {
    outline: 2px solid var(--water);
    outline-offset: 1px;
  }
`;

/** Several lines typed or pasted. */
export function Paste(props: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly rows?: number;
  readonly placeholder?: string;
}): ReactNode {
  const { label, value, onChange, rows = 6, placeholder } = props;
  return (
    <Box value={value} onChange={onChange}>
      <Label>{label}</Label>
      <TextArea rows={rows} {...(placeholder === undefined ? {} : { placeholder })} spellCheck={false} />
    </Box>
  );
}
