import type { RainRecord } from '../rain/index.ts';
import { fail } from './problem.ts';

// Layout, little endian: magic, version, steps, wet steps, numbers of gaps (uint32), spare, then start and step (float64), then
// wet steps (uint32), their rain (float32) and gaps (uint32).
const MAGIC = 0x524c544f; // "OTLR"
const VERSION = 1;
const HEADER_BYTES = 40;

/** A gauge's record as the bytes of an asset. */
export function recordToBytes(record: RainRecord): Uint8Array {
  const { wet, mm, missing } = record;
  const bytes = new Uint8Array(HEADER_BYTES + 4 * (wet.length + mm.length + missing.length));
  const view = new DataView(bytes.buffer);
  [MAGIC, VERSION, record.steps, wet.length, missing.length].forEach((v, i) => view.setUint32(4 * i, v, true));
  view.setFloat64(24, record.startMin, true);
  view.setFloat64(32, record.stepMin, true);
  new Uint32Array(bytes.buffer, HEADER_BYTES, wet.length).set(wet);
  new Float32Array(bytes.buffer, HEADER_BYTES + 4 * wet.length, mm.length).set(mm);
  new Uint32Array(bytes.buffer, HEADER_BYTES + 8 * wet.length, missing.length).set(missing);
  return bytes;
}

/** Whether an asset's bytes are a gauge's record rather than a terrain. */
export const isRecord = (bytes: Uint8Array): boolean =>
  bytes.byteLength >= HEADER_BYTES && new DataView(bytes.buffer, bytes.byteOffset, 4).getUint32(0, true) === MAGIC;

const rises = (list: Uint32Array, end: number): boolean => list.every((v, i) => v <= end && (i === 0 || v > list[i - 1]));

/** The record of an asset's bytes. @throws UserError when they are not one, or damaged. */
export function recordFromBytes(bytes: Uint8Array, name = 'gauge asset'): RainRecord {
  const bad = (what: string): never =>
    fail('asset.damaged', `${name}: ${what}`, {
      where: { file: name },
      do: 'Open an earlier copy of the project, or import the gauge again.',
    });
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.byteLength < HEADER_BYTES || view.getUint32(0, true) !== MAGIC) bad('this is not a gauge asset');
  if (view.getUint32(4, true) !== VERSION) bad(`gauge asset version ${view.getUint32(4, true)} is newer than this app knows`);
  const [steps, wetCount, gaps] = [8, 12, 16].map((at) => view.getUint32(at, true));
  if (bytes.byteLength !== HEADER_BYTES + 4 * (2 * wetCount + gaps) || gaps % 2 !== 0) bad('it is cut short or damaged');
  const body = bytes.slice(HEADER_BYTES).buffer;
  const record = {
    startMin: view.getFloat64(24, true),
    stepMin: view.getFloat64(32, true),
    steps,
    wet: new Uint32Array(body, 0, wetCount),
    mm: new Float32Array(body, 4 * wetCount, wetCount),
    missing: new Uint32Array(body, 8 * wetCount, gaps),
  };
  const isSound =
    Number.isFinite(record.startMin) &&
    record.stepMin > 0 &&
    record.stepMin <= 1440 &&
    wetCount > 0 &&
    rises(record.wet, steps - 1) &&
    rises(record.missing, steps) &&
    record.mm.every((v) => v > 0 && Number.isFinite(v));
  return isSound ? record : bad('its steps or depths are not sound');
}
