import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import MemoryMap from 'nrf-intel-hex';
import reference from './fixture-formats.json' with { type: 'json' };
import { formatCases } from './formatCases.ts';
import { readImageFile } from './formats.ts';

const hex = (bytes: Uint8Array): string => Buffer.from(bytes).toString('hex');
const read = (text: string) => readImageFile(new Uint8Array(Buffer.from(text, 'latin1')));

describe('image files', () => {
  test.each(formatCases)('$name', ({ text, bytes, format, from, gaps, refused }) => {
    const file = read(text);
    if ('reason' in file) expect([file.line, file.reason]).toEqual(refused);
    else {
      expect([hex(file.bytes), file.format, file.from]).toEqual([bytes, format, from]);
      if (gaps) expect(file.gaps).toEqual(gaps);
    }
  });

  test.each(reference.files)('made by srec_cat: $name', ({ text }) => {
    const file = read(text);
    if ('reason' in file) throw new Error(`${file.line} ${file.reason}`);
    const wanted = `${reference.bytes.slice(0, 64)}${'ff'.repeat(32)}${reference.bytes.slice(64)}`;
    expect([hex(file.bytes), file.from, file.gaps]).toEqual([wanted, 0, [reference.gap]]);
  });

  test('no digit of a record may change unnoticed', () => {
    for (const { text } of reference.files) {
      const good = read(text);
      if ('reason' in good) throw new Error('unreadable');
      const at = [...text].flatMap((sign, index) => (/[0-9A-F]/.test(sign) ? [index] : []));
      for (const index of at) {
        const sign = text[index] === '0' ? '1' : '0';
        const changed = read(text.slice(0, index) + sign + text.slice(index + 1));
        const same = !('reason' in changed) && (hex(changed.bytes) !== hex(good.bytes) || changed.from !== good.from);
        expect([index, same]).toEqual([index, false]);
      }
    }
  });

  test('whatever comes in, it is read or refused, and bytes that are no text come back as they are', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.uint8Array({ maxLength: 200 }),
          fc.stringMatching(/^(:|S[0-9])[0-9A-F\n:S]{0,80}$/).map((text) => new Uint8Array(Buffer.from(text))),
        ),
        (bytes) => {
          const file = readImageFile(bytes);
          if (!('reason' in file) && file.format === 'raw') expect(hex(file.bytes)).toBe(hex(bytes));
        },
      ),
      { seed: 15 },
    );
  });

  test('Intel HEX written by the library is read as what went in', () => {
    const blocks = fc.dictionary(fc.constantFrom('0', '64', '70000', '1048576'), fc.uint8Array({ minLength: 1, maxLength: 60 }), {
      minKeys: 1,
    });
    fc.assert(
      fc.property(blocks, (parts) => {
        const map = new MemoryMap(Object.entries(parts).map(([at, bytes]): [number, Uint8Array] => [Number(at), bytes]));
        const file = read(map.asHexString());
        if ('reason' in file) throw new Error(file.reason);
        for (const [at, bytes] of map) expect(hex(file.bytes.subarray(at - file.from, at - file.from + bytes.length))).toBe(hex(bytes));
      }),
      { seed: 15, numRuns: 60 },
    );
  });
});
