// A map of many places brought in from a file.
import { importFile } from '#core/formats';

const [LINES, CORNERS] = [100, 2000];

/** A map of a hundred contours of two thousand corners each, written as KML. */
function mapOfContours(): Uint8Array {
  const corner = (line: number, k: number): string =>
    `${(15 + 0.01 * Math.cos(k / 300) + line * 1e-4).toFixed(8)},${(48 + 0.01 * Math.sin(k / 300)).toFixed(8)},${200 + line}`;
  const lines = Array.from({ length: LINES }, (_, line) => {
    const places = Array.from({ length: CORNERS }, (_c, k) => corner(line, k)).join(' ');
    return `<Placemark><name>Contour ${line}</name><LineString><coordinates>${places}</coordinates></LineString></Placemark>`;
  });
  return new TextEncoder().encode(
    `<?xml version="1.0"?><kml xmlns="http://www.opengis.net/kml/2.2"><Document>${lines.join('')}</Document></kml>`,
  );
}

/** Reading it as shapes laid flat in metres: the median of five [ms]. */
export async function mapOf200kPlaces(): Promise<number> {
  const bytes = mapOfContours();
  const times: number[] = [];
  for (let k = 0; k < 5; k++) {
    const start = performance.now();
    await importFile({ name: 'contours.kml', bytes });
    times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[2];
}
