import { useState, type ReactNode } from 'react';
import { healedYearsOf } from '#core/project';
import { useAskGround } from '../../app/ground.ts';
import { useFormat, useProject } from '../../app/selectors.ts';
import { Choose, Muted, Part, Quantity, Row, Table } from '../../kit/index.ts';
import { GroundPicture } from './GroundPicture.tsx';

/** What each kind of ground does with a rain. */
export function RainOnIt(): ReactNode {
  const { rain, ground } = useProject();
  const format = useFormat();
  const [which, choose] = useState<'storm' | 'own'>(rain ? 'storm' : 'own');
  const [own, setOwn] = useState({ depthMm: 30, durationMin: 60 });
  const shown = useAskGround('picture', { rain: which === 'storm' ? null : own });
  const years = healedYearsOf(ground ?? {});
  return (
    <>
      <Part title="A rain on this ground">
        <Row>
          <Choose
            label="The rain"
            value={which}
            choices={[
              ...(rain ? [{ id: 'storm' as const, name: 'the design storm' }] : []),
              { id: 'own' as const, name: 'so much in so long, evenly' },
            ]}
            onChange={choose}
          />
        </Row>
        {which === 'own' && (
          <>
            <Quantity label="Rain" value={own.depthMm} kind="rain" min={1} max={2000} onChange={(depthMm) => setOwn({ ...own, depthMm })} />
            <Quantity
              label="It falls in"
              value={own.durationMin}
              kind="minutes"
              min={5}
              max={10_080}
              onChange={(durationMin) => setOwn({ ...own, durationMin })}
            />
          </>
        )}
      </Part>
      {shown && (
        <>
          {shown.map((g) => (
            <Part key={g.id} title={g.name}>
              <GroundPicture now={g.now} healed={g.healed} years={years} />
            </Part>
          ))}
          <Table
            caption="What soaks, stands and runs"
            head={['', 'soaks', 'stands', 'runs', 'of rain']}
            rows={shown.flatMap(({ name, now, healed }) =>
              [{ label: healed ? `${name}, now` : name, d: now }, ...(healed ? [{ label: `${name}, healed`, d: healed }] : [])].map(
                ({ label, d }) => [
                  label,
                  format(d.soaksMm, 'rainFine'),
                  format(d.standsMm, 'rainFine'),
                  format(d.runsMm, 'rainFine'),
                  format(d.rainMm, 'rainFine'),
                ],
              ),
            )}
          />
          <Muted>
            “Stands” is what leaves and small hollows hold; it soaks or dries away later. To see ground healed, give it a plan under Ground,
            Healing it.
          </Muted>
        </>
      )}
    </>
  );
}
