/**
 * A temperature picture as a matrix of °C. Text: one line a row, cells apart by comma, semicolon or tab; decimal commas where cells are apart by something
 * else; lines of words before the numbers are passed over, but for `unit,F`. Not supported: a camera's own binary files.
 */
import { InputRefused } from '../problems.ts';

/** Row by row from the top left, °C. */
export interface Frame {
  readonly width: number;
  readonly height: number;
  readonly celsius: Float32Array;
}

/** Smallest and largest picture that is read, cells on a side (value of ours: cameras of the trade have 80 to 640). */
const sides = [2, 1280] as const;
/** Nothing on a bench is colder or hotter, °C (value of ours). */
const range = [-60, 700] as const;

/** Throws InputRefused, naming the line; `where` names the file. */
export function parseFrame(text: string, where = 'frame'): Frame {
  const refuse = (line: number, value: string, expected: string): never => {
    throw new InputRefused([{ code: 'schema', where: `${where}, line ${line}`, value: value.slice(0, 60), expected }]);
  };
  const lines = text.replace(/^\uFEFF/, '').split(/\r?\n/);
  const rows: number[][] = [];
  let fahrenheit = false;
  for (const [index, line] of lines.entries()) {
    if (line.trim() === '') continue;
    const parted = line.includes(';') ? ';' : line.includes('\t') ? '\t' : ',';
    const cells = line
      .trim()
      .split(parted)
      .map((cell) => cell.trim());
    const numbers = cells.map((cell) => (/^[-+]?\d+(?:[.,]\d+)?$/.test(cell) ? Number(cell.replace(',', '.')) : Number.NaN));
    if (rows.length === 0 && numbers.some(Number.isNaN)) {
      fahrenheit ||= /\bunit\b/i.test(line) && /(?:°|\b)f\b/i.test(line);
      continue;
    }
    const wrong = numbers.findIndex(Number.isNaN);
    if (wrong >= 0) refuse(index + 1, cells[wrong] ?? '', 'a temperature');
    const celsius = fahrenheit ? numbers.map((one) => ((one - 32) * 5) / 9) : numbers;
    const outside = celsius.findIndex((one) => one < range[0] || one > range[1]);
    if (outside >= 0) refuse(index + 1, cells[outside] ?? '', `a temperature from ${range[0]} to ${range[1]} °C`);
    if (rows[0] && celsius.length !== rows[0].length) refuse(index + 1, `${celsius.length} cells`, `${rows[0].length} cells, as above`);
    rows.push(celsius);
    if (rows.length > sides[1] || celsius.length > sides[1]) refuse(index + 1, `${celsius.length} cells`, `at most ${sides[1]} on a side`);
  }
  const width = rows[0]?.length ?? 0;
  if (rows.length < sides[0] || width < sides[0])
    refuse(Math.max(1, rows.length), `${width} by ${rows.length} cells`, 'a matrix of temperatures');
  return { width, height: rows.length, celsius: Float32Array.from(rows.flat()) };
}
