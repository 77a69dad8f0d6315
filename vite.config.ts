import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	build: { chunkSizeWarningLimit: 1500, assetsInlineLimit: 0 },
	worker: { format: 'es' },
	// bundled, so that only the parts of it that are used are loaded
	ssr: { noExternal: ['mathjs'] }
});
