import { create } from 'zustand';

/** A file dropped where no project is open, to begin one from. */
export const useDropped = create<{ readonly file: File | null }>(() => ({ file: null }));
