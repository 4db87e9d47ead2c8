import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { Check, Severity } from '#core/contract';
import { CONDITION_WORDS } from '#core/derive';
import { formatQuantity, spoken } from '#core/units';
import { useApp } from '../app/store.ts';
import { sourceWords } from './source.ts';

const WORDS: Record<Severity, string> = { mend: 'to mend', weigh: 'to weigh', fine: 'fine', unknown: 'not known' };
const COLOUR: Record<Severity, string> = {
  mend: 'var(--alarm)',
  weigh: 'var(--strawText)',
  fine: 'var(--mossText)',
  unknown: 'var(--muted)',
};

/** A severity by shape as well as colour: square, triangle, disc, ring. */
export function SeverityMark({ severity, size = 13 }: { readonly severity: Severity; readonly size?: number }): ReactNode {
  const fill = COLOUR[severity];
  return (
    <svg width={size} height={size} viewBox="0 0 12 12" role="img" aria-label={WORDS[severity]} style={{ flex: 'none' }}>
      {severity === 'mend' && <rect x="0.5" y="0.5" width="11" height="11" fill={fill} />}
      {severity === 'weigh' && <path d="M6 0.5 L11.8 11.2 H0.2 Z" fill={fill} />}
      {severity === 'fine' && <circle cx="6" cy="6" r="5" fill={fill} />}
      {severity === 'unknown' && <circle cx="6" cy="6" r="4.4" fill="none" stroke={fill} strokeWidth="2" />}
    </svg>
  );
}

const Item = styled.details`
  border-bottom: 1px solid var(--line);
  summary {
    display: flex;
    gap: 10px;
    align-items: baseline;
    padding: 8px 0;
    cursor: pointer;
    list-style: none;
  }
  summary::-webkit-details-marker {
    display: none;
  }
  summary svg {
    transform: translateY(1px);
  }
`;
const Body = styled.div`
  padding: 0 0 12px 23px;
  font-size: 14px;
  display: grid;
  gap: 6px;
`;
const Small = styled.span`
  color: var(--muted);
  display: block;
  font-weight: 400;
  font-size: 14px;
`;

/** How things must be found for it to be so. */
const When = styled.span`
  display: inline-block;
  border: 1px solid var(--deepWater);
  border-radius: 9px;
  color: var(--deepWater);
  font-size: 12.5px;
  font-weight: 600;
  margin-top: 3px;
  padding: 0 8px;
`;

interface Shown {
  readonly check: Check;
  readonly subject?: string;
  /** Whether what is to be done is said of the next as well, and left to it. */
  readonly isSaidBelow?: boolean;
}

/** One check: its value against its limit, and on opening why, the source and what to do. */
export function CheckItem({ check, subject, isSaidBelow = false }: Shown): ReactNode {
  const system = useApp((s) => s.system);
  const value = formatQuantity(check.value, check.kind, system);
  const isCounted = check.unit !== '' || check.kind !== 'number';
  const against =
    check.limit === null
      ? ''
      : ` against ${check.sense === 'min' ? 'at least' : 'at most'} ${formatQuantity(check.limit, check.kind, system)}`;
  return (
    <Item>
      <summary>
        <SeverityMark severity={check.severity} />
        <span style={{ fontWeight: check.severity === 'fine' ? 400 : 700 }}>
          {subject === undefined ? '' : `${subject}: `}
          {spoken(check.said.title, system)}
          {isCounted && check.value !== null && <Small>{`${value}${against}`}</Small>}
          {isCounted && check.value === null && check.severity === 'unknown' && <Small>Not known yet</Small>}
          {check.condition !== undefined && check.severity !== 'fine' && <When>{CONDITION_WORDS[check.condition]}</When>}
          {check.severity !== 'fine' && !isSaidBelow && <Small style={{ color: 'var(--ink)' }}>{spoken(check.said.do, system)}</Small>}
        </span>
      </summary>
      <Body>
        <p>{check.why}</p>
        {check.severity === 'fine' && <p>{spoken(check.said.do, system)}</p>}
        <Small>Source: {sourceWords(check.source)}</Small>
      </Body>
    </Item>
  );
}
