import { expect } from 'vitest';
import type { Question } from '../kinds';
import { choice, essay } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { activeContent } from './active-content';

tryCheck(
	activeContent,
	[
		{ name: 'a question with nothing taken out', question: choice() },
		{ name: 'the word script in a stem', question: choice({ stem: 'What is the script of a radio call?' }) },
		{ name: 'a script that is shown as words', question: choice({ stem: 'What does &lt;script&gt; do?' }) },
		{ name: 'a link', question: choice({ stem: '<a href="https://gullhaven.example/tides">The tables</a>' }) },
		{ name: 'a picture', question: choice({ stem: 'Which? <img src="media:a.png" alt="A buoy"/>' }) },
		{ name: 'an essay', question: essay() }
	],
	[
		{
			name: 'a script and a handler',
			question: choice({ removed: ['script', 'onerror handler'] }),
			says: 'script, onerror handler',
			mended: (question) => expect(question.removed).toEqual([])
		},
		...['iframe', 'object', 'form', 'javascript link', 'onclick handler'].map((removed) => ({
			name: `one that had a ${removed}`,
			question: choice({ removed: [removed] }),
			says: removed,
			mended: (question: Question) => expect(question.removed).toEqual([])
		}))
	]
);
