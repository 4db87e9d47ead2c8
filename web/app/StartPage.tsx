import { FolderOpen } from 'lucide-react';
import { useEffect, useState, type ReactNode } from 'react';
import { FileTrigger } from 'react-aria-components';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { emptyProject } from '#core/project';
import { Button, Inline, Muted } from '../kit/index.ts';
import { ImportTerrain } from '../stages/land/ImportTerrain.tsx';
import { bringInAll, openFile } from './import.ts';
import { claim } from './claim.ts';
import { DEMO_ID } from './open.ts';
import { Notes } from './Notes.tsx';
import { beginBook } from './book.ts';
import { newId } from './selectors.ts';
import { useDropped } from './dropped.ts';
import { dispatch, openProject, saveNow } from './store.ts';

const Page = styled.main`
  max-width: 760px;
  margin: 0 auto;
  padding: 40px 22px 80px;
  h1 {
    font-size: 34px;
    margin-bottom: 8px;
  }
  h2 {
    font-size: 19px;
    margin: 28px 0 6px;
  }
  ul {
    padding-left: 20px;
  }
  li {
    margin: 5px 0;
  }
`;
const Field = styled.input`
  border: 0;
  border-bottom: 1.5px solid var(--water);
  background: transparent;
  padding: 5px 2px;
  font-size: 17px;
  width: 18em;
  max-width: 100%;
`;

/** The least it needs to begin with one's own land, with a sample of each. */
export function StartPage(): ReactNode {
  const navigate = useNavigate();
  const [name, setName] = useState('My land');
  const [draftId] = useState(() => newId('project'));
  const [isReady, setReady] = useState(false);
  const dropped = useDropped((s) => s.files);
  useEffect(() => {
    // An empty project to bring the terrain into; it is kept only once it has some.
    void claim(draftId)
      .then(() => openProject(emptyProject(draftId, 'My land'), { isDraft: true }))
      .then(() => setReady(true));
  }, [draftId]);
  const begin = (stage = 'land'): void => {
    const wanted = name.trim();
    if (wanted !== '') dispatch({ type: 'project.rename', payload: { name: wanted } });
    void saveNow().then(() => navigate(`/p/${draftId}/${stage}`));
  };
  useEffect(() => {
    if (!isReady || dropped.length === 0) return;
    useDropped.setState({ files: [] });
    void bringInAll(dropped, { crs: useDropped.getState().crs }).then((done) => done && begin());
  });
  return (
    <Page>
      <p>
        <Link to={`/p/${DEMO_ID}/works`}>← Back to the demo</Link> · <Link to="/projects">All projects</Link>
      </p>
      <h1>Start from my land</h1>
      <p>All it needs is the shape of the ground. Any one of these will do:</p>
      <ul>
        <li>
          a <strong>terrain grid</strong>: GeoTIFF or ASCII grid with its .prj, in metres, degrees or feet (
          <a href="/samples/sallow-rise.tif" download>
            a sample
          </a>
          )
        </li>
        <li>
          a <strong>survey</strong>: a CSV of points, x, y, z or lat, lon, z (
          <a href="/samples/sample-survey.csv" download>
            a sample
          </a>
          )
        </li>
        <li>
          a <strong>map or a track with levels</strong>: contours or spot heights as GeoJSON, KML or a GeoPackage, a walk as GPX
        </li>
        <li>
          <strong>levels typed by hand</strong>, three points or more, as read off a level and a tape, or a <strong>level book</strong> with
          its back-, inter- and fore-sights: it is reduced and closed here
        </li>
      </ul>
      <Muted>Rain, ground and works come after, one stage at a time. Everything stays in this browser until you export it.</Muted>
      <Notes />
      <h2>Name it</h2>
      <Field aria-label="Name of the project" value={name} onChange={(e) => setName(e.target.value)} />
      <h2>Bring in the ground</h2>
      {isReady ? <ImportTerrain onDone={() => begin()} /> : <Muted>One moment…</Muted>}
      <h2>Or level it by hand</h2>
      <Muted>
        A notebook of staff readings, a water tube or an A-frame is enough: type it as it is booked, and its ground is made of it.
      </Muted>
      <Button
        isDisabled={!isReady}
        onPress={() => {
          const book = beginBook();
          if (book !== null) begin(`book/${book}`);
        }}
      >
        Begin a level book
      </Button>
      <h2>Or only a roof and a tank</h2>
      <Muted>How large a tank should be, and how long it lasts, hangs on no ground: a roof, what is used, and the rain are enough.</Muted>
      <Button isDisabled={!isReady} onPress={() => begin('supply')}>
        Work out a tank
      </Button>
      <h2>Or open a project you saved</h2>
      <Inline>
        <FileTrigger
          acceptedFileTypes={['.outlet', '.json']}
          onSelect={(files) => files?.[0] && void openFile(files[0]).then((id) => id !== null && navigate(`/p/${id}/works`))}
        >
          <Button>
            <FolderOpen size={16} aria-hidden />
            Open a .outlet file
          </Button>
        </FileTrigger>
      </Inline>
    </Page>
  );
}
