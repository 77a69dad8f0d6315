import { describe, expect, it } from 'vitest';
import type { Question } from '../kinds';
import { plainText } from '../markup/text';
import { accepting, choiceOf, common, stems } from '../test-support/checked';
import { choice, essay } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { emptyParagraphs } from './empty-paragraphs';
import { keyUnverified } from './key-unverified';
import { mixedQuotes } from './mixed-quotes';
import { mojibake } from './mojibake';
import { noFeedback } from './no-feedback';
import { noTitle } from './no-title';
import { optionsAlike } from './options-alike';
import { outsideLink } from './outside-link';
import { pictureHuge } from './picture-huge';
import { pictureWithoutText } from './picture-without-text';
import { wordMarkup } from './word-markup';

const information: Question = { ...common('Read this.'), kind: 'information' };
const asking = (stem: string, more: object = {}) => choiceOf(stem, ['Port|1', 'Starboard'], more);
const file = (name: string, more: object = {}) => ({
	name,
	mediaType: 'image/png',
	hash: 'a'.repeat(64),
	missing: false,
	...more
});

const pointing = (alt: string): Question => ({
	...common('Where is the mole?'),
	kind: 'hotspot',
	picture: { name: 'media/a.png', width: 400, height: 300, alt },
	shapes: [{ identifier: 'M', shape: 'circle', coordinates: [50, 50, 20], credit: 1 }],
	mode: 'points',
	picks: 1,
	outside: 0,
	combination: 'sum',
	bounds: { lower: null, upper: null }
});

tryCheck(
	optionsAlike,
	[
		{ name: 'options that differ', question: choiceOf('Which?', ['Port|1', 'Starboard']) },
		{ name: 'powers of ten', question: choiceOf('How much?', ['5 mW|1', '5 MW']) },
		{ name: 'units without a number', question: choiceOf('Which unit?', ['m/s|1', 'M/s', 'kn']) },
		{ name: 'single letters', question: choiceOf('Which flag?', ['A|1', 'a']) },
		{ name: 'degrees', question: choiceOf('Which unit?', ['°C|1', '°c']) },
		{ name: 'the same to the letter, which is another trouble', question: choiceOf('Which?', ['Port|1', 'Port']) },
		{
			name: 'two pictures',
			question: choiceOf('Which?', ['<img src="media:a.png" alt="x"/>|1', '<img src="media:b.png" alt="x"/>'])
		},
		{ name: 'numbers with a blank between', question: choiceOf('Which?', ['1 2|1', '12']) }
	],
	[
		{
			name: 'a capital',
			question: choiceOf('Which?', ['Port side|1', 'port side', 'Ahead']),
			says: '“Port side” and “port side” differ',
			words: ['Port side', 'port side']
		},
		{ name: 'a full stop', question: choiceOf('Which?', ['At anchor|1', 'At anchor.']), says: 'differ in capitals' },
		{ name: 'a blank', question: choiceOf('Which?', ['Half mast|1', 'Halfmast']), says: 'Halfmast' },
		{ name: 'quotes', question: choiceOf('What is called?', ['“Mayday”|1', '"Mayday"']), says: 'Mayday' },
		{ name: 'quotes or none', question: choiceOf('What is called?', ['Mayday|1', '‘Mayday’']), says: 'Mayday' },
		{ name: 'three of them', question: choiceOf('Which?', ['Ebb tide|1', 'ebb tide', 'Ebb tide!']), says: 'Ebb tide!' }
	]
);

tryCheck(
	mojibake,
	[
		...stems([
			'Welche Größe hat die Boje?',
			'Où est la bouée à bâbord ?',
			'¿Qué boya está aquí?',
			'A – B',
			'São João',
			'What is 5 °C?',
			'The “port” light’s colour',
			'Ærø and Ålborg',
			'Ã is a letter of Portuguese, as in JOÃO'
		]),
		{ name: 'Greek', question: asking('Τι είναι;') }
	],
	[
		...[
			['Welche GrÃ¶Ã\u009fe hat die Boje?', 'Welche Größe hat die Boje?'],
			['Itâ€™s the port light', 'It’s the port light'],
			['OÃ¹ est la bouÃ©e ?', 'Où est la bouée ?'],
			['What is 5 Â°C?', 'What is 5 °C?'],
			['pages 3â€“5', 'pages 3–5'],
			['â€œMaydayâ€\u009d', '“Mayday”'],
			['naÃ¯ve', 'naïve']
		].map(([stem, right]) => ({
			name: right!,
			question: asking(stem!),
			says: 'not as it was written',
			mended: (question: Question) => expect(question.stem).toBe(right)
		})),
		{
			name: 'in the title and an option',
			question: { ...choiceOf('Which?', ['KÃ¶ln|1', 'Bonn']), title: 'StÃ¤dte' },
			says: '“StÃ¤dte”',
			mended: (question) => expect(question.title).toBe('Städte')
		},
		{ name: 'in an accepted text', question: accepting(['cafÃ©']), says: '“cafÃ©”' },
		{ name: 'a letter that is lost', question: asking('Gr\ufffdße'), says: 'Some letters are lost', mended: null }
	]
);

