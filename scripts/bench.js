// Measures the budgets and prints them as a table. Loads the sources through Vite, so that nothing is built twice.
import { fileURLToPath } from 'node:url';
import { createServer } from 'vite';

// The threads are the built ones; all else is read from the sources.
process.env.BRUNTLE_THREADS ??= fileURLToPath(new URL('../build/threads/', import.meta.url));

const vite = await createServer({
	server: { middlewareMode: true, hmr: false, ws: false },
	appType: 'custom',
	logLevel: 'error'
});
try {
	const { bench } = await vite.ssrLoadModule('/tests/bench/bench.ts');
	await bench();
} finally {
	await vite.close();
}
process.exit(0);
