// Files that come together: the parts of one map or grid are packed into one, and ground is taken before what lies on it.
const endingOf = (name: string): string => name.toLowerCase().split('.').pop() ?? '';
const baseOf = (name: string): string => name.toLowerCase().replace(/\.[^.]*$/, '');

/** Files that mean something only with their parts, and those parts. */
const GRIDS: ReadonlySet<string> = new Set(['asc', 'grd', 'tif', 'tiff']);
const MAIN: ReadonlySet<string> = new Set([...GRIDS, 'shp']);
const PARTS: ReadonlySet<string> = new Set(['prj', 'dbf', 'shx', 'cpg', 'sbn', 'sbx', 'qix']);

/** Ground first: what is drawn is laid into its system. */
const turn = ({ name }: File): number => (GRIDS.has(endingOf(name)) ? 0 : /\.(csv|txt|xyz|zip)$/i.test(name) ? 1 : 2);

/** The files as they are to be brought in, one after the other. */
export async function together(files: readonly File[]): Promise<File[]> {
  const by = new Map<string, File[]>();
  for (const file of files) {
    const base = baseOf(file.name);
    by.set(base, [...(by.get(base) ?? []), file]);
  }
  const whole: File[] = [];
  for (const [, own] of by) {
    const [main] = own.filter((f) => MAIN.has(endingOf(f.name)));
    const parts = own.filter((f) => PARTS.has(endingOf(f.name)));
    if (!main || parts.length === 0) {
      whole.push(...own);
      continue;
    }
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
