/** The Bench in one window: every step of the pack, on every layout, with what it takes to do it, without scrolling. */
import type { Page } from '@playwright/test';
import { expect, test } from './support/app.ts';
import { book, seedJob } from './support/steps.ts';

const { pack } = book;

/** Fingers in gloves: at least so many pixels high. */
const leastHigh = 40;

interface Fault {
  readonly step: string;
  readonly what: string;
}

/**
 * Takes one step after the other within the page, and says what of it can't be seen or is too small. Each is looked at as it comes up (with
 * the make-safe steps before it, where there are any) and as it stands once they are done.
 */
function misfits(page: Page): Promise<{ steps: string[]; faults: Fault[] }> {
  return page.evaluate(async (least) => {
    const frame = (): Promise<void> => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done())));
    const steps: string[] = [];
    const faults: Fault[] = [];
    // Once the set is made safe neither is there.
    const before = (): NodeListOf<HTMLElement> => document.querySelectorAll<HTMLElement>('[data-test="walk"], .anyway');
    const look = (step: string, when: string): void => {
      const panel = document.querySelector('[data-test="next"]');
      const column = panel?.parentElement?.getBoundingClientRect();
      if (!panel || !column) return void faults.push({ step, what: 'no panel' });
      const bottom = Math.min(column.bottom, innerHeight);
      const before = faults.length;
      for (const part of panel.querySelectorAll('h1, .facts, .why, .how, .watch, button, input, select, label.think')) {
        const box = part.getBoundingClientRect();
        if (box.width === 0 || (part instanceof HTMLInputElement && part.type === 'checkbox')) continue;
        const name = `${when}: ${part.className || part.tagName} "${(part.textContent || (part as HTMLInputElement).placeholder || '').trim().slice(0, 30)}"`;
        if (box.bottom > bottom + 1 || box.top < 0 || box.left < 0 || box.right > innerWidth + 1)
          faults.push({
            step,
            what: `${name} ends at ${Math.round(box.bottom)} of ${Math.round(bottom)}, ${Math.round(box.right)} of ${innerWidth}`,
          });
        const control = part.matches('button:not(.plain), input:not(.visually-hidden), select, label.think');
        if (control && box.height < least) faults.push({ step, what: `${name} is ${Math.round(box.height)} high` });
      }
      // What took the room: a line that is there for a moment only would not be known otherwise.
      if (before === 0 && faults.length > 0)
        for (const one of document.querySelectorAll<HTMLElement>('body header, #app > *, .benchpage > *, .column[data-column="step"] > *'))
          faults.push({
            step,
            what: `beside it: ${one.tagName} ${one.className} ${Math.round(one.getBoundingClientRect().height)} high "${one.innerText.slice(0, 60)}"`,
          });
    };
    for (const details of document.querySelectorAll<HTMLDetailsElement>('[data-test="left-out"], [data-test="others"] details'))
      details.open = true;
    await frame();
    const buttons = (): HTMLElement[] => [
      ...document.querySelectorAll<HTMLElement>('[data-test="others"] button.step, [data-test="left-out"] button.step'),
    ];
    const wanted = new Set(buttons().map((one) => `${one.dataset.step ?? ''} ${one.dataset.of ?? ''}`));
    // The one that is suggested is in no list until another is taken.
    const suggested = document.querySelector<HTMLElement>('[data-test="next"]');
    wanted.add(`${suggested?.dataset.step ?? ''} ${suggested?.dataset.of ?? ''}`);
    for (const want of wanted) {
      const button = buttons().find((one) => `${one.dataset.step ?? ''} ${one.dataset.of ?? ''}` === want);
      if (!button) continue;
      button.click();
      await frame();
      steps.push(want.split(' ')[0] ?? '');
      look(want, 'at first');
      if (!document.querySelector('[data-test="walk"]')) continue;
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'a', bubbles: true }));
      await frame();
      for (const one of before()) one.style.display = 'none';
      look(want, 'made safe');
      for (const one of before()) one.style.display = '';
    }
    return { steps, faults };
  }, leastHigh);
}

async function bench(page: Page, layout: string): Promise<void> {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Quorvane', model: 'QK3-50', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout } },
    { kind: 'symptom.reported', v: 2, symptoms: ['dead'], seen: true },
    { kind: 'caution.read', v: 1, cautions: pack.cautions.map((one) => one.id) },
    { kind: 'consent.given', v: 1, to: 'data' },
    { kind: 'consent.given', v: 1, to: 'dead-chip' },
    ...['one', 'two', 'three', 'four', 'five'].map((text) => ({ kind: 'note.added', v: 1, text })),
  ]);
  await page.goto(`/jobs/${id}`);
  await expect(page.getByTestId('next')).toBeVisible();
}

