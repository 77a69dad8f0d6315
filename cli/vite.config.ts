import { defineConfig } from 'vite';

// the command line in one file, with all that it needs: it starts several times as fast as from its sources
export default defineConfig({
	build: {
		ssr: true,
		outDir: process.env.BARROW_BUILD ?? 'build/cli',
		emptyOutDir: true,
		target: 'node20',
		rollupOptions: {
			input: { main: 'cli/main.ts' },
			output: { format: 'es', entryFileNames: '[name].js', codeSplitting: false }
		}
	},
	// what makes pictures smaller is large and seldom asked for: it is loaded from where it stands
	ssr: { noExternal: true, external: ['jimp'] }
});
