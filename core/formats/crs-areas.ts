// Loaded on demand, when a system is looked for by words.
import areas from './crs-areas.json';

export const CRS_AREAS = areas as unknown as Readonly<Record<string, string>>;
