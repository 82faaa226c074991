/**
 * What the command flashrom printed and how it ended, and what that means at a bench. The texts are from flashrom 1.3.0 (Debian 1.3.0-2.1), run on its
 * emulated chips, or without a programmer plugged in; parts that say nothing of the result are left out.
 */
import type { FlashromResult, FlashromWork } from './flashrom.ts';

/** One run of the command: standard output and error together. */
export interface FlashromCase {
  readonly name: string;
  readonly work: FlashromWork;
  readonly code: number;
  readonly text: string;
  readonly result: FlashromResult;
}

const found = 'Found Winbond flash chip "W25Q128.V" (16384 kB, SPI) on dummy.\n';
const protectedText = `${found}Erasing and writing flash chip... Block protection could not be disabled!
At least part of the erase range is write protected!
Failed to erase flash!
spi_write_cmd failed during command execution at address 0x0
Looking for another erase function.
No usable erase functions left.
FAILED!
Your flash chip is in an unknown state.
`;

/** Each kind of result that was seen. */
export const flashromCases: readonly FlashromCase[] = [
  {
    name: 'a chip, with its code',
    work: 'identify',
    code: 0,
    text: `Probing for Winbond W25Q128.V, 16384 kB: compare_id: id1 0xef, id2 0x4018\n${found}No operations were specified.\n`,
    result: { kind: 'found', chip: 'W25Q128.V', maker: 'Winbond', code: 'ef4018', bytes: 16_777_216 },
  },
  {
    name: 'a chip known by its single signature byte has no code',
    work: 'identify',
    code: 0,
    text: 'Found Micron/Numonyx/ST flash chip "M25P10" (128 kB, SPI) on dummy.\nNo operations were specified.\n',
    result: { kind: 'found', chip: 'M25P10', maker: 'Micron/Numonyx/ST', bytes: 131_072 },
  },
  {
    name: 'a code whose second part is one byte',
    work: 'identify',
    code: 0,
    text: 'Probing for SST SST25VF040B.REMS, 512 kB: compare_id: id1 0xbf, id2 0x44\nFound SST flash chip "SST25VF040B.REMS" (512 kB, SPI) on dummy.\n',
    result: { kind: 'found', chip: 'SST25VF040B.REMS', maker: 'SST', code: 'bf44', bytes: 524_288 },
  },
  {
    name: 'the programmer is there, no chip answers',
    work: 'identify',
    code: 1,
    text: "No EEPROM/flash device found.\nNote: flashrom can never write if the flash chip isn't found automatically.\n",
    result: { kind: 'not-detected', detail: '' },
  },
  {
    name: 'two answer alike',
    work: 'read',
    code: 1,
    text: 'Found SST flash chip "SST25LF040A" (512 kB, SPI) on dummy.\nFound SST flash chip "SST25VF040" (512 kB, SPI) on dummy.\nMultiple flash chip definitions match the detected chip(s): "SST25LF040A", "SST25VF040"\nPlease specify which chip definition to use with the -c <chipname> option.\n',
    result: { kind: 'several-chips', detail: '', chips: ['SST25LF040A', 'SST25VF040'] },
  },
  {
    name: 'no programmer plugged in',
    work: 'probe',
    code: 1,
    text: "Couldn't open device 1a86:5512.\nError: Programmer initialization failed.\n",
    result: { kind: 'not-reached', detail: "Couldn't open device 1a86:5512." },
  },
  {
    name: 'a programmer it does not know',
    work: 'identify',
    code: 1,
    text: 'Error: Unknown programmer "nosuch". Valid choices are:\ninternal, dummy\n',
    result: { kind: 'not-reached', detail: 'Error: Unknown programmer "nosuch". Valid choices are:' },
  },
  {
    name: 'without a chip the programmer still is one',
    work: 'probe',
    code: 1,
    text: 'No EEPROM/flash device found.\n',
    result: { kind: 'ready' },
  },
  {
    name: 'read to the end',
    work: 'read',
    code: 0,
    text: `${found}Reading flash... done.\n`,
    result: { kind: 'done' },
  },
  {
    name: 'erased',
    work: 'erase',
    code: 0,
    text: `${found}Erasing and writing flash chip... Erase/write done.\n`,
    result: { kind: 'done' },
  },
  {
    name: 'written',
    work: 'program',
    code: 0,
    text: `${found}Reading old flash chip contents... done.\nErasing and writing flash chip... Erase/write done.\n`,
    result: { kind: 'done' },
  },
  {
    name: 'what is on it already is written all the same',
    work: 'program',
    code: 0,
    text: `${found}Reading old flash chip contents... done.\nErasing and writing flash chip... \nWarning: Chip content is identical to the requested image.\nErase/write done.\n`,
    result: { kind: 'done' },
  },
  { name: 'equal', work: 'verify', code: 0, text: `${found}Verifying flash... VERIFIED.\n`, result: { kind: 'done' } },
  {
    name: 'one byte differs',
    work: 'verify',
    code: 3,
    text: `${found}Verifying flash... FAILED at 0x00011170! Expected=0x00, Found=0x3a, failed byte count from 0x00000000-0x00ffffff: 0x1\n`,
    result: { kind: 'differs', first: 0x11170 },
  },
  { name: 'protected against erasing', work: 'erase', code: 1, text: protectedText, result: { kind: 'write-protected', detail: '' } },
  {
    name: 'protected against writing',
    work: 'program',
    code: 2,
    text: protectedText.replaceAll('erase range', 'write range'),
    result: { kind: 'write-protected', detail: '' },
  },
  {
    name: 'the image has not the size of the chip',
    work: 'program',
    code: 1,
    text: `${found}Error: Image size (131072 B) doesn't match the expected size (16777216 B)!\n`,
    result: { kind: 'size-differs', detail: "Error: Image size (131072 B) doesn't match the expected size (16777216 B)!" },
  },
  {
    name: 'ended by a signal',
    work: 'program',
    code: -1,
    text: `${found}Reading old flash chip contents... done.\nErasing and writing flash chip... `,
    result: { kind: 'broken-off', detail: 'Erasing and writing flash chip...' },
  },
  {
    name: 'a good end without the word that says so is none',
    work: 'read',
    code: 0,
    text: found,
    result: { kind: 'not-understood', detail: 'Found Winbond flash chip "W25Q128.V" (16384 kB, SPI) on dummy.' },
  },
];
