import { strFromU8 } from 'fflate';

/** Text of a file with plain line ends: without its byte order mark, old and other machines' line ends turned into ours. */
export function textOf(bytes: Uint8Array): string {
  const isWide = bytes.length >= 2 && ((bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff));
  const text = isWide ? new TextDecoder(bytes[0] === 0xff ? 'utf-16le' : 'utf-16be').decode(bytes) : strFromU8(bytes);
  return text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
}
