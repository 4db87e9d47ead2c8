import { Save, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import useSWR from 'swr';
import { Button, Muted, Problems, Row } from '../kit/index.ts';
import { isOpenElsewhere } from './claim.ts';
import { exportKept } from './export.ts';
import { Notes } from './Notes.tsx';
import { DEMOS } from './open.ts';
import { canKeep, listProjects, removeProject } from './storage.ts';

const Page = styled.main`
  max-width: 640px;
  margin: 0 auto;
  padding: 40px 22px;
  h1 {
    font-size: 34px;
    margin-bottom: 16px;
  }
  [role='alert'] {
    margin-bottom: 16px;
  }
  a,
  span {
    overflow-wrap: anywhere;
  }
`;

const FULL = {
  code: 'storage.full',
  what: 'its storage is full or shut, so an edit would be gone with the page',
  where: {},
  do: 'Export the projects you need, remove others, or free space on the disk; then load this page again.',
} as const;

/** The projects kept in this browser. */
export function ProjectsPage(): ReactNode {
  const { data = [], mutate } = useSWR('projects', listProjects, { revalidateOnFocus: false });
  const { data: keeps = true } = useSWR('can-keep', canKeep);
  const remove = async (id: string, name: string): Promise<void> => {
    if (!window.confirm(`Remove “${name}” from this browser? Export it first if you may want it again.`)) return;
    if (await isOpenElsewhere(id)) {
      window.alert(`“${name}” is open in another tab. Close it there first.`);
      return;
    }
    try {
      await removeProject(id);
    } catch {
      window.alert(`“${name}” could not be removed: this browser’s storage does not answer.`);
    }
    await mutate();
  };
  return (
    <Page>
      <h1>Projects</h1>
      <Notes />
      {!keeps && <Problems title="This browser cannot keep anything right now" problems={[FULL]} />}
      {data.map((p) => (
        <Row key={p.id}>
          {p.isReadable ? <Link to={`/p/${p.id}/works`}>{p.name}</Link> : <span>{p.name}: cannot be read by this browser</span>}
          <span>
            {p.isReadable && <Muted as="span">{new Date(p.savedAt).toLocaleString()}</Muted>}
            {p.isReadable && (
              <Button look="quiet" aria-label={`Export ${p.name}`} onPress={() => void exportKept(p.id)}>
                <Save size={15} aria-hidden />
              </Button>
            )}
            <Button look="quiet" aria-label={`Remove ${p.name}`} onPress={() => void remove(p.id, p.name)}>
              <Trash2 size={15} aria-hidden />
            </Button>
          </span>
        </Row>
      ))}
      {DEMOS.filter((demo) => !data.some((p) => p.id === demo.id)).map(({ id, name }) => (
        <Row key={id}>
          <Link to={`/p/${id}/works`}>{name}, a demo</Link>
        </Row>
      ))}
      <p style={{ marginTop: 22 }}>
        <Link to="/start">Start from my land →</Link>
      </p>
    </Page>
  );
}
