import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { UserProblem } from '#core/project';
import { Link } from 'react-router';
import { Button, Inline, Muted, Problems } from '../kit/index.ts';
import { exportKept } from './export.ts';

const Page = styled.main`
  max-width: 760px;
  margin: 0 auto;
  padding: 40px 22px;
  display: grid;
  gap: 16px;
  h1 {
    font-size: 30px;
    overflow-wrap: anywhere;
  }
`;

/** A kept project that cannot be opened: why, and the ways on. It stays as it is. */
export function KeptAway({ id, problems }: { readonly id: string; readonly problems: readonly UserProblem[] }): ReactNode {
  return (
    <Page>
      <h1>This project cannot be opened here</h1>
      <Problems title="It is kept as it was; nothing in it was changed" problems={problems} />
      <Muted>Export it to have it in a file, as it is kept; then open an earlier copy, or go on with another project.</Muted>
      <Inline>
        <Button look="strong" onPress={() => void exportKept(id)}>
          Export what is kept
        </Button>
        <Link to="/projects">Other projects</Link>
        <Link to="/start">Start from my land</Link>
      </Inline>
    </Page>
  );
}
