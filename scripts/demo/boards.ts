/**
 * Draws the demo's boards and writes demo/boards: a picture as a phone would take it, with marks at the places that were drawn. Run again
 * after a change (`npm run demo:boards`); boards, numbers and values are invented.
 */
import { writeFileSync, mkdirSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { parseBoardFile, type BoardInput } from '@veglia/core';
import { inRoot } from '../lib/paths.mjs';

const width = 1200;
const height = 800;
const share = (x: number, y: number): [number, number] => [Number((x / width).toFixed(5)), Number((y / height).toFixed(5))];
const id = (n: number): string => `0192f000-0000-7000-8b0a-${String(n).padStart(12, '0')}`;

/** A row of pins, drawn and marked alike. */
interface Row {
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly pitch: number;
  readonly labels: readonly string[];
}
const toMain: Row = {
  name: 'CN201',
  x: 560,
  y: 110,
  pitch: 34,
  labels: ['5V2_STB', '5V2_STB', 'GND', 'PS-ON', 'GND', 'GND', '12V4', '12V4', '12V4', 'GND', 'BL-ON', 'DIM'],
};
const toLight: Row = { name: 'CN801', x: 960, y: 660, pitch: 40, labels: ['LED+', 'LED-', 'LED-'] };

const plug = ({ name, x, y, pitch, labels }: Row): string => `
  <rect x="${x - 24}" y="${y - 26}" width="${pitch * (labels.length - 1) + 48}" height="52" rx="4" fill="#efe9d8"/>
  <text x="${x - 24}" y="${y - 36}" font-size="20" fill="#f4f4ee">${name}</text>
  <path d="M${x - 24} ${y - 26} l14 0 l-14 14 z" fill="#b33"/>
  ${labels
    .map(
      (label, index) =>
        `<rect x="${x + index * pitch - 5}" y="${y - 9}" width="10" height="18" fill="#8a8a8a"/>` +
        `<text transform="translate(${x + index * pitch + 5} ${y + 34}) rotate(60)" font-size="13" fill="#f4f4ee">${label}</text>`,
    )
    .join('')}`;
const can = (x: number, y: number, r: number, name: string): string =>
  `<circle cx="${x}" cy="${y}" r="${r}" fill="#2b3440" stroke="#0f1419" stroke-width="4"/><path d="M${x - r * 0.6} ${y} h${r * 1.2} M${x} ${y - r * 0.6} v${r * 1.2}" stroke="#8d99a5" stroke-width="3"/><text x="${x - 24}" y="${y + r + 22}" font-size="18" fill="#f4f4ee">${name}</text>`;
/** Capacitors along the 12V4 track, with a branch. */
const along = [
  ...Array.from({ length: 8 }, (_, index) => ({ name: `C${241 + index}`, x: 560 + index * 58, y: 280 })),
  { name: 'C249', x: 1024, y: 225 },
  { name: 'C250', x: 1082, y: 225 },
];
const chip = ({ name, x, y }: (typeof along)[number]): string =>
  `<rect x="${x - 9}" y="${y - 13}" width="18" height="26" fill="#c9a46a"/><rect x="${x - 9}" y="${y - 13}" width="18" height="7" fill="#d9d9d9"/><rect x="${x - 9}" y="${y + 6}" width="18" height="7" fill="#d9d9d9"/><text x="${x - 18}" y="${y + 32}" font-size="13" fill="#f4f4ee">${name}</text>`;
const track = `<path d="M500 268 H966 V212 H1082" stroke="#a8763c" stroke-width="10" fill="none"/>`;
const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">
  <rect width="${width}" height="${height}" fill="#5d5348"/><rect x="30" y="30" width="1140" height="740" rx="10" fill="#7a5a2e"/>
  <rect x="60" y="330" width="420" height="400" fill="#6f5028"/>
  <rect x="90" y="100" width="240" height="150" rx="6" fill="#d8c27a"/><text x="120" y="185" font-size="22" fill="#3c3013">TRANSFORMER</text>
  <rect x="90" y="640" width="150" height="40" rx="18" fill="#e9e4da" stroke="#888"/><text x="110" y="630" font-size="18" fill="#f4f4ee">F901</text>
  ${can(420, 560, 74, 'C906')}${can(760, 380, 34, 'C231')}${can(860, 380, 34, 'C232')}${can(960, 380, 34, 'C233')}
  <rect x="560" y="480" width="300" height="90" fill="#9aa3a8"/><text x="600" y="535" font-size="20" fill="#20262b">HEATSINK</text>
  <text x="70" y="765" font-size="26" fill="#f4f4ee">QKP-2250  REV 4</text>
  ${track}${along.map(chip).join('')}${plug(toMain)}${plug(toLight)}</svg>`;

const connector = (row: Row, n: number, on: string) => ({
  kind: 'connector' as const,
  id: id(n),
  name: row.name,
  on,
  first: share(row.x, row.y),
  last: share(row.x + row.pitch * (row.labels.length - 1), row.y),
  pins: row.labels.map((label) => ({ label })),
});
const mark = (kind: 'fuse' | 'part' | 'hazard', n: number, name: string, at: [number, number], note?: string) => ({
  kind,
  id: id(n),
  name,
  at: share(...at),
  ...(note === undefined ? {} : { note }),
});
const board: BoardInput = {
  format: 'veglia-board',
  version: 1,
  id: id(1),
  number: 'QKP-2250',
  assembly: 'power',
  layout: 'led-tcon',
  families: ['quorvane.qk3'],
  pictures: [
    {
      id: id(2),
      photo: id(3),
      name: 'Parts side',
      marks: [
        connector(toMain, 4, 'harness.power-main'),
        connector(toLight, 5, 'harness.light'),
        mark('fuse', 6, 'F901', [165, 660]),
        mark('hazard', 7, 'C906', [420, 560], 'Main capacitor: holds its charge after unplugging.'),
        mark('part', 8, 'C231', [760, 380]),
        mark('part', 9, 'C232', [860, 380]),
        { ...mark('part', 40, 'Q231', [710, 525], 'Under the heatsink.'), warm: 12 },
        { ...mark('part', 41, 'T901', [210, 175]), warm: 6 },
        ...along.map(({ name, x, y }, index) => mark('part', 20 + index, name, [x, y])),
      ],
    },
  ],
  cards: [
    {
      id: id(10),
      sign: 'Starts on the third try when cold, later not at all',
      proof: 'C231 to C233 domed, or ESR over 0.5 Ω; the 12V4 rail pulses under load.',
      alike: 'A shorted load on the 12V4 rail: loads off first.',
      part: '3 × 1000 µF 16 V 105 °C low ESR',
      priceMinor: 240,
      hits: 6,
      misses: 1,
    },
  ],
};

const browser = await chromium.launch({ executablePath: process.env.VEGLIA_CHROMIUM ?? '/usr/bin/chromium' });
try {
  const page = await browser.newPage({ viewport: { width, height } });
  await page.setContent(`<body style="margin:0;font-family:sans-serif">${drawing}</body>`);
  const picture = await page.screenshot({ type: 'jpeg', quality: 72 });
  mkdirSync(inRoot('demo/boards'), { recursive: true });
  const file = { format: 'veglia-boards', version: 1, boards: [board], photos: [{ id: id(3), base64: picture.toString('base64') }] };
  writeFileSync(inRoot('demo/boards/qkp-2250.json'), `${JSON.stringify(parseBoardFile(file), null, 1)}\n`);
} finally {
  await browser.close();
}
