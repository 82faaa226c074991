/** Test pictures: drawn the same on a screen and into a file, at any size in pixels. */

/** In the order in which they are shown. */
export const testPictures = [
  'white',
  'grey',
  'dark',
  'red',
  'green',
  'blue',
  'black',
  'grid',
  'gradient',
  'steps',
  'edges',
  'moving',
] as const;
export type TestPicture = (typeof testPictures)[number];

/** Panels that are met: HD, full HD, ultra HD. */
export const pictureSizes = [
  [1366, 768],
  [1920, 1080],
  [3840, 2160],
] as const;

const plain: Partial<Record<TestPicture, string>> = {
  white: '#ffffff',
  grey: '#808080',
  dark: '#333333',
  red: '#ff0000',
  green: '#00ff00',
  blue: '#0000ff',
  black: '#000000',
};
type Canvas = Pick<
  CanvasRenderingContext2D,
  'fillStyle' | 'fillRect' | 'strokeStyle' | 'lineWidth' | 'strokeRect' | 'beginPath' | 'arc' | 'stroke'
>;

/** Draws one. `seconds`: of the moving one, since it began. */
export function drawPicture(canvas: Canvas, which: TestPicture, width: number, height: number, seconds = 0): void {
  const fill = (colour: string, x = 0, y = 0, w = width, h = height): void => {
    canvas.fillStyle = colour;
    canvas.fillRect(x, y, w, h);
  };
  fill(plain[which] ?? '#000000');
  if (which === 'grid') drawGrid(canvas, width, height);
  if (which === 'gradient') {
    // Grey and each colour, a strip each; column by column, so that no step is of our making.
    const rows = ['#ffffff', '#ff0000', '#00ff00', '#0000ff'].map((full) =>
      [1, 3, 5].map((at) => Number.parseInt(full.slice(at, at + 2), 16)),
    );
    rows.forEach((full, row) => {
      for (let x = 0; x < width; x += 1) {
        const share = x / Math.max(1, width - 1);
        const [r = 0, g = 0, b = 0] = full.map((one) => Math.round(one * share));
        fill(`rgb(${r} ${g} ${b})`, x, Math.floor((row * height) / 4), 1, Math.ceil(height / 4));
      }
    });
  }
  if (which === 'steps')
    for (let step = 0; step < 16; step += 1) {
      const level = Math.round((step * 255) / 15);
      fill(`rgb(${level} ${level} ${level})`, Math.floor((step * width) / 16), 0, Math.ceil(width / 16), height);
    }
  if (which === 'edges') {
    for (let x = 0; x < width / 2; x += 2) fill('#ffffff', x, 0, 1, height / 2);
    for (let y = 0; y < height / 2; y += 2) fill('#ffffff', Math.floor(width / 2), y, Math.ceil(width / 2), 1);
    fill('#ffffff', Math.floor(width * 0.2), Math.floor(height * 0.6), Math.floor(width * 0.25), Math.floor(height * 0.3));
    fill('#808080', Math.floor(width / 2), Math.floor(height / 2), Math.ceil(width / 2), Math.ceil(height / 2));
    for (let line = 0; line < 6; line += 1)
      fill('#000000', Math.floor(width * (0.6 + line * 0.05)), Math.floor(height * 0.6), line + 1, Math.floor(height * 0.3));
  }
  if (which === 'moving') {
    const bar = Math.ceil(width / 24);
    const shift = (seconds * width) / 4;
    for (let nth = -1; nth < 6; nth += 1) {
      const x = (((nth * width) / 5 + shift) % (width + bar)) - bar;
      fill(nth % 2 === 0 ? '#ffffff' : '#808080', Math.floor(x), 0, bar, height);
    }
  }
}

function drawGrid(canvas: Canvas, width: number, height: number): void {
  canvas.fillStyle = '#ffffff';
  const cell = height / 9;
  for (let x = (width % cell) / 2; x <= width; x += cell) canvas.fillRect(Math.round(x), 0, 1, height);
  for (let y = 0; y <= height; y += cell) canvas.fillRect(0, Math.round(y), width, 1);
  canvas.strokeStyle = '#ffffff';
  canvas.lineWidth = Math.max(1, Math.round(height / 540));
  // The outermost dots of all four edges, and circles that have to be round.
  canvas.strokeRect(0.5, 0.5, width - 1, height - 1);
  const radius = cell;
  for (const [x, y] of [
    [width / 2, height / 2],
    [radius * 1.5, radius * 1.5],
    [width - radius * 1.5, radius * 1.5],
    [radius * 1.5, height - radius * 1.5],
    [width - radius * 1.5, height - radius * 1.5],
  ] as const) {
    canvas.beginPath();
    canvas.arc(x, y, radius, 0, 2 * Math.PI);
    canvas.stroke();
  }
}
