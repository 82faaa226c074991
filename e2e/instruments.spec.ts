/** Instruments by themselves: what is typed is understood as a bench writes it, refused with a reason, and kept in a job only when asked. */
import { PNG } from 'pngjs';
import { expect, test } from './support/app.ts';
import { seedJob, walk } from './support/steps.ts';

test('discharge, odd one out and masking by hand; nothing is lost on the way from one to the other', async ({ page }) => {
  await page.goto('/instruments');
  const result = page.getByTestId('result');
  await expect(result).toContainText('Still needed: Capacitance, F; Voltage, V; Resistance or ESR, Ω.');
  await page.getByTestId('field-farads').fill('150u');
  await page.getByTestId('field-volts').fill('much');
  await expect(page.getByTestId('instrument')).toContainText('“much” is no number in this unit');
  await page.getByTestId('field-volts').fill('400');
  await page.getByTestId('field-ohms').fill('2k2');
  await expect(page.getByTestId('instrument')).toContainText('2.2 kΩ');
  await expect(result.locator('[data-figure="joules"]')).toHaveText('12 J');
  await expect(result.locator('[data-figure="seconds"]')).toHaveText('626 ms');
  await page.getByTestId('instrument-siblings').click();
  await page.getByTestId('field-values').fill('2.7M 3M 2.5M 60k');
  await expect(result.locator('[data-finding="siblings-odd"]')).toContainText('Reading 4 of 4 is odd.');
  await page.getByTestId('instrument-discharge').click();
  await expect(page.getByTestId('field-volts')).toHaveValue('400');
  await page.reload();
  await page.getByTestId('instrument-discharge').click();
  await expect(page.getByTestId('field-volts')).toHaveValue('400');
  await page.getByTestId('instrument-mask').click();
  await page.getByTestId('example').click();
  await expect(result.locator('[data-finding="mask-next"]')).toContainText('Next trial: leave');
  await page.getByTestId('field-trials').fill('1-4 perhaps');
  await expect(result).toContainText('1-4 perhaps');
  await expect(page.getByTestId('keep')).toHaveCount(0);
});

const opened = (symptom: string) => [
  { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
  { kind: 'symptom.reported', v: 2, symptoms: [symptom], seen: true },
];
const plate = { customer: null, plate: { maker: 'Quorvane', model: 'X', serial: '' } };

test('in a job: a result that answers nothing is a record, and goes on from there', async ({ page }) => {
  const { id } = await seedJob(page, plate, opened('sound-dark'));
  await page.goto(`/jobs/${id}`);
  await expect(page.getByTestId('next')).toBeVisible();
  await page.keyboard.press('.');
  await page.getByTestId('which-instrument').selectOption('string');
  await page.getByTestId('field-strips').fill('6');
  await page.getByTestId('field-leds').fill('10');
  await page.getByTestId('keep').click();
  const lines = page.getByTestId('ledger').locator('[data-kind="instrument.used"]');
  await expect(lines).toHaveCount(1);
  // The server gives them back, and the fields go on from what the ledger has.
  await page.reload();
  await expect(page.getByTestId('next')).toBeVisible();
  await page.keyboard.press('.');
  await page.getByTestId('which-instrument').selectOption('string');
  await expect(page.getByTestId('field-strips')).toHaveValue('6');
});

test('in a job: an answer waits until the set is safe for its step, then moves the probabilities', async ({ page }) => {
  const { id } = await seedJob(page, plate, opened('restart-loop'));
  await page.goto(`/jobs/${id}`);
  await page
    .getByTestId('others')
    .locator('[data-step="bias.walk"]')
    .first()
    .or(page.locator('[data-test="left-out"] [data-step="bias.walk"]').first())
    .first()
    .waitFor({ state: 'attached' });
  await page.keyboard.press('.');
  await page.getByTestId('which-instrument').selectOption('short');
  await page.getByTestId('field-capacitors').fill('6');
  await page.getByTestId('field-along').fill('1 0.4; 4 0.1; 6 0.3');
  await page.getByTestId('field-takenOff').selectOption('gone');
  await expect(page.getByTestId('answers-step')).toContainText('Clears with the capacitor removed');
  await expect(page.getByTestId('answers-step')).toContainText('Select that step first');
  await expect(page.getByTestId('record-answer')).toHaveCount(0);
  await page.getByTestId('take-step').click();
  await expect(page.locator('[data-test="next"][data-step="bias.walk"]')).toBeVisible();
  await page.keyboard.press('c');
  await walk(page);
  // The step itself names the instrument; what was typed is still there.
  await page.getByTestId('work-short').click();
  await expect(page.getByTestId('field-along')).toHaveValue('1 0.4; 4 0.1; 6 0.3');
  await page.getByTestId('record-answer').click();
  const ledger = page.getByTestId('ledger');
  await expect(ledger.locator('[data-kind="test.answered"]').first()).toContainText('Clears with the capacitor removed');
  await expect(ledger.locator('[data-kind="instrument.used"]')).toHaveCount(1);
  await expect(page.locator('.suspectsheet li').first()).toContainText('Panel');
  await expect(page.getByTestId('out')).toContainText('removed');
});

test('in a job: a charge read down to the limit is the state of the set', async ({ page }) => {
  const { id } = await seedJob(page, plate, [...opened('dead'), { kind: 'set.changed', v: 3, plugged: false, stage: 'back-off' }]);
  await page.goto(`/jobs/${id}`);
  await expect(page.getByTestId('verified')).toContainText('not measured');
  await page.keyboard.press('.');
  await page.getByTestId('field-firstVolts').fill('310');
  await page.getByTestId('field-secondVolts').fill('120');
  await page.getByTestId('field-apart').fill('30');
  await expect(page.getByTestId('record-charge')).toHaveCount(0);
  await page.getByTestId('field-secondVolts').fill('12');
  await page.getByTestId('charge-point').selectOption({ label: 'Main capacitor' });
  await page.getByTestId('record-charge').click();
  // The other place that holds a charge has to be read as well.
  await expect(page.getByTestId('charge').locator('[data-point="bulk"]')).toHaveValue('12');
  await expect(page.getByTestId('charge').locator('[data-point="led-plug"]')).toBeFocused();
  await page.keyboard.type('3');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('verified')).toContainText('3 V');
  await expect(page.getByTestId('verified')).toContainText('12 V');
});

