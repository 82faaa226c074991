import { describe, expect, test } from '@jest/globals';
import { coloursOfSpot, followSpot, lightAt, type Picture, type SpotLight } from './index.ts';

/** A textured front with a lamp on it; both moved by dx, dy. */
function front(lamp: readonly [number, number, number], dx = 0, dy = 0, brighter = 0): Picture {
  const [width, height] = [96, 72];
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [u, v] = [x - dx, y - dy];
      const texture = 60 + 25 * Math.sin(u / 3.1) + 25 * Math.cos(v / 4.3 + u / 9) + brighter;
      const inLamp = (u - 48) ** 2 + (v - 36) ** 2 < 16;
      const pixel = inLamp ? lamp : [texture, texture, texture];
      data.set([...pixel, 255], (y * width + x) * 4);
    }
  }
  return { width, height, data };
}

describe('the spot', () => {
  test('is linear in light: half of sRGB’s scale is a fifth of the light (IEC 61966-2-1, value from memory: 0.214 for 0.5)', () => {
    const grey = lightAt(front([127.5, 127.5, 127.5]), { x: 48, y: 36 }, 2);
    expect(grey.level).toBeCloseTo(0.2159, 2);
    expect(lightAt(front([255, 255, 255]), { x: 48, y: 36 }, 2)).toMatchObject({ level: 1, saturated: 1 });
    expect(lightAt(front([0, 0, 0]), { x: 48, y: 36 }, 2)).toMatchObject({ level: 0, saturated: 0 });
  });

  test.each([
    [3, -2],
    [-4, 1],
    [0, 0],
  ])('is followed when the camera moves by %d, %d, though the lamp went on and the room got brighter', (dx, dy) => {
    expect(followSpot(front([20, 0, 0]), front([255, 40, 30], dx, dy, 12), { x: 48, y: 36 }, 5, 5)).toEqual({ x: 48 + dx, y: 36 + dy });
  });

  test('stays on a plain front, where nothing holds it', () => {
    const plain = (lamp: number): Picture => ({ width: 64, height: 64, data: new Uint8ClampedArray(64 * 64 * 4).fill(lamp) });
    expect(followSpot(plain(80), plain(90), { x: 30, y: 30 }, 5, 5)).toEqual({ x: 30, y: 30 });
  });

  test('tells colours by what the lamp adds', () => {
    const room: SpotLight = { red: 0.1, green: 0.12, blue: 0.09, level: 0.1, saturated: 0 };
    const lamp = (red: number, green: number, blue: number): SpotLight => ({
      ...room,
      red: room.red + red,
      green: room.green + green,
      blue: room.blue + blue,
    });
    const lights = [
      room,
      room,
      room,
      lamp(0.5, 0.02, 0.02),
      lamp(0.05, 0.5, 0.1),
      lamp(0.4, 0.2, 0),
      lamp(0.02, 0.1, 0.5),
      lamp(0.3, 0.3, 0.28),
    ];
    expect(coloursOfSpot(lights)).toEqual([undefined, undefined, undefined, 'red', 'green', 'amber', 'blue', 'white']);
  });
});
