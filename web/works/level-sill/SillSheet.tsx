import { Ruler } from 'lucide-react';
import type { ReactNode } from 'react';
import { asSill, checksOf, endName, figureOf, useDerived, useFormat, useView, useWorks } from '../../app/selectors.ts';
import { dispatch, select } from '../../app/store.ts';
import { Button, CheckItem, Fact, Inline, Muted, Part, Quantity } from '../../kit/index.ts';
import { LeadsTo } from '../shared/LeadsTo.tsx';
import { WorkHead } from '../WorkHead.tsx';
import { Working } from '../Working.tsx';
import { change } from '../levels.ts';

/** Everything about one level sill. */
export function SillSheet({ id }: { readonly id: string }): ReactNode {
  const works = useWorks();
  const sill = asSill(works.find((w) => w.id === id));
  const derived = useDerived();
  const figures = useView()?.figures[id] ?? [];
  const format = useFormat();
  if (!sill) return null;
  const host = works.find((w) => w.id === sill.host);
  const link = derived?.links.find((l) => l.outlet === id);
  const needed = figureOf(figures, 'neededLengthM');
  const fit = needed === null ? null : Math.ceil(needed * 10) / 10;
  const to = endName(works, link?.to);
  const asFound = sill.asFound;
  return (
    <>
      <WorkHead work={sill} />
      <Muted>
        Level sill of{' '}
        <Button look="quiet" onPress={() => select(sill.host)}>
          {host?.name ?? 'its swale'}
        </Button>
      </Muted>
      {link && (
        <p>
          Its water runs {format(link.lengthM, 'length')} to {to}
          {link.volumeM3 === null
            ? ''
            : link.volumeM3 > 0
              ? `: ${format(link.volumeM3, 'volume')}, at most ${format(link.peakM3s, 'flow')}, in this storm`
              : '; none in this storm'}
          .
        </p>
      )}
      <LeadsTo id={id} />
      <Part title="Shape">
        <Quantity label="Sill level" value={sill.levels.sillM} kind="level" onChange={(v) => dispatch(change(id, { 'levels.sillM': v }))} />
        <Quantity
          label="Sill length"
          value={sill.dimensions.lengthM}
          kind="length"
          min={0.3}
          onChange={(v) => dispatch(change(id, { 'dimensions.lengthM': v }))}
        />
        <Quantity
          label="Level width along the flow"
          value={sill.dimensions.crestWidthM}
          kind="length"
          min={0.2}
          onChange={(v) => dispatch(change(id, { 'dimensions.crestWidthM': v }))}
        />
        <Quantity
          label={host?.kind === 'swale' || !host ? 'Place along the swale' : `Place along ${host.name}`}
          value={sill.atM}
          kind="length"
          min={0}
          onChange={(v) => dispatch(change(id, { atM: v }))}
        />
        {fit !== null && fit !== sill.dimensions.lengthM && (
          <Inline>
            <Button look="strong" onPress={() => dispatch(change(id, { 'dimensions.lengthM': fit }))}>
              <Ruler size={16} aria-hidden />
              Set to the {format(fit, 'length')} it needs
            </Button>
          </Inline>
        )}
      </Part>
      <Part title="At its peak">
        {figures.map((f) => (
          <Fact key={f.id} label={f.label} value={format(f.value, f.kind)} />
        ))}
      </Part>
      <Part title="As found">
        {asFound ? (
          <>
            <Quantity
              label="Lowest level along the crest"
              value={asFound.lowM}
              kind="level"
              onChange={(lowM) => dispatch(change(id, { asFound: { ...asFound, lowM } }))}
            />
            <Quantity
              label="Highest level along the crest"
              value={asFound.highM}
              kind="level"
              onChange={(highM) => dispatch(change(id, { asFound: { ...asFound, highM } }))}
            />
          </>
        ) : (
          <Button look="quiet" onPress={() => dispatch(change(id, { asFound: { lowM: sill.levels.sillM, highM: sill.levels.sillM } }))}>
            Note what the level read along the crest
          </Button>
        )}
      </Part>
      <Part title="Checks">
        {checksOf(derived, [id]).map((c, i) => (
          <CheckItem key={`${c.id}${i}`} check={c} />
        ))}
      </Part>
      <Part title="Working">
        <Working ids={[id]} />
      </Part>
    </>
  );
}
