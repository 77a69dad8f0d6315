import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { membersOf, type Member } from './members';

async function* inPieces(text: string, size: number): AsyncGenerator<string> {
	for (let at = 0; at < text.length; at += size) yield await Promise.resolve(text.slice(at, at + size));
}
async function members(text: string, size = 7, most = Infinity): Promise<Member[]> {
	const found: Member[] = [];
	for await (const member of membersOf(inPieces(text, size), () => most)) found.push(member);
	return found;
}

describe('the values of a JSON object', () => {
	it('come one at a time, whatever they are and however the text is cut', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.dictionary(
					fc.string({ minLength: 1 }).filter((key) => key !== '__proto__'),
					fc.oneof(fc.array(fc.jsonValue()), fc.jsonValue())
				),
				fc.integer({ min: 1, max: 40 }),
				fc.constantFrom(undefined, '\t'),
				async (object, size, indent) => {
					const found = await members(JSON.stringify(object, null, indent), size);
					expect(found.every((member) => !member.damaged)).toBe(true);
					const expected = Object.entries(object).flatMap(([key, value]) =>
						Array.isArray(value) ? value.map((one) => [key, one]) : [[key, value]]
					);
					expect(found.map(({ key, text }) => [JSON.parse(`"${key}"`), JSON.parse(text)])).toEqual(
						JSON.parse(JSON.stringify(expected))
					);
				}
			)
		);
	});
	it('know the lines that they begin on', async () => {
		const found = await members('{\n"a": [\n1,\n{\n"b": 2\n},\n"x\\ny"\n],\n"c": 3}');
		expect(found.map(({ line, text }) => [line, text])).toEqual([
			[3, '1'],
			[4, '{\n"b": 2\n}'],
			[7, '"x\\ny"'],
			[9, '3']
		]);
	});
	it('behind a damaged one are found wherever in a long text it stands', async () => {
		// the text that is done with is let go at 256 kB: an entry may end on any side of that
		for (let size = 2 ** 18 - 40; size <= 2 ** 18; size += 1) {
			const text = `{\n\t"list": [\n\t\t{ "a": "${'x'.repeat(size)}" },\n\t\t{\n\t\t\t"b": "no end,\n\t\t},\n\t\t{ "c": 3 }\n\t]\n}`;
			const found = await members(text, 65_536);
			expect(found.map(({ damaged, line }) => [damaged, line])).toEqual([
				[false, 3],
				[true, 4],
				[false, 7]
			]);
		}
	});
	it('are passed over where they are longer than is wanted, with their beginning and their length', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.array(fc.jsonValue(), { minLength: 1 }),
				fc.integer({ min: 1, max: 40 }),
				fc.nat(50),
				fc.constantFrom(undefined, '\t'),
				async (list, size, most, indent) => {
					const text = JSON.stringify({ list, end: 7 }, null, indent);
					const whole = await members(text, size);
					const cut = await members(text, size, most);
					// a line that begins as the next entry does is taken for one, which only has to be right in what is longer
					if (indent === undefined)
						expect(cut).toEqual(whole.map((one) => ({ ...one, text: one.text.slice(0, most) })));
					else expect(cut.slice(0, 1)).toEqual([{ ...whole[0]!, text: whole[0]!.text.slice(0, most) }]);
				}
			)
		);
	});
	it('that have lost their end are told from the next one, also where they are longer than is wanted', async () => {
		for (const size of [1, 7, 1000])
			for (const most of [0, 30, 100, 5000]) {
				const text = `{\n\t"list": [\n\t\t{ "a": "${'x'.repeat(60)}",\n\t\t\t"b": 1,\n\t\t{ "c": "${'y'.repeat(200)}" },\n\t\t{ "d": 3 }\n\t]\n}`;
				const found = await members(text, size, most);
				expect(found.map(({ damaged, text: kept }) => [damaged, kept])).toEqual([
					[true, `{ "a": "${'x'.repeat(60)}",\n\t\t\t"b": 1,`.slice(0, most)],
					[false, `{ "c": "${'y'.repeat(200)}" }`.slice(0, most)],
					[false, '{ "d": 3 }'.slice(0, most)]
				]);
			}
	});
	it('that are cut off or damaged say so, and end', async () => {
		await fc.assert(
			fc.asyncProperty(fc.string(), fc.nat(), async (noise, at) => {
				const text = '{"list": [{"a": "b"}, [1, 2], "c"], "more": {"d": null}}';
				const cut = at % text.length;
				await members(text.slice(0, cut) + noise + text.slice(cut));
				const short = await members(text.slice(0, cut));
				expect(cut === 0 || short.at(-1)?.damaged).toBe(true);
			})
		);
	});
});
