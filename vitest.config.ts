import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vitest/config';

const alias = {
	$core: new URL('./core', import.meta.url).pathname,
	$lib: new URL('./src/lib', import.meta.url).pathname
};

export default defineConfig({
	plugins: [svelte()],
	test: {
		projects: [
			{
				resolve: { alias },
				test: {
					name: 'core',
					include: ['core/**/*.test.ts', 'cli/**/*.test.ts', 'demo/**/*.test.ts'],
					testTimeout: 60_000,
					// a clone is thrown away in one, which takes its time where a machine has other things to do
					hookTimeout: 180_000,
					// nothing in the core keeps a state, so its files need not be loaded anew for each test file
					isolate: false
				}
			},
			{
				resolve: { alias },
				test: {
					name: 'server',
					include: ['src/**/*.test.ts', 'scripts/**/*.test.ts'],
					globalSetup: 'test-support/test-database.ts',
					// servers are started and killed in some, which takes its time where a machine has other things to do
					testTimeout: 400_000,
					hookTimeout: 180_000,
					fileParallelism: false,
					// their modules keep nothing that another file would see, and are loaded once
					isolate: false
				}
			},
			{
				resolve: { alias },
				test: {
					name: 'browser',
					include: ['e2e/**/*.test.ts'],
					globalSetup: ['test-support/test-database.ts', 'test-support/test-server.ts'],
					testTimeout: 180_000,
					hookTimeout: 120_000,
					fileParallelism: false
				}
			}
		]
	}
});
