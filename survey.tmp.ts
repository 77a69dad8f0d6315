import fc from 'fast-check';
import { anyMeant, shortOf } from './core/test-support/typed-lists';
import { anyWordHabits, written } from './core/test-support/word-lists';
import { wordDocument } from './core/test-support/word-parts';
import { readAll } from './core/test-support/packages';
import { short } from './core/test-support/short';
const n = +(process.argv[2] ?? 500), show = +(process.argv[3] ?? 3), seed = +(process.argv[4] ?? 1);
const bad: { h: Record<string, unknown>; read: string[][]; meant: string[][]; reports: string[] }[] = [];
const all: Record<string, unknown>[] = [];
for (const [meant, h] of fc.sample(fc.tuple(anyMeant, anyWordHabits), { numRuns: n, seed })) {
	const { questions, reports } = await readAll(await wordDocument(written(meant, h)));
	const read = questions.map(short);
	const want = meant.map(shortOf);
	all.push(h as never);
	const extras = questions.every((q) => q.points === (h.points ? 2 : null) && q.feedback.general === (h.feedback ? 'See the handbook of the school.' : undefined) && q.category.join() === h.heading);
	if (JSON.stringify(read) !== JSON.stringify(want) || !extras) bad.push({ h: h as never, read: extras ? read : [...read, ['EXTRAS', ...questions.map((q) => JSON.stringify([q.points, q.feedback, q.category]))]], meant: want, reports: reports.map((r) => r.message) });
}
console.log('bad', bad.length, 'of', n);
for (const key of Object.keys(all[0]!)) {
	const m = new Map<string, [number, number]>();
	for (const h of all) { const k = JSON.stringify(h[key]); m.set(k, [0, (m.get(k)?.[1] ?? 0) + 1]); }
	for (const { h } of bad) m.get(JSON.stringify(h[key]))![0]++;
	if (m.size < 15) console.log(key, [...m].map(([k, [b, t]]) => [k, Math.round((b / t) * 100)] as const).filter(([, p]) => p > 0).sort((a, b) => b[1] - a[1]).slice(0, 8).map(([k, p]) => `${k} ${p}%`).join(', '));
}
for (const { read, meant, h, reports } of bad.sort((a, b) => a.meant.length - b.meant.length).slice(0, show)) {
	console.log('-----', JSON.stringify(h));
	read.forEach((r, i) => { if (JSON.stringify(r) !== JSON.stringify(meant[i])) console.log('GOT ', JSON.stringify(r), '\nWANT', JSON.stringify(meant[i])); });
	if (read.length < meant.length) console.log('FEWER', read.length, 'of', meant.length);
	console.log(reports.join(' | ').slice(0, 300));
}
for (const b of bad.slice(0, 2)) console.log(JSON.stringify(b.meant));
