/**
 * What a bench expects of image files: written before the readers. Record layouts: Intel "Hexadecimal Object File Format Specification" rev. A (1988) and the
 * S-record page of Motorola's M68000 family manual (values from memory); the files in fixture-formats.json were made by srec_cat.
 */
export interface FormatCase {
  readonly name: string;
  readonly text: string;
  /** Bytes in hexadecimal from the lowest address; gaps read FF. */
  readonly bytes?: string;
  readonly format?: 'intel-hex' | 's-record' | 'raw';
  /** Where the first byte belongs. */
  readonly from?: number;
  readonly gaps?: readonly (readonly [from: number, to: number])[];
  /** Refused: at which line, and why. */
  readonly refused?: readonly [line: number, reason: string];
}

export const formatCases: readonly FormatCase[] = [
  { name: 'Intel HEX, one record', text: ':0300300002337A1E\n:00000001FF\n', format: 'intel-hex', bytes: '02337a', from: 0x30, gaps: [] },
  {
    name: 'Intel HEX with a gap',
    text: ':0100000041BE\n:0100040042B9\n:00000001FF\n',
    format: 'intel-hex',
    bytes: '41ffffff42',
    from: 0,
    gaps: [[1, 4]],
  },
  {
    name: 'Intel HEX above 2 GiB',
    text: ':020000048000 7A\n:0100000041BE\n:00000001FF\n'.replace(' ', ''),
    format: 'intel-hex',
    bytes: '41',
    from: 0x80000000,
    gaps: [],
  },
  { name: 'Intel HEX, a wrong checksum', text: ':0100000041BE\n:0100040042B8\n:00000001FF\n', refused: [2, 'checksum'] },
  { name: 'Intel HEX, a record too short', text: ':0200000041BE\n:00000001FF\n', refused: [1, 'length'] },
  { name: 'Intel HEX without its end: the file was cut off', text: ':0100000041BE\n', refused: [1, 'no-end'] },
  { name: 'Intel HEX, two records for one place', text: ':0100000041BE\n:0100000042BD\n:00000001FF\n', refused: [2, 'overlap'] },
  { name: 'Intel HEX, something between the records', text: ':0100000041BE\nhello\n:00000001FF\n', refused: [2, 'unreadable'] },
  { name: 'S-record, 16-bit addresses', text: 'S1040010AB40\nS9030000FC\n', format: 's-record', bytes: 'ab', from: 0x10, gaps: [] },
  { name: 'S-record, 24-bit addresses', text: 'S205010000AB4E\nS804000000FB\n', format: 's-record', bytes: 'ab', from: 0x10000, gaps: [] },
  {
    name: 'S-record, 32-bit addresses, a header and a count',
    text: 'S0030000FC\nS30680000000AACF\nS5030001FB\nS70500000000FA\n',
    format: 's-record',
    bytes: 'aa',
    from: 0x80000000,
    gaps: [],
  },
  {
    name: 'S-record, Windows line ends and small letters',
    text: 's1040010ab40\r\ns9030000fc\r\n',
    format: 's-record',
    bytes: 'ab',
    from: 0x10,
  },
  { name: 'S-record, a wrong checksum', text: 'S1040010AB41\nS9030000FC\n', refused: [1, 'checksum'] },
  { name: 'S-record, a wrong length', text: 'S1050010AB40\nS9030000FC\n', refused: [1, 'length'] },
  { name: 'S-record, a count that is not right: a line is missing', text: 'S1040010AB40\nS5030002FA\nS9030000FC\n', refused: [2, 'count'] },
  { name: 'S-record without its end', text: 'S1040010AB40\n', refused: [1, 'no-end'] },
  {
    name: 'S-record that ends with its count: nothing is missing',
    text: 'S1040010AB40\nS5030001FB\n',
    format: 's-record',
    bytes: 'ab',
    from: 0x10,
  },
  { name: 'S-record after its end', text: 'S1040010AB40\nS9030000FC\nS1040011AB3F\n', refused: [3, 'after-end'] },
  { name: 'S-record, two for one place', text: 'S1040010AB40\nS1040010AC3F\nS9030000FC\n', refused: [2, 'overlap'] },
  { name: 'S-record of no known type', text: 'S4040010AB40\nS9030000FC\n', refused: [1, 'type'] },
  {
    name: 'records a gigabyte apart: more than a file of this kind holds',
    text: 'S30600000000AA4F\nS30640000000AA0F\nS70500000000FA\n',
    refused: [2, 'too-large'],
  },
  { name: 'anything else is bytes', text: 'hello: S1\n', format: 'raw', bytes: '68656c6c6f3a2053310a', from: 0, gaps: [] },
];
