import { choice } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { expect } from 'vitest';
import { boilerplate } from './boilerplate';

tryCheck(
	boilerplate,
	[
		{ name: 'a plain stem', question: choice() },
		{
			name: 'a stem that asks to choose',
			question: choice({ stem: 'How do you choose one of two berths in a swell?' })
		},
		{ name: 'marks at sea', question: choice({ stem: 'Which buoys mark all channels of the harbour?' }) }
	],
	[
		{
			name: 'a line at the end',
			question: choice({ stem: 'What are the colours of a safe water mark? Select one:' }),
			says: 'Select one:',
			words: ['Select one:'],
			mended: (question) => expect(question.stem).toBe('What are the colours of a safe water mark?')
		},
		{
			name: 'an instruction in brackets',
			question: choice({ stem: '<p>Which knots hold? (Choose all that apply)</p><p>Think twice.</p>' }),
			says: '(Choose all that apply)',
			mended: (question) => expect(question.stem).toBe('<p>Which knots hold?</p><p>Think twice.</p>')
		}
	]
);
