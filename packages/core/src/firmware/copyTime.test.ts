import { describe, expect, test } from '@jest/globals';
import { copyForecast, usualCopyTime } from './copyTime.ts';
import { copyCases } from './copyTimeCases.ts';

describe('how long a copy still takes', () => {
  test.each(copyCases.map((one) => [one.name, one] as const))('%s', (_, { bytes, samples, left, spread, usual }) => {
    const found = copyForecast(bytes > 1e9 ? 'emmc' : 'spi-nor', bytes, samples);
    expect(found.usual).toBe(usual);
    expect([found.least <= left + 1e-9, found.most >= left - 1e-9]).toEqual([true, true]);
    if (found.least > 0) expect(found.most / found.least).toBeLessThanOrEqual(spread);
  });
  test('3.8 GB each way: 60 to 90 minutes', () => {
    const { least, most } = usualCopyTime('emmc', 3.8e9);
    expect([Math.round(least / 5) * 5, Math.round(most / 5) * 5]).toEqual([60, 90]);
  });
});
