/**
 * The command flashrom: its arguments, and what its output means. Arguments and exit codes as its manual has them (flashrom 1.3.0, flashrom(8)); the words it
 * is known by were seen in its output (`flashromCases.ts`).
 */
import type { ChipFound, ProgrammerReady, ProgrammerTrouble } from './programmer.ts';

/** Work it is called for. */
export type FlashromWork = 'probe' | 'identify' | 'read' | 'erase' | 'program' | 'verify';
/** What came of one call; `done`: as asked, a comparison came out equal. */
export type FlashromResult =
  ProgrammerReady | ChipFound | ProgrammerTrouble | { readonly kind: 'done' } | { readonly kind: 'differs'; readonly first: number };

/**
 * Its arguments, one by one for a call without a shell. `spec` is the value of its -p, `file` in its own folder. A written chip is compared by a call of its
 * own: how it reads back is a step with a result.
 */
export function flashromArguments(work: FlashromWork, spec: string, file: string, chip?: string): string[] {
  const which = ['-p', spec, ...(chip === undefined ? [] : ['-c', chip])];
  if (work === 'read') return [...which, '-r', file];
  if (work === 'erase') return [...which, '-E'];
  if (work === 'program') return [...which, '--noverify', '-w', file];
  if (work === 'verify') return [...which, '-v', file];
  // Only then the code of the chip is printed.
  return work === 'identify' && chip !== undefined ? [...which, '-V'] : which;
}

/** What says that it came to its end: an exit code of 0 alone does not, a dump that could not be saved has one too. */
const endings: Readonly<Record<Exclude<FlashromWork, 'probe' | 'identify'>, RegExp>> = {
  read: /Reading flash[.]{3} done[.]/,
  erase: /Erase[/]write done[.]/,
  program: /Erase[/]write done[.]/,
  verify: /VERIFIED[.]/,
};
const chipLine = /^Found (?<maker>.+?) flash chip "(?<chip>[^"]+)" \((?<kilo>\d+) kB, [^)]*\)(?: on (?<on>\S+))?[.]$/m;
const codeLine = /^Probing for [^\n]*: compare_id: id1 0x(?<one>[0-9a-f]{1,4}), id2 0x(?<two>[0-9a-f]{1,8})$/m;

const evenDigits = (hex: string): string => (hex.length % 2 === 0 ? hex : `0${hex}`);

function chipOf(text: string): ChipFound | undefined {
  const { maker, chip, kilo } = chipLine.exec(text)?.groups ?? {};
  if (maker === undefined || chip === undefined || kilo === undefined) return undefined;
  const { one, two } = codeLine.exec(text)?.groups ?? {};
  const code = one === undefined || two === undefined ? undefined : evenDigits(one) + evenDigits(two);
  return { kind: 'found', chip, maker, ...(code === undefined ? {} : { code }), bytes: Number(kilo) * 1024 };
}

/** A line that names the trouble; else the last one that was printed. At most 160 characters. */
function detailOf(text: string): string {
  const lines = text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
  return (lines.find((line) => /^(?:Error|Couldn't|Failed)\b/.test(line)) ?? lines.at(-1) ?? '').slice(0, 160);
}

/** What a call came to. `code` is its exit code, negative where a signal ended it; `text` standard output, then standard error. */
export function readFlashrom(work: FlashromWork, code: number, text: string): FlashromResult {
  const several = /^Multiple flash chip definitions match the detected chip\(s\): (?<chips>.+)$/m.exec(text)?.groups?.chips;
  if (several !== undefined)
    return work === 'probe'
      ? { kind: 'ready' }
      : { kind: 'several-chips', detail: '', chips: [...several.matchAll(/"([^"]+)"/g)].flatMap(([, name]) => name ?? []) };
  if (/No EEPROM[/]flash device found[.]/.test(text)) return work === 'probe' ? { kind: 'ready' } : { kind: 'not-detected', detail: '' };
  if (/^Error: (?:Programmer initialization failed[.]|Unknown programmer)/m.test(text))
    return { kind: 'not-reached', detail: detailOf(text) };
  if (/Image size \(\d+ B\) doesn't match/.test(text)) return { kind: 'size-differs', detail: detailOf(text) };
  if (/write protected!/.test(text) && code !== 0) return { kind: 'write-protected', detail: '' };
  const first = /FAILED at 0x([0-9a-fA-F]+)!/.exec(text)?.[1];
  if (work === 'verify' && first !== undefined) return { kind: 'differs', first: Number.parseInt(first, 16) };
  if (code < 0) return { kind: 'broken-off', detail: detailOf(text) };
  const chip = chipOf(text);
  if (code === 0 && chip && work === 'probe') return { kind: 'ready' };
  if (code === 0 && chip && work === 'identify') return chip;
  if (code === 0 && work !== 'probe' && work !== 'identify' && endings[work].test(text)) return { kind: 'done' };
  return { kind: 'not-understood', detail: detailOf(text) };
}
