import { defineConfig } from 'vite';
import { markersGivenOut } from './vite.markers';

/** What runs beside the built server, its threads first: each one file of its own, beside the built server. What holds machine code stays outside. */
export default defineConfig({
	publicDir: false,
	plugins: [markersGivenOut()],
	resolve: { alias: { $core: '/src/lib/core' } },
	ssr: { noExternal: true, external: ['@libsql/client', 'libsql', 'sharp', 'highs'] },
	build: {
		ssr: true,
		outDir: 'build/threads',
		target: 'node20',
		rollupOptions: {
			input: {
				'reckon.thread': 'src/lib/server/threads/reckon.thread.ts',
				share: 'src/lib/server/share/certificates.ts',
				'yard-backup': 'src/lib/server/yard-backup/file.ts',
				'archive.thread': 'src/lib/server/threads/archive.thread.ts',
				'backup.thread': 'src/lib/server/threads/backup.thread.ts',
				'compute.thread': 'src/lib/server/threads/compute.thread.ts'
			},
			output: { entryFileNames: '[name].js' }
		}
	}
});
