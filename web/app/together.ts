// Files that come together: the parts of one map or grid are packed into one, and ground is taken before what lies on it.
import { PICTURE_ENDINGS, WORLD_ENDINGS } from '#core/project';

const endingOf = (name: string): string => name.toLowerCase().split('.').pop() ?? '';
const baseOf = (name: string): string => name.toLowerCase().replace(/\.[^.]*$/, '');

/** Files that mean something only with their parts, and those parts; pictures, and what lays them. */
const GRIDS: ReadonlySet<string> = new Set(['asc', 'grd', 'tif', 'tiff']);
const PICTURES: ReadonlySet<string> = new Set(PICTURE_ENDINGS);
const WORLDS: ReadonlySet<string> = new Set(WORLD_ENDINGS);
const PARTS: ReadonlySet<string> = new Set(['prj', 'dbf', 'shx', 'cpg', 'sbn', 'sbx', 'qix']);

/** Ground first: what is drawn is laid into its system. */
const turn = ({ name }: File): number =>
  GRIDS.has(endingOf(name)) || /\.la[sz]$/i.test(name) ? 0 : /\.(csv|txt|xyz|zip)$/i.test(name) ? 1 : 2;

/** What lies beside the one it belongs to, of files of one name; null where there is none such. */
function wholeOf(own: readonly File[]): { readonly main: File; readonly parts: readonly File[] } | null {
  const of = (endings: ReadonlySet<string>): File[] => own.filter((f) => endings.has(endingOf(f.name)));
  // A TIFF may have a world file beside it; other grids have a system alone.
  const isTiff = own.some((f) => /^tiff?$/.test(endingOf(f.name)));
  const [map, parts] = [
    own.find((f) => GRIDS.has(endingOf(f.name)) || endingOf(f.name) === 'shp'),
    [...of(PARTS), ...(isTiff ? of(WORLDS) : [])],
  ];
  if (map && parts.length > 0) return { main: map, parts };
  // A picture is laid by its world file; a system alone lays nothing.
  const [[picture], [world]] = [of(PICTURES), of(WORLDS)];
  return picture && world ? { main: picture, parts: [world, ...own.filter((f) => endingOf(f.name) === 'prj')] } : null;
}

/** The files as they are to be brought in, one after the other. */
export async function together(files: readonly File[]): Promise<File[]> {
  const by = new Map<string, File[]>();
  for (const file of files) {
    const base = baseOf(file.name);
    by.set(base, [...(by.get(base) ?? []), file]);
  }
  const whole: File[] = [];
  for (const [, own] of by) {
    const found = wholeOf(own);
    if (!found) {
      whole.push(...own);
      continue;
    }
    const { main, parts } = found;
    whole.push(await packed(main, parts), ...own.filter((f) => f !== main && !parts.includes(f)));
  }
  return whole.sort((a, b) => turn(a) - turn(b));
}

async function packed(main: File, parts: readonly File[]): Promise<File> {
  const { zipSync } = await import('fflate');
  const bytes = async (file: File): Promise<Uint8Array> => new Uint8Array(await file.arrayBuffer());
  const base = main.name.replace(/\.[^.]*$/, '');
  const entries: Record<string, Uint8Array> = {};
  for (const file of [main, ...parts]) entries[`${base}.${endingOf(file.name)}`] = await bytes(file);
  // It is unpacked again at once: only to be one file.
  return new File([zipSync(entries, { level: 0 }).slice()], `${base}.zip`);
}
