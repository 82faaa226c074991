import { describe, expect, test } from '@jest/globals';
import { run } from './main.ts';

async function call(...args: string[]): Promise<{ code: number; out: Record<string, unknown> }> {
  const said: string[] = [];
  const code = await run(['rails', ...args], {
    out: (text) => void said.push(text),
    err: (text) => void said.push(text),
  });
  return { code, out: JSON.parse(said.join('')) as Record<string, unknown> };
}
const set = ['--layout', 'led-tcon', '--family', 'quorvane.qk3'];

describe('veglia rails', () => {
  test('names what was read, against the family’s own rails', async () => {
    const { code, out } = await call(...set, '--state', 'starting', 'ps-on=3V1', 'main-rail=12.1');
    expect(code).toBe(0);
    expect(out).toMatchObject({ layout: 'led-tcon', family: 'quorvane.qk3', state: 'starting' });
    const points = out.points as Record<string, unknown>[];
    expect(points.find(({ point }) => point === 'ps-on')).toMatchObject({
      value: 3.1,
      level: 'asks',
      outcome: 'moves',
      deviationPercent: null,
    });
    // 12.1 for 12.4 V: 2.4 % low, within 5 %.
    expect(points.find(({ point }) => point === 'main-rail')).toMatchObject({ level: 'in', deviationPercent: -2.4, outcome: 'in-range' });
    // What wasn't read stands there without a word on it.
    expect(points.find(({ point }) => point === 'led-plug')).not.toHaveProperty('level');
  });

  test('what is printed stands for a set nobody wrote down; a rail that pulses is called that', async () => {
    const { out } = await call('--layout', 'led-tcon', '--state', 'starting', '--printed', 'main-rail=13', '--', 'main-rail=0.4,pulsing');
    expect((out.points as object[]).find((one) => 'level' in one)).toMatchObject({ level: 'pulsing', outcome: 'pulsing' });
  });

  test('nonsense is refused by name, all of it at once, and nothing is judged', async () => {
    const { code, out } = await call(...set, '--state', 'standby', 'standby=four', 'nowhere=5', 'ps-on', 'standby=4k7', 'standby=5,wobbly');
    expect(code).toBe(1);
    expect(out).not.toHaveProperty('points');
    expect((out.problems as { value: string }[]).map(({ value }) => value)).toEqual([
      'standby=four',
      'nowhere=5',
      'ps-on',
      'standby=4k7',
      'standby=5,wobbly',
    ]);
    expect((await call('--layout', 'none', '--state', 'standby')).out).toMatchObject({ problems: [{ where: '--layout', value: 'none' }] });
  });
});
