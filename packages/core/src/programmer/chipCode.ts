/** What the identification code of a serial flash says: maker (JEP106) and, by the usual rule, its size. */

/** By bank and number, as JEDEC's JEP106 gives them out, of makers whose flash memories are met in TVs (values from memory, four against flashrom). */
const makers: readonly (readonly [bank: number, number: number, name: string])[] = [
  [1, 0x01, 'Spansion'],
  [1, 0x04, 'Fujitsu'],
  [1, 0x0b, 'XTX'],
  [1, 0x1c, 'Eon'],
  [1, 0x1f, 'Atmel'],
  [1, 0x20, 'Micron'],
  [1, 0x2c, 'Micron'],
  [1, 0x5e, 'Zbit'],
  [1, 0x68, 'Boya'],
  [1, 0x85, 'Puya'],
  [1, 0x89, 'Intel'],
  [1, 0x8c, 'ESMT'],
  [1, 0x98, 'Toshiba'],
  [1, 0x9d, 'ISSI'],
  [1, 0xa1, 'Fudan'],
  [1, 0xad, 'Hynix'],
  [1, 0xbf, 'SST'],
  [1, 0xc2, 'Macronix'],
  [1, 0xc8, 'GigaDevice'],
  [1, 0xce, 'Samsung'],
  [1, 0xef, 'Winbond'],
  [1, 0xf8, 'Fidelix'],
  [2, 0x37, 'AMIC'],
  [2, 0x9d, 'ISSI'],
];
/** A byte that says: the number is of the next bank. */
const continuation = 0x7f;
/** The last byte is a power of two in bytes, where it is one of these: 64 KiB to 256 MiB. */
const sizes = { least: 0x10, most: 0x1c } as const;

/** What a code says; `damaged`: no maker has such a number, so a bit went wrong on the way. */
export interface ChipCode {
  /** False: nothing answered. */
  readonly contact: boolean;
  readonly maker?: string;
  readonly damaged?: true;
  readonly bytes?: number;
}

/** `code`: hexadecimal digits, two a byte, as read. Throws RangeError on anything else. */
export function readChipCode(code: string): ChipCode {
  if (!/^(?:[0-9a-f]{2})+$/i.test(code)) throw new RangeError(code);
  const bytes = (code.match(/../g) ?? []).map((byte) => Number.parseInt(byte, 16));
  if (bytes.every((byte) => byte === 0xff) || bytes.every((byte) => byte === 0)) return { contact: false };
  const banks = bytes.findIndex((byte) => byte !== continuation);
  const number = bytes[banks] ?? 0;
  const rest = bytes.slice(banks + 1);
  const ones = number.toString(2).replaceAll('0', '').length;
  const maker = makers.find(([bank, one]) => bank === banks + 1 && one === number)?.[2];
  const last = rest.length >= 2 ? rest.at(-1) : undefined;
  const size = last !== undefined && last >= sizes.least && last <= sizes.most ? 2 ** last : undefined;
  return {
    contact: true,
    ...(maker === undefined ? {} : { maker }),
    // The eighth bit is odd parity.
    ...(ones % 2 === 0 ? { damaged: true as const } : {}),
    ...(size === undefined ? {} : { bytes: size }),
  };
}
