import type { Citation } from '#core/formula';

const TITLES: Readonly<Record<string, string>> = {
  tr55: 'USDA-SCS, Urban Hydrology for Small Watersheds (TR-55), 1986',
  'neh630-15': 'NRCS National Engineering Handbook, part 630 ch. 15',
  'neh630-16': 'NRCS National Engineering Handbook, part 630 ch. 16',
  hec22: 'FHWA HEC-22, Urban Drainage Design Manual',
  chow1959: 'Chow, Open-Channel Hydraulics, 1959',
  ah667: 'Temple et al., USDA Agriculture Handbook 667, 1987',
  geometry: 'plane geometry',
  'common-practice': 'common practice',
};

/** A source in words; says when its locator was written from memory. */
export function sourceWords({ key, locator, fromMemory }: Citation): string {
  const words = [TITLES[key] ?? key, locator].filter(Boolean).join(', ');
  return fromMemory === true ? `${words} (place in the source from memory)` : words;
}
