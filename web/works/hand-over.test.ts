import { describe, expect, it } from '@jest/globals';
import { amount, say } from '#core/units';
import { sheetText } from './shared/HandOverPart.tsx';

describe('a sheet on paper', () => {
  it('is plain text in the reader’s units, its lines no longer than paper is wide, every word kept', () => {
    const long = `${'word '.repeat(40)}end`;
    const parts = [{ title: 'What it is', says: [say`It holds ${amount(1, 'liquid')}.`, long] }];
    const text = sheetText('Barn cistern', parts, 'metric');
    expect(text).toMatch(/^Barn cistern\n={12}\n\nWHAT IT IS\n- It holds 1.?000\sL\.\n- word/);
    for (const line of text.split('\n')) expect(line.length).toBeLessThanOrEqual(78);
    expect(text.split(/\s+/).filter((w) => w === 'word')).toHaveLength(40);
    expect(sheetText('Barn cistern', parts, 'us')).toMatch(/264\sgal/);
  });
});
