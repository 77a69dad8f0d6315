import { readFileSync, readdirSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { ContainerError, memorySource } from '../container/container';
import { openContainer } from './open';
import { Generator } from '../numbers/generator';
import { parseQuestion } from '../kinds/schema';
import { damages } from '../test-support/damages';
import { zipped, type Found, readAll } from '../test-support/packages';

// FUZZ_RUNS makes it long: npx vitest run --project core core/formats/fuzz.test.ts with FUZZ_RUNS=2000
const runs = Number(process.env.FUZZ_RUNS ?? 6);
const folder = new URL('../test-support/samples/', import.meta.url);
const names = readdirSync(folder).filter((name) => !name.endsWith('.expected.json'));
const mostTime = 20_000;

async function attempt(name: string, bytes: Uint8Array): Promise<Found | string> {
	try {
		return await readAll(await openContainer(name, memorySource(bytes)));
	} catch (error) {
		// a file that cannot be opened at all says so in words; anything else is a fault of the program
		if (error instanceof ContainerError) return error.message;
		throw error;
	}
}

/**
 * Whether a loss can be known from what is left: rows and lines leave no gap, and elements may close over one, but a
 * package that is damaged after it was packed has its checksums.
 */
const tells = (name: string, kind: string, inside: boolean) =>
	/\.(zip|imscc|docx|xlsx)$/.test(name)
		? !inside || ['cut', 'flipped', 'another encoding'].includes(kind)
		: kind === 'cut' && /\.(xml|json)$/.test(name);

/** The same package with one of its documents damaged. */
function withDamagedPart(bytes: Uint8Array, random: Generator, damage: (typeof damages)[string]): Uint8Array | null {
	try {
		const files = unzipSync(bytes);
		const paths = Object.keys(files).filter((path) => /\.(xml|rels)$/.test(path));
		if (!paths.length) return null;
		const path = paths[random.below(paths.length)]!;
		return zipped({ ...files, [path]: damage(files[path]!, random) });
	} catch {
		return null;
	}
}

describe('a damaged file', () => {
	it.each(names)(
		'%s is read as far as it goes, in words, without a crash',
		async (name) => {
			const whole = new Uint8Array(readFileSync(new URL(name, folder)));
			const before = await attempt(name, whole);
			const intact = typeof before === 'string' ? 0 : before.questions.length;
			for (const [kind, damage] of Object.entries(damages))
				for (let run = 0; run < runs; run += 1) {
					const random = new Generator(`${name} ${kind} ${run}`);
					const inside = run % 2 ? withDamagedPart(whole, random, damage) : null;
					const started = Date.now();
					const found = await attempt(name, inside ?? damage(whole, random));
					const about = `${name}: ${kind}, run ${run}`;
					expect(Date.now() - started, `${about} took too long`).toBeLessThan(mostTime);
					if (typeof found === 'string') {
						expect(found.length, about).toBeGreaterThan(10);
						continue;
					}
					for (const question of found.questions)
						expect(() => parseQuestion(JSON.parse(JSON.stringify(question))), about).not.toThrow();
					const said = found.reports.length + [...found.about.values()].flat().length;
					// fewer questions than there were are never passed over without a word, where the file can tell
					if (tells(name, kind, inside !== null) && found.questions.length < intact)
						expect(said, `${about}: ${found.questions.length} of ${intact}`).toBeGreaterThan(0);
				}
		},
		600_000
	);
});
