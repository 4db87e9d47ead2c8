// Marks of which one thing has several: each says whose it is.
const OF = '#';

export const markId = (owner: string, mark: string): string => `${owner}${OF}${mark}`;

/** Whose mark it is: itself where it is the only one. */
export const ownerOf = (id: string): string => id.split(OF)[0];
