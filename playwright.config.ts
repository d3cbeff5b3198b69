import { defineConfig } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { launchOptions } from './scripts/chromium.js';

/** One folder a run: fresh databases, given to the servers and to the tests that start their own. */
process.env.BRUNTLE_E2E_DATA ||= mkdtempSync(path.join(tmpdir(), 'bruntle-e2e-'));
const folder = process.env.BRUNTLE_E2E_DATA;

export default defineConfig({
	testDir: 'tests/e2e',
	outputDir: 'test-results',
	timeout: 90_000,
	expect: { timeout: 10_000 },
	fullyParallel: false,
	workers: 2,
	forbidOnly: true,
	retries: 0,
	reporter: process.env.BRUNTLE_REPORT
		? [['line'], ['json', { outputFile: process.env.BRUNTLE_REPORT }]]
		: [['list']],
	use: {
		actionTimeout: 20_000,
		viewport: { width: 1280, height: 800 },
		serviceWorkers: 'block',
		// What fades or slides is looked at as it ends up.
		contextOptions: { reducedMotion: 'reduce' },
		// A trace of every step takes a good part of the time; it is asked for: BRUNTLE_TRACE=1.
		trace: process.env.BRUNTLE_TRACE ? 'retain-on-failure' : 'off',
		screenshot: 'only-on-failure',
		// A camera that shows a test picture, and is given without asking.
		launchOptions: {
			...launchOptions,
			args: [...launchOptions.args, '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream']
		}
	},
	globalSetup: './tests/e2e/make-demo.ts',
	webServer: {
		command: 'node scripts/serve.js',
		url: 'http://127.0.0.1:4801/',
		timeout: 60_000,
		reuseExistingServer: false,
		env: {
			PORT: '4801',
			DATABASE_URL: `file:${path.join(folder, 'own.db')}`,
			BRUNTLE_NOW: '2026-04-18T09:00:00Z',
			BRUNTLE_BACKUPS: '0'
		}
	}
});
