/** JSON with typed arrays as lists and null for what is not a finite number. */
export function toJson(value: unknown): string {
  return `${JSON.stringify(value, (_key, v: unknown) => {
    if (ArrayBuffer.isView(v)) return Array.from(v as unknown as ArrayLike<number>);
    return typeof v === 'number' && !Number.isFinite(v) ? null : v;
  })}\n`;
}
