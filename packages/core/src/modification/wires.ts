/** Wires of a modification, as a bench writes them down, and colours among them that would mislead whoever opens the set next. */

/** A wire that was put in. */
export interface Wire {
  readonly from: string;
  readonly to: string;
  /** What it carries: "12 V", "GND", "BL_ON". */
  readonly carries?: string | undefined;
  readonly colour?: string | undefined;
}

/** Most wires of one record, and letters of one end. */
const most = { wires: 30, letters: 60 };

/** "J3.1 > CN5.2: 12 V, red", a line each. Throws RangeError, naming the line that can’t be read. */
export function readWires(text: string): Wire[] {
  const lines = text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
  if (lines.length > most.wires) throw new RangeError(lines[most.wires] ?? '');
  return lines.map((line) => {
    const [ends = '', said = ''] = line.split(/:(.*)/s);
    const [from = '', to = '', ...more] = ends.split(/->|→|>/).map((end) => end.trim());
    if (from === '' || to === '' || more.length > 0 || from.length > most.letters || to.length > most.letters) throw new RangeError(line);
    const [carries = '', colour = '', ...rest] = said.split(',').map((part) => part.trim());
    if (rest.length > 0 || carries.length > most.letters || colour.length > most.letters) throw new RangeError(line);
    return { from, to, ...(carries === '' ? {} : { carries }), ...(colour === '' ? {} : { colour }) };
  });
}

const isGround = (carries: string): boolean => /^(gnd|ground|0 ?v|chassis|earth)\b/i.test(carries);
const isSupply = (carries: string): boolean => /\d\s*v\b|\bvcc\b|\bvdd\b|\+/i.test(carries) && !isGround(carries);
/** Colours that stand for ground or earth on a bench, and for a supply (common practice, no source; green and yellow is earth by IEC 60445). */
const groundColours = /^(black|green|green[- /]yellow|yellow[- /]green)$/i;
const supplyColours = /^(red|orange)$/i;

/** Wires whose colour says the opposite of what they carry. */
export const misleadingWires = (wires: readonly Wire[]): Wire[] =>
  wires.filter(
    ({ carries = '', colour = '' }) =>
      (isSupply(carries) && groundColours.test(colour)) || (isGround(carries) && supplyColours.test(colour)),
  );
