/** The drawing of a modification: what was joined to what, each wire with what it carries and its colour in words. */
import type { Wire } from '@veglia/core';

const escape = (text: string): string => text.replace(/[&<>"']/g, (letter) => `&#${letter.charCodeAt(0)};`);

/** Points; a row a wire. */
const size = { width: 520, row: 34, top: 12, end: 150 };

/** As an SVG document of its own, black on white: for the screen and for paper. */
export function modificationSvg(wires: readonly Wire[]): string {
  const height = size.top * 2 + Math.max(1, wires.length) * size.row;
  const box = (x: number, y: number, text: string): string =>
    `<rect x="${x}" y="${y - 11}" width="${size.end}" height="22" fill="none" stroke="black" stroke-width="1.2"/>` +
    `<text x="${x + 6}" y="${y + 4}" font-size="11" font-family="Roboto, sans-serif">${escape(text.slice(0, 24))}</text>`;
  const rows = wires.map(({ from, to, carries = '', colour = '' }, index) => {
    const y = size.top + (index + 0.5) * size.row;
    const [left, right] = [size.end + 1, size.width - size.end - 1];
    const said = [carries, colour].filter((part) => part !== '').join(', ');
    return (
      box(0.6, y, from) +
      box(size.width - size.end - 0.6, y, to) +
      `<path d="M${left} ${y} H${right}" stroke="black" stroke-width="1.6"/>` +
      `<text x="${size.width / 2}" y="${y - 4}" font-size="11" text-anchor="middle" font-family="Roboto, sans-serif">${escape(said)}</text>`
    );
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${size.width} ${height}" width="${size.width}" height="${height}"><rect width="${size.width}" height="${height}" fill="white"/>${rows.join('')}</svg>`;
}
