import { fork, type ChildProcess } from 'node:child_process';
import { fillDemo } from '../demo/fill';

/** Fills the test database with the demo and serves the built application on a free port; APPLICATION names it. */
export default async function setup(): Promise<() => Promise<void>> {
	await fillDemo(process.env.DATABASE_URL!);
	const child: ChildProcess = fork(new URL('./serve-for-tests.ts', import.meta.url).pathname, {
		execArgv: ['--import', 'tsx'],
		env: { ...process.env, JOB_LEASE_SECONDS: '4' },
		stdio: ['ignore', 'inherit', 'inherit', 'ipc']
	});
	process.env.APPLICATION = await new Promise<string>((resolve, reject) => {
		child.on('message', (address) => resolve(String(address)));
		child.on('exit', (code) => reject(new Error(`the application ended with ${code}`)));
	});
	return () =>
		new Promise((resolve) => {
			child.on('exit', () => resolve());
			child.kill('SIGTERM');
			setTimeout(() => child.kill('SIGKILL'), 8000).unref();
		});
}
