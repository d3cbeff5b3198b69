import { sveltekit } from '@sveltejs/kit/vite';
import { availableParallelism, tmpdir } from 'node:os';
import path from 'node:path';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [sveltekit()],
	test: {
		include: ['tests/{checks,unit,server}/**/*.test.ts'],
		environment: 'node',
		// The runner would leave one of two cores idle.
		maxWorkers: Math.max(2, availableParallelism() - 1),
		// Modules are read once a worker, not once a file: half the time. Each test brings what it works on; orders are shuffled by `--sequence.shuffle.files`.
		isolate: false,
		testTimeout: 120_000,
		hookTimeout: 120_000,
		env: { BRUNTLE_PICTURES: path.join(tmpdir(), 'bruntle-test-pictures') }
	}
});