tryCheck(
	mixedQuotes,
	[
		...stems([
			'What does "port" mean?',
			'What do “port” and “starboard” mean?',
			'Es heißt „Backbord“',
			'A 12" rope and the “port” side',
			"The ship's “bell”",
			'What is « bâbord » and "tribord"?',
			'No quotes at all'
		]),
		{ name: 'quotes in code', question: asking('The “light” is <code>"red"</code>') }
	],
	[
		...[
			['The "port" and the “starboard” side', 'The “port” and the “starboard” side'],
			['„Backbord“ und "Steuerbord"', '„Backbord“ und „Steuerbord“'],
			['“A”, "B" and "C"', '“A”, “B” and “C”'],
			['<p>“A”</p><p><b>"B"</b></p>', '<p>“A”</p><p><b>“B”</b></p>']
		].map(([stem, right]) => ({
			name: right!,
			question: asking(stem!),
			says: 'Straight quotes',
			mended: (question: Question) => expect(question.stem).toBe(right)
		})),
		{ name: 'in two options', question: choiceOf('Which?', ['“Mayday”|1', '"Securité"']), says: 'Straight quotes' },
		{
			name: 'one that is never closed, which only a person can mend',
			question: asking('“A” and "B'),
			says: 'Straight quotes',
			mended: null
		}
	]
);

tryCheck(
	outsideLink,
	[
		...stems([
			'See www.gullhaven.example for more.',
			'Write to https://gullhaven.example in the log.',
			'<a href="#part">here</a>',
			'<a href="mailto:harbour@gullhaven.example">here</a>',
			'<a href="media:rules.pdf">the rules</a>'
		]),
		{
			name: 'a picture of the package',
			question: asking('<img src="media:a.png" alt="x"/>', { attachments: [file('a.png')] })
		}
	],
	[
		{
			name: 'a link',
			question: asking('<a href="https://gullhaven.example/tides">tides</a>'),
			says: '“https://gullhaven.example/tides” leads outside'
		},
		{
			name: 'a link without s',
			question: asking('<a href="http://gullhaven.example">x</a>'),
			says: 'http://gullhaven.example'
		},
		{
			name: 'a picture',
			question: asking('<img src="media:https://gullhaven.example/a.png" alt="x"/>', {
				attachments: [file('https://gullhaven.example/a.png', { missing: true })]
			}),
			says: 'a.png',
			words: ['https://gullhaven.example/a.png']
		},
		{
			name: 'a sound',
			question: asking('<object data="media:https://gullhaven.example/horn.mp3" type="audio/mpeg"></object>'),
			says: 'horn.mp3'
		},
		{
			name: 'in an option',
			question: choiceOf('Which?', ['<a href="https://a.example">A</a>|1', 'B']),
			says: 'a.example'
		},
		{
			name: 'in the feedback',
			question: asking('Which?', { feedback: { general: '<a href="https://b.example/?a=1&amp;b=2">B</a>' } }),
			says: 'a=1&b=2'
		},
		{
			name: 'without a scheme',
			question: asking('<img src="media://gullhaven.example/a.png" alt="x"/>'),
			says: '//gullhaven.example'
		}
	]
);

