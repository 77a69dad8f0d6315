import { spawn } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildIfStale } from './build';
import { ensurePackages } from './packages';
import { say, Trouble } from './words';

const root = new URL('..', import.meta.url).pathname.replace(/\/$/, '');

/** A check that passes or fails as one, or a suite that counts its tests into a file. */
interface Step {
	name: string;
	command: string[];
	counts?: string;
}

const report = (name: string) => join(tmpdir(), `yarn-barrow-${process.pid}-${name}.json`);
/** The tests of a project of vitest: all of them, or one of two halves of its files, each of which has a world of its own. */
const suite = (project: string, half?: '1' | '2'): Step => {
	const counts = report(`${project}${half ?? ''}`);
	return {
		name: `${project} tests${half ? `, half ${half}` : ''}`,
		command: [
			...['npx', 'vitest', 'run', '--project', project, '--maxWorkers=1'],
			...(half ? [`--shard=${half}/2`] : []),
			...['--reporter=default', '--reporter=json', `--outputFile.json=${counts}`]
		],
		counts
	};
};
/** All steps, the longest first: two run side by side, on a processor each, and whichever ends takes the next. The browser's are two, so that neither is left to run alone. */
const steps: Step[] = [
	suite('browser', '1'),
	suite('server'),
	suite('browser', '2'),
	suite('core'),
	{ name: 'lint and the import rule', command: ['npx', 'eslint', '.', '--max-warnings=0'] },
	{ name: 'types', command: ['npm', 'run', '--silent', 'types'] },
	{ name: 'format', command: ['npx', 'prettier', '--check', '--log-level=warn', '.'] },
	{ name: 'dead code', command: ['npx', 'knip', '--no-progress'] }
];

/** Runs a step; what it says is held back until its end where others run beside it. */
function carryOut({ command }: Step, alone: boolean): Promise<{ code: number; words: string }> {
	return new Promise((resolve) => {
		const child = spawn(command[0]!, command.slice(1), {
			cwd: root,
			stdio: ['ignore', alone ? 'inherit' : 'pipe', alone ? 'inherit' : 'pipe']
		});
		let words = '';
		for (const stream of [child.stdout, child.stderr])
			stream?.setEncoding('utf8').on('data', (text: string) => (words += text));
		child.on('error', () => resolve({ code: 1, words }));
		child.on('close', (code) => resolve({ code: code ?? 1, words }));
	});
}

/** What a suite counted, and of its files what is needed to say which test failed and why. */
interface Counted {
	numPassedTests: number;
	numFailedTests: number;
	testResults?: {
		name: string;
		message?: string;
		assertionResults: { status: string; fullName: string; failureMessages?: string[] | null }[];
	}[];
}

/** The first lines of what went wrong: enough to start from, without a page of the stack. */
const shortly = (words: string) => words.split('\n').slice(0, 12).join('\n    ');

/** The tests of a suite that failed, each with its file and the first lines of why. */
function failuresOf(counted: Counted): string[] {
	return (counted.testResults ?? []).flatMap(({ name, message, assertionResults }) => {
		const file = name.replace(`${root}/`, '');
		const tests = assertionResults.filter(({ status }) => status === 'failed');
		if (!tests.length && message) return [`${file}: ${shortly(message)}`];
		return tests.map(
			({ fullName, failureMessages }) => `${file}: ${fullName}\n    ${shortly((failureMessages ?? []).join('\n'))}`
		);
	});
}

let passed = 0;
let failed = 0;
const failures: string[] = [];

/** Carries a step out and adds what it counted. */
async function count(step: Step, alone: boolean): Promise<void> {
	const began = Date.now();
	if (alone) say(`\n== ${step.name}`);
	const { code, words } = await carryOut(step, alone);
	if (!alone) say(`\n== ${step.name}\n${words}`);
	let counted: Counted = { numPassedTests: code ? 0 : 1, numFailedTests: code ? 1 : 0 };
	if (step.counts) {
		try {
			counted = JSON.parse(readFileSync(step.counts, 'utf8')) as Counted;
			rmSync(step.counts, { force: true });
		} catch {
			counted = { numPassedTests: 0, numFailedTests: 1 };
		}
		// a suite that broke off outside of its tests has failed, whatever it counted
		if (code && !counted.numFailedTests) counted.numFailedTests = 1;
	}
	passed += counted.numPassedTests;
	failed += counted.numFailedTests;
	const named = failuresOf(counted);
	failures.push(...(named.length || !counted.numFailedTests ? named : [`${step.name}: see above`]));
	say(
		`${step.name}: ${counted.numPassedTests} passed, ${counted.numFailedTests} failed in ${Math.round((Date.now() - began) / 1000)} s`
	);
}

try {
	ensurePackages(['mariadb-server', 'chromium-headless-shell', 'chromium-driver', 'libxml2-utils', 'openssl']);
	buildIfStale(root);
	const only = process.argv.slice(2);
	const waiting = steps.filter(({ name }) => !only.length || only.some((word) => name.includes(word)));
	const alone = waiting.length === 1;
	const takeOn = async () => {
		for (let step = waiting.shift(); step; step = waiting.shift()) await count(step, alone);
	};
	await Promise.all([takeOn(), takeOn()]);
} catch (error) {
	failed += 1;
	process.stderr.write(`${error instanceof Trouble ? error.message : (error as Error).stack}\n`);
}
// said once more at the end, where nobody has to look for it between thousands that passed
for (const failure of failures) say(`\nFAILED ${failure}`);
say(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
