import { mkdtempSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { defineConfig } from '@playwright/test';

const PORT = Number(process.env.TOLVEK_E2E_PORT ?? 4390);
/** How many journeys go side by side, each file of them at a desk of its own: a browser alone leaves two processors half idle. */
const DESKS = Number(process.env.TOLVEK_E2E_DESKS ?? Math.min(2, availableParallelism()));
const portOf = (desk: number): number => PORT + desk;

/**
 * What the browser leaves out: the panels of its own address bar, which cost each window two renderers and which no page needs,
 * and what Playwright leaves out by itself, as the last list of them counts.
 */
const LEFT_OUT = [
  ...['WebUIOmniboxPopup', 'WebUIOmniboxAimPopup', 'WebUIOmniboxFullPopup', 'AimEnabled', 'LensOverlay', 'MediaRouter'],
  ...['AvoidUnnecessaryBeforeUnloadCheckSync', 'DestroyProfileOnBrowserClose', 'HttpsUpgrades'],
  ...['HttpsFirstBalancedModeAutoEnable', 'PaintHolding', 'ThirdPartyStoragePartitioning', 'OptimizationHints'],
  ...['AvoidCorsURLLoaderRestartOnRedirect', 'NetworkTimeServiceQuerying', 'PreconnectToSearch'],
];

/** Journeys in Debian's Chromium against the demo, on a data folder of their own. */
export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: '../.reports/journeys',
  reporter: [['list'], ['json']],
  timeout: 400_000,
  expect: { timeout: 40_000 },
  workers: DESKS,
  fullyParallel: false,
  use: {
    baseURL: `http://127.0.0.1:${portOf(Number(process.env.TEST_PARALLEL_INDEX ?? 0))}`,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/Dublin',
    trace: 'off',
    actionTimeout: 60_000,
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        `--disable-features=${LEFT_OUT.join(',')}`,
      ],
    },
  },
  webServer: Array.from({ length: DESKS }, (_, desk) => ({
    command: `${process.execPath} scripts/together.mjs && exec ${process.execPath} server/built/demo.mjs --fresh`,
    cwd: resolve(import.meta.dirname, '..'),
    env: { PORT: String(portOf(desk)), TOLVEK_DATA: mkdtempSync(join(tmpdir(), 'tolvek-journeys-')) },
    url: `http://127.0.0.1:${portOf(desk)}/api/health`,
    timeout: 180_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 10_000 },
  })),
});
