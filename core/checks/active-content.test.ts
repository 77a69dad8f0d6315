import { expect } from 'vitest';
import { choice } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { activeContent } from './active-content';

tryCheck(
	activeContent,
	[{ name: 'a question with nothing taken out', question: choice() }],
	[
		{
			name: 'a script and a handler',
			question: choice({ removed: ['script', 'onerror handler'] }),
			says: 'script, onerror handler',
			mended: (question) => expect(question.removed).toEqual([])
		}
	]
);