tryCheck(
	pictureWithoutText,
	[
		...stems([
			'<img src="media:a.png" alt="A red buoy"/>',
			'<img src="media:a.png" alt=""/>',
			'No picture',
			'<object data="media:a.mp3" type="audio/mpeg"></object>',
			'<img src="media:chart.png" alt="chart of the harbour"/>'
		]),
		{
			name: 'a picture that is described, in an option',
			question: choiceOf('Which?', ['<img src="media:a.png" alt="A cone"/>|1', 'B'])
		},
		{ name: 'a picture to be pointed at that is described', question: pointing('A chart of the harbour') }
	],
	[
		{
			name: 'a picture to be pointed at',
			question: pointing(''),
			says: 'the question asks about it',
			words: ['a.png']
		},
		{ name: 'a picture to be pointed at with its name', question: pointing('a'), says: 'a.png', words: ['a.png'] },
		{
			name: 'no text',
			question: asking('<img src="media:img/a.png"/>'),
			says: 'Nothing is said of “a.png”',
			words: ['a.png']
		},
		{ name: 'the name of the file', question: asking('<img src="media:img/a.png" alt="a.png"/>'), says: '“a.png”' },
		{
			name: 'the name without its ending',
			question: asking('<img src="media:img/buoy-3.png" alt="buoy-3"/>'),
			says: '“buoy-3.png”'
		},
		{
			name: 'the name of another file',
			question: asking('<img src="media:a.png" alt="DSC_0041.JPG"/>'),
			says: '“a.png”'
		},
		{ name: 'in an option', question: choiceOf('Which?', ['<img src="media:a.png"/>|1', 'B']), says: '“a.png”' },
		{
			name: 'in the feedback',
			question: asking('Which?', { feedback: { general: '<img src="media:f.png"/>' } }),
			says: '“f.png”'
		},
		{
			name: 'two of them',
			question: asking('<img src="media:a.png"/><img src="media:b.png" alt="B buoy"/><img src="media:c.png"/>'),
			says: '“a.png”, “c.png”'
		}
	]
);

const holding = (more: object) => asking('Which?', { attachments: [file('a.png', more)] });
tryCheck(
	pictureHuge,
	[
		{ name: 'a small one', question: holding({ bytes: 40_000, width: 800, height: 600 }) },
		{ name: 'one of just a megabyte', question: holding({ bytes: 1024 * 1024, width: 2500, height: 100 }) },
		{ name: 'one of which nothing is known', question: holding({}) },
		{ name: 'a long sound', question: holding({ mediaType: 'audio/mpeg', bytes: 9_000_000 }) },
		{
			name: 'a drawing that is large by its numbers alone',
			question: holding({ mediaType: 'image/svg+xml', bytes: 4000, width: 9000, height: 9000 })
		},
		{ name: 'no files', question: asking('Which?') }
	],
	[
		{
			name: 'many bytes',
			question: holding({ bytes: 3 * 1024 * 1024, width: 800, height: 600 }),
			says: '“a.png” has 3.0 MB, 800 by 600 pixels'
		},
		{ name: 'many pixels across', question: holding({ bytes: 90_000, width: 4000, height: 20 }), says: '4000 by 20' },
		{ name: 'many pixels down', question: holding({ bytes: 90_000, width: 20, height: 2501 }), says: '20 by 2501' },
		{ name: 'bytes alone', question: holding({ bytes: 1024 * 1024 + 1 }), says: 'MB' },
		{ name: 'a heavy drawing', question: holding({ mediaType: 'image/svg+xml', bytes: 2_000_000 }), says: '1.9 MB' },
		{
			name: 'one of two',
			question: asking('Which?', { attachments: [file('a.png', { bytes: 9 }), file('b.png', { bytes: 5e6 })] }),
			says: '“b.png”',
			words: ['b.png']
		}
	]
);

const titled = (title: string, stem = 'Which light does a vessel at anchor show?') => ({
	name: `“${title}”`,
	question: { ...asking(stem), identifier: 'GH-7', title }
});
tryCheck(
	noTitle,
	['Anchor light', 'Question of tides', 'Rule 3', 'Q-flag', 'Frage der Gezeiten', 'Port', 'Light 12', 'Channel 16'].map(
		(title) => titled(title)
	),
	[
		...[
			'',
			'Untitled',
			'untitled question',
			'Question 12b',
			'Question 1',
			'question',
			'Q12',
			'Item 3',
			'7',
			'GH-7',
			'Frage 4',
			'Sans titre',
			'Pregunta 2',
			'item_0042',
			'#3'
		].map((title) => ({
			...titled(title),
			says: title ? 'says nothing' : 'has no title',
			mended: (question: Question) => expect(question.title).toBe('Which light does a vessel at anchor show?')
		})),
		{
			...titled('', '<img src="media:a.png" alt=""/>'),
			name: 'a stem without words, which only a person can mend',
			says: 'has no title',
			mended: null
		}
	]
);

