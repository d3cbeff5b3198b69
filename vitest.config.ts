import { sveltekit } from '@sveltejs/kit/vite';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [sveltekit()],
	test: {
		include: ['tests/{checks,unit,server}/**/*.test.ts'],
		environment: 'node',
		testTimeout: 30_000,
		hookTimeout: 60_000,
		env: { BRUNTLE_PICTURES: path.join(tmpdir(), 'bruntle-test-pictures') }
	}
});
