import { create } from 'zustand';

/** Whether a file is a whole project, by its name. */
export const isProject = (name: string): boolean => /\.(outlet|json)$/i.test(name);

/** Files dropped where no project is open, to begin one from; and the system the user gave for files that say none. */
export const useDropped = create<{ readonly files: readonly File[]; readonly crs: string | null }>(() => ({ files: [], crs: null }));