tryCheck(
	noFeedback,
	[
		{ name: 'something in general', question: asking('Which?', { feedback: { general: 'Red is port.' } }) },
		{ name: 'something when wrong', question: asking('Which?', { feedback: { incorrect: 'No.' } }) },
		{
			name: 'something at an option',
			question: choice({
				options: choice().options.map((one, at) => ({ ...one, ...(at ? {} : { feedback: 'Yes.' }) }))
			})
		},
		{ name: 'an information', question: information },
		{ name: 'an essay with a word', question: essay({ feedback: { general: 'See the book.' } }) },
		{ name: 'a short answer with a word', question: { ...accepting(['a']), feedback: { correct: 'Yes.' } } }
	],
	[
		{ name: 'none', question: asking('Which?'), says: 'Nothing is said' },
		{ name: 'an empty one', question: asking('Which?', { feedback: { general: '' } }), says: 'Nothing' },
		{ name: 'a short answer', question: accepting(['a']), says: 'Nothing' },
		{ name: 'an essay', question: essay(), says: 'Nothing' },
		{ name: 'hints alone', question: asking('Which?', { hints: ['Look up.'] }), says: 'Nothing' },
		{ name: 'a multiple response', question: asking('Which?', { kind: 'multiple-response' }), says: 'Nothing' }
	]
);

tryCheck(
	emptyParagraphs,
	stems([
		'Which?',
		'<p>One</p><p>Two</p>',
		'One<br/>Two',
		'One<br/><br/>Two',
		'<p><img src="media:a.png" alt=""/></p>',
		'<p><span class="blank" id="B"></span></p>'
	]),
	[
		['<p>One</p><p> </p><p>Two</p>', '<p>One</p><p>Two</p>'],
		['<p>One</p><p>&#160;</p>', '<p>One</p>'],
		['<p>One</p><p>\u00a0</p><p>Two</p>', '<p>One</p><p>Two</p>'],
		['One<br/><br/><br/>Two', 'One<br/><br/>Two'],
		['One<br/> <br/> <br/><br/>Two', 'One<br/><br/>Two'],
		['<p><br/></p><p>One</p>', '<p>One</p>'],
		['<p>One</p><div><div><p><br/></p></div></div>', '<p>One</p>']
	].map(([stem, right]) => ({
		name: stem!,
		question: asking(stem!),
		says: 'in the stem',
		mended: (question: Question) => expect(question.stem).toBe(right)
	}))
);

tryCheck(
	wordMarkup,
	stems([
		'<p>One</p>',
		'<span class="underlined">One</span>',
		'<span class="struck">One</span>',
		'<b>One</b> and <sup>2</sup>',
		'The word Normal',
		'if gte is a word',
		'<span>One</span>'
	]),
	[
		['One<span></span> two', 'One two'],
		['One<span/> two', 'One two'],
		['<p>&lt;!--[if gte mso 9]&gt;x&lt;![endif]--&gt;One</p>', '<p>One</p>'],
		['One &lt;o:p&gt;two&lt;/o:p&gt;', 'One two'],
		['mso-fareast-language: EN-US; One', 'One'],
		['One [if !supportLists]', 'One']
	].map(([stem, right]) => ({
		name: stem!,
		question: asking(stem!),
		says: 'A word processor left',
		mended: (question: Question) => expect(plainText(question.stem)).toBe(plainText(right!))
	}))
);

describe('key-unverified', () => {
	const machine = { machine: true, verified: false };
	it.each([
		['a question of people', choice(), { machine: false, verified: false }],
		['one that was verified', choice(), { machine: true, verified: true }],
		['one of which nothing is known', choice(), undefined],
		['an essay', essay(), machine],
		['an information', information, machine],
		['one without a key, which is another trouble', choiceOf('Which?', ['A', 'B']), machine]
	])('passes over %s', (_, question, known) => expect(keyUnverified.find(question, known)).toEqual([]));
	it.each([
		['a choice', choice()],
		['a short answer', accepting(['a'])],
		['a multiple response', choiceOf('Which?', ['A|0.5', 'B|0.5'], { kind: 'multiple-response' })],
		['a true-false', choiceOf('True?', ['True|1', 'False'], { kind: 'true-false' })],
		['a key for a part', choiceOf('Which?', ['A|0.5', 'B'])],
		['a pattern', accepting(['a+'], { match: 'pattern' })]
	])('finds %s of a machine', (_, question) => expect(keyUnverified.find(question, machine)).toHaveLength(1));
});
