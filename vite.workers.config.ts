import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

// the worker threads of the server, built beside it: they run on Node.js alone, without the application around them
export default defineConfig({
	resolve: { alias: { $core: fileURLToPath(new URL('./core', import.meta.url)) } },
	build: {
		ssr: true,
		outDir: 'build/threads',
		emptyOutDir: true,
		target: 'node20',
		rollupOptions: {
			input: { job: 'src/lib/server/jobs/thread.ts', page: 'src/lib/server/threads/thread.ts' },
			output: { format: 'es', entryFileNames: '[name].js' }
		}
	},
	// bundled, so that only the parts of it that are used are loaded
	ssr: { noExternal: ['mathjs'] }
});
