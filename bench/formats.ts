// Measures each reader and writer as a ratio to the bare pass over the same bytes: npm run bench:formats [-- FORMAT … COUNT …]
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writtenFormats } from '../core/formats';
import type { Measured } from './pass';

const given = process.argv.slice(2);
const sizes = given.map(Number).filter(Boolean);
const names = given.filter((one) => !Number(one));
const folder = mkdtempSync(join(tmpdir(), 'barrow-bench-'));
const passes = 3;
const mostRepeated = 10_000;
const run = (flags: string[], values: string[]): Measured =>
	JSON.parse(
		execFileSync('node', [...flags, join(process.cwd(), 'build/bench/pass.js'), ...values], {
			encoding: 'utf8',
			stdio: ['ignore', 'pipe', 'inherit']
		})
	) as Measured;

/** A pass for its time, and one for what it holds alive. */
const pass = (...values: string[]): Measured => {
	const timed = run([], values);
	return values[0] === 'bare' ? timed : { ...timed, held: run(['--expose-gc'], values).held };
};

/** The best of several passes, since other work on the machine only ever makes one slower; one alone for a large file. */
const best = (count: number, ...kinds: (() => Measured)[]): Measured[] => {
	const rounds = Array.from({ length: count > mostRepeated ? 1 : passes }, () => kinds.map((kind) => kind()));
	return kinds.map((_, at) => rounds.map((round) => round[at]!).reduce((a, b) => (b.seconds < a.seconds ? b : a)));
};

const table: Record<string, string | number>[] = [];
try {
	for (const format of writtenFormats) {
		if (names.length && !names.includes(format.name)) continue;
		const last = new Map<string, Measured>();
		for (const count of sizes.length ? sizes : [1000, 10_000]) {
			const path = join(folder, `${format.name}-${count}${format.ending}`);
			const [write, raw, read] = best(
				count,
				() => pass('write', path, format.name, String(count)),
				() => pass('bare', path),
				() => pass('read', path, format.name, String(count))
			) as [Measured, Measured, Measured];
			for (const [what, one] of [
				['read', read],
				['write', write]
			] as const) {
				const before = last.get(what);
				table.push({
					what: `${what} ${format.name}`,
					questions: one.questions,
					'file MB': (statSync(path).size / 2 ** 20).toFixed(1),
					'bare s': raw.seconds.toFixed(2),
					'ours s': one.seconds.toFixed(2),
					ratio: (one.seconds / raw.seconds).toFixed(2),
					'time growth': before ? (one.seconds / before.seconds).toFixed(1) : '',
					'peak MB': one.peak,
					'held MB': one.held,
					'held growth': before ? (one.held / Math.max(0.1, before.held)).toFixed(1) : ''
				});
				last.set(what, one);
			}
			rmSync(path);
		}
		console.table(table.splice(0));
	}
} finally {
	rmSync(folder, { recursive: true, force: true });
}
