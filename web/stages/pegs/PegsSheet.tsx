import { Download } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { DEFAULT_SURVEY } from '#core/project';
import { isReadable } from '#core/survey';
import { formatNumber } from '#core/units';
import { exportPegs } from '../../app/export-plan.ts';
import { GroundPart } from './GroundPart.tsx';
import { PlanPart } from './PlanPart.tsx';
import { useDerived, useFormat, useProject, useWorks } from '../../app/selectors.ts';
import { dispatch, useApp } from '../../app/store.ts';
import { FONT } from '../../app/theme.ts';
import { Button, Inline, Muted, Part, Quantity, SheetTitle } from '../../kit/index.ts';

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font: 500 13.5px ${FONT.figures};
  font-variant-numeric: tabular-nums;
  th {
    text-align: right;
    color: var(--muted);
    font-weight: 500;
    padding: 4px 5px;
    border-bottom: 1.5px solid var(--ink);
  }
  td {
    text-align: right;
    padding: 6px 5px;
    border-bottom: 1px solid var(--line);
    white-space: nowrap;
  }
  th:first-child,
  td:first-child {
    text-align: left;
    font-family: ${FONT.text};
  }
  @media (max-width: 700px) {
    font-size: 17px;
    td {
      padding: 13px 4px;
    }
    .place {
      display: none;
    }
  }
`;

/** What to read on the staff at every peg. */
export function PegsSheet(): ReactNode {
  const project = useProject();
  const derived = useDerived();
  const works = useWorks();
  const system = useApp((s) => s.system);
  const format = useFormat();
  const survey = project.survey ?? DEFAULT_SURVEY;
  const set = (part: Partial<typeof survey>): void => {
    dispatch({ type: 'survey.set', payload: { survey: { ...survey, ...part } } });
  };
  const pegs = derived?.pegs ?? [];
  const isLocal = project.site.crs === null;
  const n = (v: number | null): string => formatNumber(v, 'reading', system);
  const place = (v: number): string => formatNumber(v, 'level', system);
  const staff = (v: number | null): string => (v === null || isReadable(v) ? n(v) : v < 0 ? 'too high' : 'too low');
  return (
    <>
      <SheetTitle>Pegs</SheetTitle>
      <Part title="Instrument">
        <Quantity
          label="Height of collimation"
          value={survey.heightOfCollimationM}
          kind="level"
          onChange={(heightOfCollimationM) => set({ heightOfCollimationM })}
          help="Level of the instrument's line of sight."
        />
        <Quantity
          label="A peg every"
          value={survey.pegIntervalM}
          kind="length"
          min={0.5}
          max={1000}
          onChange={(pegIntervalM) => set({ pegIntervalM })}
        />
      </Part>
      <Inline>
        <Button onPress={() => void exportPegs('csv')} isDisabled={pegs.length === 0}>
          <Download size={16} aria-hidden />
          CSV
        </Button>
        <Button onPress={() => void exportPegs('gpx')} isDisabled={pegs.length === 0 || isLocal}>
          <Download size={16} aria-hidden />
          GPX
        </Button>
        <Button onPress={() => void exportPegs('geojson')} isDisabled={pegs.length === 0 || isLocal}>
          <Download size={16} aria-hidden />
          GeoJSON
        </Button>
      </Inline>
      {isLocal && <Muted>GPX and GeoJSON need latitude and longitude: this project is in local metres.</Muted>}
      <PlanPart />
      <GroundPart />
      {works.map((work) => {
        const own = pegs.filter((p) => p.work === work.id);
        const isSaid = own.some((p) => p.groundKnownM !== undefined);
        if (own.length === 0) return null;
        return (
          <Part key={work.id} title={`${work.name}, design ${format(own[0].levelM, 'level')}`}>
            <Table>
              <thead>
                <tr>
                  <th scope="col">Peg</th>
                  <th scope="col" className="place">
                    E
                  </th>
                  <th scope="col" className="place">
                    N
                  </th>
                  <th scope="col">Ground</th>
                  {isSaid && <th scope="col">Known to</th>}
                  <th scope="col">Cut</th>
                  <th scope="col">Staff</th>
                </tr>
              </thead>
              <tbody>
                {own.map((p) => (
                  <tr key={p.id}>
                    <td>{p.name}</td>
                    <td className="place">{place(p.x)}</td>
                    <td className="place">{place(p.y)}</td>
                    <td>{n(p.groundM)}</td>
                    {isSaid && <td>{n(p.groundKnownM ?? null)}</td>}
                    <td>{n(p.cutM)}</td>
                    <td>
                      <strong>{staff(p.staffM)}</strong>
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </Part>
        );
      })}
    </>
  );
}
