// Names as they may stand in files of others.

/** Text that a spreadsheet would run as a formula is marked as text: a name may begin with anything. */
export const harmless = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

/** A GPX file of points and tracks that are written already. */
export const gpxFile = (parts: readonly string[]): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="Outlet" xmlns="http://www.topografix.com/GPX/1/1">\n${parts.join('\n')}\n</gpx>\n`;

/** Control characters and halves of pairs cannot stand in XML at all, not even escaped. */
export const escapeXml = (text: string): string =>
  text.replace(/(?![\t\n\r])[\p{Cc}\p{Cs}\ufffe\uffff]/gu, '').replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
