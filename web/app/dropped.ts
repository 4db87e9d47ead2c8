import { create } from 'zustand';

/** Files dropped where no project is open, to begin one from; and the system the user gave for files that say none. */
export const useDropped = create<{ readonly files: readonly File[]; readonly crs: string | null }>(() => ({ files: [], crs: null }));