test('in a job: a chip comes off only from a set that is down, and is missing until it is fitted the right way round', async ({ page }) => {
  const { id } = await seedJob(page, plate, [...opened('dead'), { kind: 'set.changed', v: 3, plugged: false, stage: 'back-off' }]);
  await page.goto(`/jobs/${id}`);
  await expect(page.getByTestId('verified')).toBeVisible();
  await page.keyboard.press('.');
  await page.getByTestId('which-instrument').selectOption('chip-off');
  await page.getByTestId('field-chip').fill('U402');
  await page.getByTestId('field-pin1Chip').selectOption('top-left');
  await expect(page.locator('[data-finding="chip-photo-first"]')).toBeVisible();
  await page.getByTestId('field-pads').selectOption('whole');
  await expect(page.getByTestId('not-down')).toContainText('rails down');
  await expect(page.getByTestId('keep')).toHaveCount(0);
  await page.getByTestId('rails').click();
  // The charge isn't measured: on the power board that is not enough.
  await page.getByTestId('about').selectOption('power');
  await expect(page.getByTestId('keep')).toHaveCount(0);
  await page.getByTestId('about').selectOption('main');
  await page.getByTestId('keep').click();
  await expect(page.getByTestId('out')).toContainText('U402');
  await page.keyboard.press('.');
  await page.getByTestId('which-instrument').selectOption('chip-on');
  // From the record of the one that came off.
  await expect(page.getByTestId('field-chip')).toHaveValue('U402');
  await expect(page.getByTestId('field-pin1Was')).toHaveValue('top-left');
  await page.getByTestId('field-pin1New').selectOption('bottom-right');
  await expect(page.locator('[data-finding="chip-turned"]')).toBeVisible();
  await page.getByTestId('field-pin1New').selectOption('top-left');
  await page.getByTestId('field-bridges').selectOption('none');
  await page.getByTestId('field-supplyOhms').fill('410');
  await page.getByTestId('field-cleaned').selectOption('yes');
  await page.getByTestId('keep').click();
  await expect(page.getByTestId('ledger').locator('[data-kind="instrument.used"]')).toHaveCount(2);
  await expect(page.getByTestId('out')).toContainText('Nothing');
});

