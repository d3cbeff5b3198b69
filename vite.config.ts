import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';
import { markersGivenOut } from './vite.markers';

export default defineConfig({
	plugins: [markersGivenOut(), tailwindcss(), sveltekit()],
	worker: { format: 'es', plugins: () => [markersGivenOut()] }
});
