import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import useSWR from 'swr';
import { Button, Muted, Row } from '../kit/index.ts';
import { isOpenElsewhere } from './claim.ts';
import { DEMO_ID } from './open.ts';
import { listProjects, removeProject } from './storage.ts';

const Page = styled.main`
  max-width: 640px;
  margin: 0 auto;
  padding: 40px 22px;
  h1 {
    font-size: 34px;
    margin-bottom: 16px;
  }
`;

/** The projects kept in this browser. */
export function ProjectsPage(): ReactNode {
  const { data = [], mutate } = useSWR('projects', listProjects);
  const remove = async (id: string, name: string): Promise<void> => {
    if (!window.confirm(`Remove “${name}” from this browser? Export it first if you may want it again.`)) return;
    if (await isOpenElsewhere(id)) {
      window.alert(`“${name}” is open in another tab. Close it there first.`);
      return;
    }
    await removeProject(id);
    await mutate();
  };
  return (
    <Page>
      <h1>Projects</h1>
      {data.map((p) => (
        <Row key={p.id}>
          <Link to={`/p/${p.id}/works`}>{p.name}</Link>
          <span>
            <Muted as="span">{new Date(p.savedAt).toLocaleString()}</Muted>
            <Button look="quiet" aria-label={`Remove ${p.name}`} onPress={() => void remove(p.id, p.name)}>
              <Trash2 size={15} aria-hidden />
            </Button>
          </span>
        </Row>
      ))}
      {!data.some((p) => p.id === DEMO_ID) && (
        <Row>
          <Link to={`/p/${DEMO_ID}/works`}>Sallow Rise, the demo</Link>
        </Row>
      )}
      <p style={{ marginTop: 22 }}>
        <Link to="/start">Start from my land →</Link>
      </p>
    </Page>
  );
}
