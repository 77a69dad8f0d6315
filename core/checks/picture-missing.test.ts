import { describe, expect, it } from 'vitest';
import { choice, essay } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { pictureMissing } from './picture-missing';

const file = (name: string, missing: boolean) => ({
	name,
	mediaType: 'image/png',
	hash: missing ? null : 'a'.repeat(64),
	missing
});

tryCheck(
	pictureMissing,
	[
		{ name: 'no files', question: choice() },
		{
			name: 'a picture on another server, which a check of its own speaks of',
			question: choice({ attachments: [file('https://gullhaven.example/low.png', true)] })
		},
		{ name: 'a file that came', question: choice({ attachments: [file('images/front.png', false)] }) },
		{ name: 'a sound that came', question: choice({ attachments: [file('sounds/fog.mp3', false)] }) },
		{
			name: 'a picture on another server without its scheme',
			question: choice({ attachments: [file('//gullhaven.example/low.png', true)] })
		},
		{ name: 'several that came', question: choice({ attachments: [file('a.png', false), file('b.png', false)] }) }
	],
	[
		{
			name: 'a file that did not come',
			question: choice({ attachments: [file('images/front.png', true), file('images/low.png', false)] }),
			says: '“images/front.png” is not in the package',
			words: ['images/front.png']
		},
		{
			name: 'two of them',
			question: choice({ attachments: [file('a.png', true), file('b.mp3', true)] }),
			says: '“a.png”, “b.mp3” are not in the package'
		},
		{
			name: 'one beside one on another server',
			question: choice({ attachments: [file('https://gullhaven.example/low.png', true), file('c.png', true)] }),
			says: '“c.png” is not in the package',
			words: ['c.png']
		},
		{
			name: 'a sound',
			question: choice({ attachments: [file('sounds/fog.mp3', true)] }),
			says: '“sounds/fog.mp3” is not in the package'
		},
		{
			name: 'one of an essay',
			question: { ...essay(), attachments: [file('plan.pdf', true)] },
			says: '“plan.pdf” is not in the package'
		},
		{
			name: 'one with blanks in its name',
			question: choice({ attachments: [file('my charts/Plan 1.png', true)] }),
			says: '“my charts/Plan 1.png” is not in the package'
		}
	]
);

describe('a file of that name that came with the load', () => {
	const gone = choice({ attachments: [file('wrong/front.png', true), file('images/low.png', false)] });
	const came = { ...file('wrong/front.png', false), bytes: 12 };
	it('takes the place of the one that is not there, under its name', () => {
		const mended = pictureMissing.mend!.apply(gone, { readAgain: () => null, fileFor: () => came });
		expect(mended.attachments).toEqual([came, gone.attachments[1]]);
		expect(pictureMissing.find(mended)).toEqual([]);
	});
	it('changes nothing where there is none', () => {
		expect(pictureMissing.mend!.apply(gone, { readAgain: () => null, fileFor: () => null })).toBe(gone);
		expect(pictureMissing.mend!.apply(gone, { readAgain: () => null })).toBe(gone);
	});
});
