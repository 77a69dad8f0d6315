import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { say, Stopped, Trouble } from './words';

/** Programs that are needed, each with the Debian package that brings it. */
const programs: Record<string, string[]> = {
	'mariadb-server': ['/usr/sbin/mariadbd', '/usr/libexec/mariadbd'],
	'chromium-headless-shell': ['/usr/lib/chromium/chromium-headless-shell'],
	'chromium-driver': ['/usr/bin/chromedriver'],
	'libxml2-utils': ['/usr/bin/xmllint'],
	openssl: ['/usr/bin/openssl']
};

/** Installs the Debian packages that are missing. Throws a Trouble that names the command to run where it may not. */
export function ensurePackages(names: string[]): void {
	const missing = names.filter((name) => !programs[name]!.some((path) => existsSync(path)));
	if (!missing.length) return;
	const command = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
	if (!existsSync('/usr/bin/apt-get'))
		throw new Trouble(
			`These programs are missing, and there is no apt-get to install them: ${missing.join(', ')}. Install them and start again.`
		);
	const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
	say(`Installing ${missing.join(', ')} (Debian packages) …`);
	const environment = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
	const run = (words: string[]) => spawnSync(words[0]!, words.slice(1), { env: environment, encoding: 'utf8' });
	run([...sudo, 'apt-get', 'update', '-qq']);
	// the service of the system is not wanted: the project runs a server of its own
	const install = [...sudo, 'env', 'DEBIAN_FRONTEND=noninteractive', 'RUNLEVEL=1', ...command.split(' ')];
	let done = run(install);
	// an installation that was broken off has to be brought to its end before another one is begun
	if (/dpkg was interrupted/i.test(done.stderr ?? '')) {
		run([...sudo, 'dpkg', '--configure', '-a']);
		done = run(install);
	}
	if (done.signal) throw new Stopped();
	if (missing.some((name) => !programs[name]!.some((path) => existsSync(path)))) {
		const reason = /no space left/i.test(done.stderr ?? '')
			? 'The disk is full.'
			: sudo.length && done.status !== 0
				? 'There is no right to install here.'
				: (done.stderr ?? '').trim().split('\n').pop() || 'apt-get did not say why.';
		throw new Trouble(
			`${missing.join(', ')} could not be installed. ${reason} Run this once as root and start again:\n  ${command}`
		);
	}
}
