import { type PegFormat, crsOf, writePegs, writeProjectFile } from '#core/formats';
import { UserError, assetsOf, optionOf } from '#core/project';
import { assetBytes, notify, useApp } from './store.ts';

function download(name: string, data: Uint8Array | string, type: string): void {
  const url = URL.createObjectURL(new Blob([data as BlobPart], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // A busy machine may take a while to begin reading it.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

const fileName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'project';

/** The whole project as one file. */
export async function exportProject(): Promise<void> {
  const project = useApp.getState().history?.project;
  if (!project) return;
  const assets = new Map<string, Uint8Array>();
  for (const name of assetsOf(project)) {
    const bytes = await assetBytes(name);
    if (!bytes) {
      const missing = name === project.gauge?.sha256 ? 'gauge’s record' : 'terrain';
      notify({ tone: 'mend', title: `The ${missing} is not in the browser, so the file would be without it`, problems: [] });
      return;
    }
    assets.set(name, bytes);
  }
  download(`${fileName(project.name)}.outlet`, writeProjectFile(project, assets), 'application/zip');
}

/** The pegs as computed, in one of the open formats. */
export async function exportPegs(format: PegFormat): Promise<void> {
  const { history, result } = useApp.getState();
  if (!history || !result) return;
  const { project } = history;
  try {
    const crs = project.site.crs === null ? null : await crsOf(project.site.crs);
    const workNames = new Map(optionOf(project).works.map((w) => [w.id, w.name]));
    download(`${fileName(project.name)}-pegs.${format}`, writePegs(result.derived.pegs, format, { crs, workNames }), 'text/plain');
  } catch (error) {
    if (!(error instanceof UserError)) throw error;
    notify({ tone: 'mend', title: 'The pegs were not exported', problems: error.problems });
  }
}
