import { defineConfig } from '@playwright/test';
import { chromium } from './bin/lib/chromium.mjs';

// The instance under test is started by bin/test, with the demo district.
export default defineConfig({
    testDir: 'tests/Browser',
    // The audit and the faults look and leave everything as it was, so two may look at once, before the others work.
    workers: 2,
    projects: [
        { name: 'views', testMatch: ['audit.spec.ts', 'faults.spec.ts'], fullyParallel: true },
        { name: 'work', testIgnore: ['audit.spec.ts', 'faults.spec.ts'], workers: 1 },
    ],
    // Wide, for machines that share their processors: a test that passes does not wait for them.
    timeout: 600_000,
    expect: { timeout: 40_000 },
    reporter: [['list']],
    outputDir: 'test-results',
    use: {
        baseURL: process.env.VANTREL_URL ?? 'http://127.0.0.1:8080',
        viewport: { width: 1280, height: 800 },
        actionTimeout: 40_000,
        // A trace of every test would cost as much as the tests: npx playwright test --trace=on where one is wanted.
        trace: 'off',
        screenshot: 'only-on-failure',
        launchOptions: chromium,
    },
});