test('temperature pictures: what warms first, with its place; recorded in a job with the board it is on', async ({ page }) => {
  const frame = (rise: number): Buffer =>
    Buffer.from(
      Array.from({ length: 24 }, (_, y) =>
        Array.from({ length: 32 }, (__, x) =>
          (24 + ((x * 7 + y * 5) % 3) / 20 + (Math.hypot(x - 20, y - 8) < 2 ? rise : 0) + (Math.hypot(x - 6, y - 18) < 3 ? 20 : 0)).toFixed(
            2,
          ),
        ).join(','),
      ).join('\n'),
    );
  const file = (name: string, buffer: Buffer) => ({ name, mimeType: 'text/csv', buffer });
  const { id } = await seedJob(page, plate, opened('restart-loop'));
  await page.goto(`/jobs/${id}`);
  await expect(page.getByTestId('next')).toBeVisible();
  await page.keyboard.press('.');
  await page.getByTestId('which-instrument').selectOption('thermal');
  await page.getByTestId('add-pictures').setInputFiles([file('before.csv', frame(0)), file('spoilt.csv', Buffer.from('1,2\n3'))]);
  await expect(page.getByTestId('warmth')).toContainText('spoilt.csv, line 2');
  await page.getByTestId('add-pictures').setInputFiles([file('after.csv', frame(7))]);
  const result = page.getByTestId('result');
  // What was hot before is not among them.
  await expect(result.locator('[data-finding]')).toHaveCount(1);
  await expect(result.locator('[data-finding="warm-first"]')).toContainText('64 % from the left, 35 % from the top. 7 °C up');
  await expect(result.getByTestId('chart').locator('svg')).toBeVisible();
  await page.getByTestId('about').selectOption('tcon');
  await page.getByTestId('keep').click();
  await expect(page.getByTestId('ledger').locator('[data-kind="instrument.used"]')).toContainText('First to warm: 64 % from the left');
});

test('pictures in colours: the scale is marked once, each has its own ends, and what warms is found', async ({ page }) => {
  const [width, height] = [160, 120];
  // White hot, its scale on the right, hot at the top.
  const picture = (rise: number): Buffer => {
    const png = new PNG({ width, height });
    for (let y = 0; y < height; y += 1)
      for (let x = 0; x < width; x += 1) {
        const inBar = x >= 146 && x < 154 && y >= 10 && y < 110;
        const share = inBar ? (110 - y) / 100 : 0.2 + x / 1600 + rise * Math.exp(-((x - 40) ** 2 + (y - 84) ** 2) / 60);
        png.data.fill(Math.round(255 * share), (y * width + x) * 4, (y * width + x) * 4 + 3);
        png.data[(y * width + x) * 4 + 3] = 255;
      }
    return PNG.sync.write(png);
  };
  await page.goto('/instruments/thermal');
  const file = (name: string, buffer: Buffer, mimeType = 'image/png') => ({ name, mimeType, buffer });
  await page.getByTestId('add-pictures').setInputFiles([file('torn.png', Buffer.from('no picture')), file('before.png', picture(0))]);
  await expect(page.getByTestId('warmth')).toContainText('torn.png is not a picture');
  await page.getByTestId('scale-low').fill('20');
  await page.getByTestId('scale-high').fill('60');
  await page.getByTestId('add-pictures').setInputFiles([file('after.png', picture(0.4))]);
  // The ends go on from the picture before.
  await expect(page.getByTestId('scale-high').nth(1)).toHaveValue('60');
  await expect(page.getByTestId('mark-next')).toContainText('cold end');
  const shown = page.getByTestId('press-picture');
  const box = (await shown.boundingBox())!;
  const press = (x: number, y: number) => shown.click({ position: { x: (box.width * x) / width, y: (box.height * y) / height } });
  await press(150, 109);
  await press(150, 10.5);
  const result = page.getByTestId('result');
  await expect(result.locator('[data-finding]')).toHaveCount(1);
  await expect(result.locator('[data-finding="warm-first"]')).toContainText(/2[456] % from the left, (69|70|71) % from the top/);
  await expect(result.locator('[data-finding="warm-first"]')).toContainText(/1[567] °C up/);
});
