import { X } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import styled from 'styled-components';
import { setLand, useLand } from '../app/land.ts';
import { useAppPick } from '../app/store.ts';
import { THEMES } from '../app/theme.ts';
import { Button } from '../kit/index.ts';
import { OVERLAYS } from './overlay.ts';

const Box = styled.section`
  position: absolute;
  left: 12px;
  bottom: 44px;
  max-width: min(290px, calc(100% - 24px));
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 8px 12px 10px;
  font-size: 13px;
  header {
    display: flex;
    justify-content: space-between;
    align-items: center;
    font-weight: 700;
  }
  p {
    color: var(--muted);
    margin-bottom: 6px;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: 3px;
  }
  li {
    display: grid;
    grid-template-columns: 22px auto;
    gap: 8px;
    align-items: baseline;
  }
  i {
    width: 22px;
    height: 12px;
    border: 1px solid var(--line);
    align-self: center;
  }
  small {
    display: block;
    color: var(--muted);
    font-size: 12.5px;
    line-height: 1.25;
  }
`;

/** What the colours of the layer mean. */
export function Legend(): ReactNode {
  const overlay = useLand((s) => s.overlay);
  const { theme, system, tool } = useAppPick('theme', 'system', 'tool');
  const [isOpen, setOpen] = useState(false);
  // While something is drawn the plan is needed.
  if (overlay === 'none' || tool !== null) return null;
  const { title, says, legend } = OVERLAYS[overlay].style(THEMES[theme], system);
  return (
    <Box aria-label={`Legend: ${title}`}>
      <header>
        {title}
        <Button look="quiet" aria-label="Hide this layer" onPress={() => setLand({ overlay: 'none' })}>
          <X size={15} aria-hidden />
        </Button>
      </header>
      <p>{says}</p>
      <ul>
        {legend.map((line) => (
          <li key={line.label}>
            <i style={{ background: line.colour }} aria-hidden />
            <span>
              {line.label}
              {isOpen && line.says !== undefined && <small>{line.says}</small>}
            </span>
          </li>
        ))}
      </ul>
      {legend.some((line) => line.says !== undefined) && (
        <Button look="quiet" aria-expanded={isOpen} onPress={() => setOpen(!isOpen)}>
          {isOpen ? 'Less' : 'What each allows'}
        </Button>
      )}
    </Box>
  );
}
