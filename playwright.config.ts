import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  // The same machine has been seen to take half as long again: a slow one is no failure.
  timeout: 180_000,
  expect: { timeout: 25_000 },
  fullyParallel: false,
  // A page waits for the server, the database and timers: with two, two cores stand still a third of the time.
  workers: 3,
  // Films run in real time, and a machine under load loses their frames: they run with nothing beside them.
  projects: [
    { name: 'screens', testIgnore: 'films.spec.ts' },
    { name: 'films', testMatch: 'films.spec.ts', dependencies: ['screens'], workers: 1 },
  ],
  // More tries on a machine under load: one of sixty tests needed one where it was three times slower than usual. Each that did is named
  // at the end of the run: a race, to be looked into.
  retries: 2,
  forbidOnly: true,
  // The JSON report is for scripts/test.mjs, which names its file.
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME === undefined ? 'line' : [['line'], ['json']],
  use: {
    actionTimeout: 25_000,
    testIdAttribute: 'data-test',
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'UTC',
    launchOptions: { executablePath: process.env.VEGLIA_CHROMIUM ?? '/usr/bin/chromium-headless-shell' },
    // Recording every step costs half as long again: asked for (`--trace on`) where a failure is looked into.
    trace: 'off',
    // Each page would fetch and keep the whole app again: where that is what is tested, the test allows it.
    serviceWorkers: 'block',
    contextOptions: { reducedMotion: 'reduce' },
  },
});
