import { ChevronDown } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Button as AriaButton, Disclosure, DisclosurePanel } from 'react-aria-components';
import styled from 'styled-components';
import { FONT } from '../app/theme.ts';
import { useFold } from './folds.ts';

export const SheetTitle = styled.h2`
  font-size: 21px;
`;
export const SubTitle = styled.p`
  color: var(--muted);
  margin-top: 2px;
`;
const Heading = styled.h3`
  font: 700 12.5px/1.2 ${FONT.text};
  color: var(--muted);
  margin: 20px 0 4px;
`;
export const Row = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 34px;
  border-bottom: 1px solid var(--line);
`;
export const Figures = styled.span`
  font-family: ${FONT.figures};
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
`;
export const Muted = styled.p`
  color: var(--muted);
  font-size: 14px;
`;
export const Inline = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 10px 0;
`;

const Top = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: end;
`;
const FoldButton = styled(AriaButton)`
  display: flex;
  align-items: center;
  gap: 4px;
  border: 0;
  background: transparent;
  color: inherit;
  font: inherit;
  padding: 2px 4px 2px 0;
  cursor: pointer;
  svg {
    transition: transform 120ms;
  }
  &[aria-expanded='false'] svg {
    transform: rotate(-90deg);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--water);
    outline-offset: 2px;
  }
  @media (prefers-reduced-motion: reduce) {
    svg {
      transition: none;
    }
  }
`;

interface PartProps {
  readonly title: string;
  readonly children: ReactNode;
  readonly action?: ReactNode;
}

/** A titled part of a sheet. */
export function Part({ title, children, action }: PartProps): ReactNode {
  return (
    <section aria-label={title}>
      <Top>
        <Heading>{title}</Heading>
        {action}
      </Top>
      {children}
    </section>
  );
}

interface FoldProps extends PartProps {
  /** What it comes to, read without unfolding it. */
  readonly sum?: string;
  /** To be looked up rather than read: folded until it is asked for. */
  readonly isLookedUp?: true;
}

const Sum = styled.span`
  font-weight: 400;
  margin-left: 4px;
`;

/** A part of a sheet that folds, and stays as it was left. What was never open is not made; what was keeps what is typed in it. */
export function FoldPart({ title, children, action, sum, isLookedUp }: FoldProps): ReactNode {
  const [isOpen, setOpen] = useFold(title, isLookedUp !== true);
  const [isMade, setMade] = useState(false);
  const turn = (open: boolean): void => {
    setMade(true);
    setOpen(open);
  };
  return (
    <section aria-label={title}>
      <Disclosure isExpanded={isOpen} onExpandedChange={turn}>
        <Top>
          <Heading>
            <FoldButton slot="trigger">
              <ChevronDown size={13} aria-hidden />
              {title}
              {sum !== undefined && <Sum>{sum}</Sum>}
            </FoldButton>
          </Heading>
          {isOpen && action}
        </Top>
        <DisclosurePanel>{(isOpen || isMade) && children}</DisclosurePanel>
      </Disclosure>
    </section>
  );
}

/** What stays in sight while the numbers under it are changed, where there is room. */
export const InSight = styled.div`
  @media (min-width: 900px) {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--paper);
    border-bottom: 1px solid var(--line);
    padding-bottom: 4px;
  }
`;

/** A result: words left, figure right. */
export function Fact({ label, value }: { readonly label: string; readonly value: string }): ReactNode {
  return (
    <Row>
      <span>{label}</span>
      <Figures>{value}</Figures>
    </Row>
  );
}
