import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** JSON with sorted keys: the same text for documents that hold the same things. */
export function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map((v) => canonicalJson(v === undefined ? null : v)).join(',')}]`;
  if (typeof value === 'object' && value !== null) {
    const entries = Object.entries(value).filter(([, v]) => v !== undefined);
    entries.sort(([a], [b]) => (a < b ? -1 : 1));
    return `{${entries.map(([k, v]) => `${JSON.stringify(k)}:${canonicalJson(v)}`).join(',')}}`;
  }
  return JSON.stringify(value);
}

/** Fingerprint of a document: equal when nothing the user made differs. */
export function documentHash(value: unknown): string {
  return hashOf(utf8ToBytes(canonicalJson(value)));
}

/** sha256 of bytes, in hex. */
export function hashOf(bytes: Uint8Array): string {
  return bytesToHex(sha256(bytes));
}
