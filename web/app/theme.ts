import { createGlobalStyle } from 'styled-components';
import '@fontsource-variable/bricolage-grotesque/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';

/** Colours by their part in the drawing. Clay, moss and straw are fills; their `Text` siblings have 4.5:1 on paper. */
export interface Palette {
  readonly paper: string;
  readonly paperDeep: string;
  readonly ink: string;
  readonly muted: string;
  readonly line: string;
  readonly water: string;
  readonly deepWater: string;
  readonly onDeep: string;
  readonly clay: string;
  readonly clayText: string;
  readonly moss: string;
  readonly mossText: string;
  readonly straw: string;
  readonly strawText: string;
  readonly alarm: string;
  readonly earth: string;
  /** Hillshade from full light to full shadow. */
  readonly light: readonly [number, number, number];
  readonly shadow: readonly [number, number, number];
}

export type ThemeName = 'paper' | 'dusk' | 'sun';

export const THEMES: Readonly<Record<ThemeName, Palette>> = {
  paper: {
    paper: '#F3EEE2',
    paperDeep: '#E9E1CF',
    ink: '#1D2A26',
    muted: '#545F59',
    line: '#CDC3AD',
    water: '#0F6C7A',
    deepWater: '#0A3F4D',
    onDeep: '#FBF8F0',
    clay: '#B2542C',
    clayText: '#8C3C1A',
    moss: '#66793A',
    mossText: '#4A5A26',
    straw: '#D6A03D',
    strawText: '#79540A',
    alarm: '#A3262A',
    earth: '#D9C6A0',
    light: [252, 248, 238],
    shadow: [150, 126, 88],
  },
  dusk: {
    paper: '#16211F',
    paperDeep: '#1F2D2A',
    ink: '#EEE8DA',
    muted: '#AEB8B0',
    line: '#3A4A45',
    water: '#6CC3CF',
    deepWater: '#9ADCE4',
    onDeep: '#10201F',
    clay: '#D9835A',
    clayText: '#E8A07C',
    moss: '#9DB46A',
    mossText: '#B4CB82',
    straw: '#E3B75E',
    strawText: '#E9C37A',
    alarm: '#FF9A92',
    earth: '#5C5138',
    light: [92, 100, 88],
    shadow: [18, 26, 26],
  },
  sun: {
    paper: '#FFFFFF',
    paperDeep: '#F2F2EC',
    ink: '#000000',
    muted: '#2E3431',
    line: '#7A7A70',
    water: '#00505E',
    deepWater: '#00303C',
    onDeep: '#FFFFFF',
    clay: '#9A3E16',
    clayText: '#7A2C0A',
    moss: '#48601A',
    mossText: '#33470D',
    straw: '#C58A10',
    strawText: '#5C3E00',
    alarm: '#8C0010',
    earth: '#E3D2AC',
    light: [255, 255, 255],
    shadow: [168, 150, 120],
  },
};

export const FONT = {
  heading: "'Bricolage Grotesque Variable', sans-serif",
  text: "'Atkinson Hyperlegible Next Variable', sans-serif",
  figures: "'Atkinson Hyperlegible Mono Variable', monospace",
};

const variables = (p: Palette): string =>
  Object.entries(p)
    .filter(([, v]) => typeof v === 'string')
    .map(([k, v]) => `--${k}: ${String(v)};`)
    .join('\n');

export const GlobalStyle = createGlobalStyle<{ $palette: Palette }>`
  :root { ${({ $palette }) => variables($palette)} color-scheme: ${({ $palette }) => ($palette === THEMES.dusk ? 'dark' : 'light')}; }
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; margin: 0; }
  body { background: var(--paper); color: var(--ink); font: 400 15px/1.4 ${FONT.text}; -webkit-font-smoothing: antialiased; }
  h1, h2, h3 { font-family: ${FONT.heading}; font-weight: 700; line-height: 1.15; margin: 0; }
  p { margin: 0; }
  button, input, select, textarea { font: inherit; color: inherit; }
  a { color: var(--water); }
  :focus-visible { outline: 2px solid var(--water); outline-offset: 2px; }
  .visually-hidden { position: absolute; width: 1px; height: 1px; margin: -1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
  @media (prefers-reduced-motion: reduce) { * { animation: none !important; transition: none !important; } }
`;
