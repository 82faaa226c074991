import { gzipSync } from 'node:zlib';
import { expect, test } from '@jest/globals';
import { openImageFile } from './imageFiles.ts';

const bytes = Uint8Array.from({ length: 20_000 }, (_, at) => (at * 7) & 255);
const hexText = ':0100000041BE\n:0100040042B9\n:00000001FF\n';
const blobOf = (data: Uint8Array | string): Blob => new Blob([typeof data === 'string' ? data : new Uint8Array(data)]);
const open = async (data: Uint8Array | string, most?: number) => {
  const opened = await openImageFile(blobOf(data), most);
  return 'reason' in opened ? opened : { ...opened, bytes: Buffer.from(await opened.bytes.arrayBuffer()).toString('hex') };
};
const hex = Buffer.from(bytes).toString('hex');

test('bytes as they are, and packed', async () => {
  expect(await open(bytes)).toEqual({ bytes: hex, format: 'raw', packed: false, gaps: [] });
  expect(await open(gzipSync(bytes))).toEqual({ bytes: hex, format: 'raw', packed: true, gaps: [] });
});
test('hexadecimal text, and packed', async () => {
  const wanted = { bytes: '41ffffff42', format: 'intel-hex', gaps: [[1, 4]] };
  expect(await open(hexText)).toEqual({ ...wanted, packed: false });
  expect(await open(gzipSync(hexText))).toEqual({ ...wanted, packed: true });
});
test('a text of more than is looked at first is read whole', async () => {
  const line = (at: number): string => {
    const body = [1, at >> 8, at & 255, 0, 7];
    return `:${[...body, -body.reduce((a, b) => a + b, 0) & 255].map((one) => one.toString(16).padStart(2, '0')).join('')}\n`;
  };
  const text = `${Array.from({ length: 1000 }, (_, at) => line(at)).join('')}:00000001FF\n`;
  expect(await open(text)).toMatchObject({ format: 'intel-hex', bytes: '07'.repeat(1000), gaps: [] });
});
test.each([
  ['a wrong checksum', hexText.replace('B9', 'B8'), { line: 2, reason: 'checksum' }],
  ['cut off while it was packed', gzipSync(bytes).subarray(0, 60), { reason: 'damaged' }],
  ['two bytes of the packed kind and nothing behind', Uint8Array.of(0x1f, 0x8b), { reason: 'damaged' }],
])('%s is refused', async (_, data, why) => {
  expect(await open(data)).toEqual(why);
});
test('what a few bytes unpack to is limited', async () => {
  const bomb = gzipSync(Buffer.alloc(3_000_000));
  expect(bomb.length).toBeLessThan(10_000);
  expect(await open(bomb, 1_000_000)).toEqual({ reason: 'unpacks-too-far' });
});
