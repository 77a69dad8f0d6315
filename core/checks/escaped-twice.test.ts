import { expect } from 'vitest';
import { plainText } from '../markup/text';
import { choice, option } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { escapedTwice } from './escaped-twice';

tryCheck(
	escapedTwice,
	[
		{ name: 'ordinary signs', question: choice({ stem: 'Depth &lt; 5 m &amp; falling' }) },
		{ name: 'names of two firms', question: choice({ stem: 'Reach &amp; Olden; ropes' }) },
		{ name: 'a comparison', question: choice({ stem: 'a &lt; b and c &gt; d' }) },
		{ name: 'an ampersand in front of a word', question: choice({ stem: 'Rock &amp;roll of a vessel' }) },
		{ name: 'code that is marked as code', question: choice({ stem: 'What does <code>&amp;amp;</code> stand for?' }) },
		{ name: 'an arrow of signs', question: choice({ stem: 'North -&gt; east &lt;- south' }) }
	],
	[
		{
			name: 'quotation marks in the stem',
			question: choice({ stem: 'The chart shows &amp;quot;Wk&amp;quot; here' }),
			says: 'in the stem',
			words: ['&quot;'],
			mended: (question) => expect(plainText(question.stem)).toBe('The chart shows "Wk" here')
		},
		{
			name: 'three times',
			question: choice({ stem: 'Ship &amp;amp;amp; shore' }),
			says: '&amp;amp;',
			mended: (question) => expect(plainText(question.stem)).toBe('Ship & shore')
		},
		{
			name: 'tags that students read, in an option',
			question: choice({ options: [option('A', '&lt;b&gt;Cirrus&lt;/b&gt;', 1), option('B', 'Stratus', 0)] }),
			says: 'in the option 1',
			mended: (question) => expect('options' in question && question.options[0]!.text).toBe('<b>Cirrus</b>')
		},
		{
			name: 'a number of a sign',
			question: choice({ feedback: { general: 'It is 5&amp;#176; west' } }),
			says: 'general feedback',
			mended: (question) => expect(question.feedback.general).toBe('It is 5° west')
		},
		{
			name: 'a script that was escaped: it stays words or goes, and never comes alive',
			question: choice({ stem: '&amp;quot;&lt;script&gt;stop()&lt;/script&gt;' }),
			says: '&quot;',
			mended: (question) => expect(question.stem).not.toContain('<script')
		},
		{
			name: 'a sign beside code, which stays as it is',
			question: choice({ stem: '<p>Ship &amp;quot;Tern&amp;quot; sends <code>&amp;amp;</code> now</p>' }),
			says: '&quot;',
			mended: (question) => {
				expect(plainText(question.stem)).toContain('Ship "Tern" sends');
				expect(question.stem).toContain('<code>&amp;amp;</code>');
			}
		},
		{
			name: 'a fraction by its name',
			question: choice({ stem: 'It draws 1&amp;frac12; m.' }),
			says: '&frac12;',
			mended: (question) => expect(plainText(question.stem)).toBe('It draws 1½ m.')
		}
	]
);