for (const { id: layout } of pack.layouts) {
  test(`${layout}: every step fits 1280 × 800`, async ({ page }) => {
    await bench(page, layout);
    const { steps, faults } = await misfits(page);
    // Every test that fits this layout came up, and so all of the pack do over the layouts.
    expect((book.testsOf.get(layout) ?? []).map(({ id }) => id).filter((id) => !steps.includes(id))).toEqual([]);
    expect(faults).toEqual([]);
  });
}

test('a timer that rings moves nothing under a hand, and can be put away', async ({ page }) => {
  await bench(page, 'led-tcon');
  const where = async (): Promise<(number | undefined)[]> => [
    (await page.getByTestId('next').boundingBox())?.y,
    (await page.getByTestId('set-state').boundingBox())?.y,
  ];
  const before = await where();
  await seedJob(page, { customer: null, plate: { maker: 'Oltrema', model: 'C3-43', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['dead'] },
    { kind: 'wait.started', v: 2, name: 'Soak', minutes: 0 },
  ]);
  const ring = page.getByTestId('ring');
  await expect(ring).toContainText('Soak');
  expect(await where()).toEqual(before);
  // Others may ring in this shop as well: each gives way to the one before.
  for (let rings = 0; (await ring.count()) > 0; rings += 1) {
    expect(rings).toBeLessThan(20);
    await page.getByTestId('ring-hide').click();
  }
  await expect(ring).toHaveCount(0);
});

test.describe('beside the step', () => {
  for (const [width, height] of [
    [1280, 800],
    [1024, 768],
  ] as const) {
    test(`${width} × ${height}: state, plan, suspects, last entries and instruments are on the screen, and nothing scrolls but lists`, async ({
      page,
    }) => {
      await page.setViewportSize({ width, height });
      await bench(page, 'led-tcon');
      for (const name of ['set-state', 'next', 'to-close']) await expect(page.getByTestId(name)).toBeInViewport({ ratio: 0.99 });
      await expect(page.getByTestId('others').locator('button').first()).toBeInViewport({ ratio: 0.99 });
      await expect(page.locator('svg.plan')).toBeInViewport({ ratio: 0.99 });
      const inside = await page.evaluate(() => {
        const shown = (selector: string): number => {
          const list = [...document.querySelectorAll(selector)];
          return list.filter((one) => {
            const box = one.getBoundingClientRect();
            let clip = innerHeight;
            for (let up = one.parentElement; up; up = up.parentElement)
              if (getComputedStyle(up).overflowY !== 'visible') clip = Math.min(clip, up.getBoundingClientRect().bottom);
            return box.height > 0 && box.bottom <= clip + 2;
          }).length;
        };
        return {
          page: document.documentElement.scrollHeight <= innerHeight + 1 && document.documentElement.scrollWidth <= innerWidth + 1,
          suspects: shown('[data-test="suspects"] > li > button'),
          entries: shown('[data-test="ledger"] > li'),
          instruments: shown('.instruments > button'),
        };
      });
      expect(inside.page).toBe(true);
      expect(inside.suspects).toBeGreaterThanOrEqual(width === 1280 ? 5 : 4);
      expect(inside.entries).toBeGreaterThanOrEqual(width === 1280 ? 5 : 3);
      expect(inside.instruments).toBe(8);
    });
  }

  test('390 × 844: safety, step and answers without scrolling; the rest by tabs', async ({ page }) => {
    await page.setViewportSize({ width: 390, height: 844 });
    await bench(page, 'led-tcon');
    await expect(page.getByTestId('set-state')).toBeInViewport({ ratio: 0.99 });
    for (const answer of await page.locator('[data-test="next"] .answer').all()) await expect(answer).toBeInViewport({ ratio: 0.99 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await expect(page.getByTestId('suspects')).not.toBeVisible();
    await page.getByTestId('pane-set').click();
    await expect(page.getByTestId('suspects')).toBeVisible();
    await expect(page.getByTestId('next')).not.toBeVisible();
    await page.getByTestId('pane-log').click();
    await expect(page.getByTestId('ledger')).toBeVisible();
    await page.getByTestId('pane-step').click();
    await expect(page.getByTestId('next')).toBeVisible();
  });
});
