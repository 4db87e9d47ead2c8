import { useState, type ReactNode } from 'react';
import { Heading } from 'react-aria-components';
import { Button, Choose, Fact, Inline, Muted, FileQuestion, Quantity, Row } from '../kit/index.ts';
import { useFormat } from './selectors.ts';
import type { MarksShift } from '#core/terrain';
import type { Met } from '../workers/protocol.ts';
import type { GroundChosen, TwoGrounds } from './asked.ts';
import { MarksShiftPart } from './MarksShift.tsx';
import { useApp } from './store.ts';

/** What brings the survey to the ground: nothing, what it differs by in the middle, or marks known in both. */
const SHIFTS = [
  { id: 'none', name: 'as it was levelled' },
  { id: 'survey', name: 'raised to the ground there is' },
  { id: 'marks', name: 'by marks known in both' },
] as const;

/** Off by more than so many times what it strays, and by so much besides, a survey was likely levelled from another zero [m]. */
const [OTHER_ZERO, OTHER_ZERO_M] = [3, 0.5];

/** Puts the question away with its answer. */
function close(chosen: GroundChosen | null): void {
  const asked = useApp.getState().twoGrounds;
  useApp.setState({ twoGrounds: null });
  asked?.done(chosen);
}

/** New ground that meets the ground there is nowhere. */
function Apart({ imported, isElsewhere }: TwoGrounds): ReactNode {
  return (
    <>
      <Heading slot="title">
        {imported.source} lies{' '}
        {isElsewhere ? `in ${imported.crs ?? 'local metres'}, the ground there is in another system` : 'nowhere on the ground there is'}
      </Heading>
      <p>
        Put in its place, works and what is drawn stay where they are, and may lie on no ground any more. A survey by tape is laid into the
        ground where its marks A and B are given by their places on it.
      </p>
      <Inline style={{ marginTop: 14 }}>
        <Button look="strong" onPress={() => close('replace')}>
          Put it in place of the ground
        </Button>
        <Button look="quiet" onPress={() => close(null)}>
          Leave it
        </Button>
      </Inline>
    </>
  );
}

function Meeting({ imported, there, met: { differs, featherM } }: TwoGrounds & { readonly met: Met }): ReactNode {
  const format = useFormat();
  const [feather, setFeather] = useState(featherM);
  const { medianM, spreadM, mostM, cells } = differs;
  // So far off on the whole, and so little from place to place: another zero.
  const [shift, setShift] = useState<(typeof SHIFTS)[number]['id']>(
    Math.abs(medianM) > OTHER_ZERO * spreadM + OTHER_ZERO_M ? 'survey' : 'none',
  );
  const [marks, setMarks] = useState<MarksShift | null>(null);
  const off = format(Math.abs(medianM), 'length');
  const byMarks = marks && marks.held.length > 0 ? { shiftM: marks.shiftM, byMarks: marks.held.length } : null;
  const how = shift === 'marks' ? byMarks : { shiftM: shift === 'survey' ? -medianM : 0 };
  return (
    <>
      <Heading slot="title">{imported.source} lies on the ground there is</Heading>
      <p>
        It lies <strong>{off}</strong> {medianM < 0 ? 'below' : 'above'} it in the middle of {cells} cells, and within{' '}
        <strong>{format(spreadM, 'length')}</strong> of that in two of three.
      </p>
      <Fact label="Farthest from that middle" value={format(mostM, 'length')} />
      <Row>
        <Choose label="Its levels" value={shift} choices={SHIFTS} onChange={setShift} />
      </Row>
      {shift === 'marks' ? (
        <MarksShiftPart there={there} survey={imported.asset.blob} medianM={medianM} found={marks} onFound={setMarks} />
      ) : (
        <Muted>
          {shift === 'none'
            ? `Right where both go out from one zero; at its edge it then passes over ${off}. A survey from a peg of its own is raised instead.`
            : `It is ${medianM < 0 ? 'raised' : 'lowered'} by ${off}; what differs from place to place stays, and is the ground as it was surveyed.`}
        </Muted>
      )}
      <Quantity label="One passes into the other over" kind="length" min={0} max={500} value={feather} onChange={setFeather} />
      <Inline style={{ marginTop: 14 }}>
        <Button look="strong" isDisabled={how === null} onPress={() => how && close({ ...how, featherM: feather })}>
          Lay it into the ground
        </Button>
        <Button onPress={() => close('replace')}>Put it in place of the ground</Button>
        <Button look="quiet" onPress={() => close(null)}>
          Leave it
        </Button>
      </Inline>
    </>
  );
}

/** Asks what becomes of new ground that lies on the ground there is. */
export function GroundsDialog(): ReactNode {
  const asked = useApp((s) => s.twoGrounds);
  if (!asked) return null;
  return (
    <FileQuestion width={560} onLeave={() => close(null)}>
      {asked.met ? <Meeting {...asked} met={asked.met} /> : <Apart {...asked} />}
    </FileQuestion>
  );
}
