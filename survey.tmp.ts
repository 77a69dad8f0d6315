import fc from 'fast-check';
import { anyHabits, anyMeant, typed, type Meant } from './core/test-support/typed-lists';
import { short } from './core/test-support/short';
import { readMarkedText } from './core/formats/text/grammar';
import { linesOf } from './core/formats/text/lines';
const shortOf = (meant: Meant): string[] => {
	const { kind, stem } = meant;
	if ('options' in meant) return [kind, stem, ...meant.options.map(({ text, right }) => `${right ? '*' : ''}${text}`)];
	if ('right' in meant) return [kind, stem, `${meant.right ? '*' : ''}True`, `${meant.right ? '' : '*'}False`];
	if (meant.kind === 'numeric') return [kind, stem, ...meant.answers.map((text) => { const [, value, tolerance] = /^(\S+)(?: \+\/- (\S+))?$/.exec(text) ?? []; return value === undefined ? text.replace(' to ', '–') : `${Number(value)}±${Number(tolerance ?? 0)}`; })];
	if ('answers' in meant) return [kind, stem, ...meant.answers];
	if ('pairs' in meant) return [kind, stem, ...meant.pairs.map((pair) => pair.join('='))];
	return [kind, stem];
};
const n = +(process.argv[2] ?? 2000), show = +(process.argv[3] ?? 3);
const seed = +(process.argv[4] ?? 1);
const skip = process.argv[5] ? new RegExp(process.argv[5]) : null;
const bad: { text: string; h: Record<string, unknown>; read: string[][]; meant: string[][] }[] = [];
const all: Record<string, unknown>[] = [];
for (const [meant, h] of fc.sample(fc.tuple(anyMeant, anyHabits), { numRuns: n, seed })) {
	if (skip?.test(JSON.stringify({ ...h, numbering: h.named }))) continue;
	const text = typed(meant, h);
	const { questions } = readMarkedText(linesOf(text), 'a.txt', 'text');
	const read = questions.map(({ question }) => short(question));
	const want = meant.map(shortOf);
	const hh = { ...h, numbering: h.named } as Record<string, unknown>;
	all.push(hh);
	const extras = questions.every(({ question }) => question.points === (h.points ? 2 : null) && question.feedback.general === (h.feedback ? 'See the handbook of the school.' : undefined));
	if (JSON.stringify(read) !== JSON.stringify(want) || !extras) bad.push({ text, h: hh, read: extras ? read : [...read, ['EXTRAS', ...questions.map((q) => `${q.question.points} ${q.question.feedback.general}`)]], meant: want });
}
console.log('bad', bad.length, 'of', n);
for (const key of ['numbering', 'key', 'answerWord', 'indent', 'apart', 'loose', 'oneLine', 'wrapped', 'truth', 'points', 'feedback', 'listHeading']) {
	const m = new Map<string, [number, number]>();
	for (const h of all) { const k = JSON.stringify(h[key]); m.set(k, [0, (m.get(k)?.[1] ?? 0) + 1]); }
	for (const { h } of bad) m.get(JSON.stringify(h[key]))![0]++;
	console.log(key, [...m].map(([k, [b, t]]) => [k, Math.round((b / t) * 100)] as const).filter(([, p]) => p > 0).sort((a, b) => b[1] - a[1]).slice(0, 8).map(([k, p]) => `${k} ${p}%`).join(', '));
}
for (const { text, read, meant, h } of bad.sort((a, b) => a.text.length - b.text.length).slice(0, show)) {
	console.log('-----', h.numbering, h.key); console.log(text);
	read.forEach((r, i) => { if (JSON.stringify(r) !== JSON.stringify(meant[i])) console.log('GOT ', JSON.stringify(r), '\nWANT', JSON.stringify(meant[i])); });
	if (read.length < meant.length) console.log('FEWER', read.length, 'of', meant.length);
}
