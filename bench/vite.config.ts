import { defineConfig } from 'vite';

// the benchmark is built as the server is, so that it measures what runs there
export default defineConfig({
	build: {
		ssr: true,
		outDir: 'build/bench',
		target: 'node20',
		rollupOptions: {
			input: { run: 'bench/run.ts', formats: 'bench/formats.ts', pass: 'bench/pass.ts' },
			output: { format: 'es', entryFileNames: '[name].js' }
		}
	},
	ssr: { noExternal: ['mathjs'] }
});
