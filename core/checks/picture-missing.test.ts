import { choice } from '../test-support/questions';
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
		{ name: 'a file that came', question: choice({ attachments: [file('images/front.png', false)] }) }
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
		}
	]
);
