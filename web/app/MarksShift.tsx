import { useState, type ReactNode } from 'react';
import type { UserProblem } from '#core/project';
import type { MarksShift } from '#core/terrain';
import { Button, Inline, Muted, Problems, Table } from '../kit/index.ts';
import { Paste } from '../kit/paste.tsx';
import { runJob } from './jobs.ts';
import { useFormat } from './selectors.ts';

/** What the shift by marks says of itself, in words. */
function Told({ found, medianM }: { readonly found: MarksShift; readonly medianM: number }): ReactNode {
  const format = useFormat();
  const { shiftM, held, spreadM, odd, lacking } = found;
  const named = lacking.map(({ name }) => name).join(', ');
  const lacks = lacking.length > 0 && (
    <p role="alert">
      {named} {lacking.length === 1 ? 'has' : 'have'} no level in both: give the level in the ground, and that by the survey behind it.
    </p>
  );
  if (held.length === 0) return lacks;
  const leftM = medianM + shiftM;
  return (
    <>
      <p role="status">
        The survey is {shiftM < 0 ? 'lowered' : 'raised'} by <strong>{format(Math.abs(shiftM), 'level')}</strong>
        {spreadM === null ? ', by one mark alone: nothing tells how near that is.' : `, the mean of ${held.length} marks; they lie within `}
        {spreadM !== null && (
          <>
            <strong>{format(spreadM, 'difference')}</strong> of it in two of three.
          </>
        )}{' '}
        Then it lies {format(Math.abs(leftM), 'length')} {leftM < 0 ? 'below' : 'above'} the ground there is, in the middle of all cells.
      </p>
      <Table
        caption="Marks known in both"
        head={['Mark', 'In the ground', 'By the survey', 'Left over']}
        rows={held.map(({ name, groundM, surveyM, offM }) => [name, format(groundM, 'level'), format(surveyM, 'level'), format(offM, 'difference')])}
      />
      {odd && (
        <p role="alert">
          {odd.name} agrees with none of the others: was it the same place, and read right? Take its line out, or correct it.
        </p>
      )}
      {lacks}
    </>
  );
} // prettier-ignore

/** Marks known in the ground and in the survey, typed or pasted, and the shift they give. */
export function MarksShiftPart({ there, survey, medianM, found, onFound }: { readonly there: Blob; readonly survey: Blob; readonly medianM: number; readonly found: MarksShift | null; readonly onFound: (found: MarksShift | null) => void }): ReactNode {
  const [text, setText] = useState('');
  const [problems, setProblems] = useState<readonly UserProblem[]>([]);
  const hold = async (): Promise<void> => {
    const answer = await runJob('Holding the survey against its marks', (work) => work.marks(there, survey, text));
    if (!answer) return;
    setProblems(answer.ok ? [] : answer.problems);
    onFound(answer.ok ? answer.value : null);
  };
  return (
    <>
      <Paste
        label="Marks known in both, one a line"
        rows={4}
        value={text}
        onChange={(typed) => {
          setText(typed);
          onFound(null);
        }}
        placeholder="name, easting, northing, level in the ground, level by the survey"
      />
      <Muted>
        In metres. A level that is left out is read from the ground, or from the survey, where the mark stands; of the survey the level of its
        own reading is nearer. Three marks or more show one that is wrong.
      </Muted>
      <Inline style={{ margin: '6px 0' }}>
        <Button isDisabled={text.trim() === ''} onPress={() => void hold()}>
          Hold the survey against them
        </Button>
      </Inline>
      {problems.length > 0 && <Problems title="The marks cannot be used" problems={problems} />}
      {found && <Told found={found} medianM={medianM} />}
    </>
  );
} // prettier-ignore
