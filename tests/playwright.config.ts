import { defineConfig } from '@playwright/test';

/** Tests that run a machine: they wait for its clock. */
const MACHINES = /\b(benches|drag|faults|hold-and-stop|jog|laser|plasma|story)\.spec\.ts$/;
/** How long a step is waited for, ms; whoever writes a test may have less. */
const PATIENCE = Number(process.env.KERBE_PATIENCE ?? 240_000);
const part = process.env.KERBE_PART ?? 'browser';

export default defineConfig({
  testDir: '.',
  projects: [
    { name: 'machines-in-browser', testMatch: MACHINES },
    { name: 'pages', testMatch: '*.spec.ts', testIgnore: MACHINES },
  ],
  // Patience, and no measure of speed: what comes late on a busy machine has come all the same.
  timeout: 1_200_000,
  expect: { timeout: PATIENCE },
  workers: 1,
  reporter: [['list'], ['json', { outputFile: `../.data/test/${part}.json` }]],
  outputDir: `../.data/test/results/${part}`,
  globalSetup: './shop.setup.ts',
  use: {
    actionTimeout: PATIENCE,
    browserName: 'chromium',
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--enable-unsafe-swiftshader',
      ],
    },
    // What a test did is written down only where somebody wants to look at it: it costs a third of the time.
    trace: process.env.KERBE_TRACE ? 'retain-on-failure' : 'off',
  },
});
