// Names as they may stand in files of others.

/** Text that a spreadsheet would run as a formula is marked as text: a name may begin with anything. */
export const harmless = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

/** Control characters and halves of pairs cannot stand in XML at all, not even escaped. */
export const escapeXml = (text: string): string =>
  text.replace(/(?![\t\n\r])[\p{Cc}\p{Cs}\ufffe\uffff]/gu, '').replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
