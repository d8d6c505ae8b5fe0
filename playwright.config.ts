import { defineConfig } from '@playwright/test';
import { CHROMIUM, FLAGS } from './scripts/chromium.mjs';

const port = Number(process.env.MANEGE_TEST_PORT ?? 3210);
/** A name as in a school's network: no secure context, so no clipboard interface, locks or service worker. */
const SCHOOL = 'manege.school.test';

export default defineConfig({
  testDir: 'e2e',
  timeout: 180_000,
  // A machine that is busy with other things takes its time.
  expect: { timeout: 30_000 },
  workers: 2,
  retries: 0,
  reporter: [['list'], ['json', { outputFile: 'test-results/report.json' }]],
  projects: [
    { name: 'here', grepInvert: /@school/ },
    {
      name: 'school',
      // Stories of keeping, handing out and handing in: only these depend on a secure context.
      testMatch: /(keep|exercise|first-minute|story|school)\.spec\.ts/,
      grepInvert: /@secure/,
      use: { baseURL: `http://${SCHOOL}:${port}` },
    },
  ],
  use: {
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    // Keeping the whole application for times without a network is for the stories that go without one.
    serviceWorkers: 'block',
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions: {
      executablePath: CHROMIUM,
      args: [...FLAGS, `--host-resolver-rules=MAP ${SCHOOL} 127.0.0.1`],
    },
  },
  webServer: {
    command: `scripts/serve ${port}`,
    port,
    reuseExistingServer: false,
    stdout: 'ignore',
  },
});
