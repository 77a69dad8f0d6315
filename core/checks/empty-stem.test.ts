import { choice, essay } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { emptyStem } from './empty-stem';

tryCheck(
	emptyStem,
	[
		{ name: 'words', question: choice() },
		{ name: 'a picture alone', question: choice({ stem: '<img src="media:flag.svg" alt=""/>' }) },
		{
			name: 'a formula alone',
			question: choice({ stem: '<math xmlns="http://www.w3.org/1998/Math/MathML"><mi>h</mi></math>' })
		}
	],
	[
		{ name: 'nothing at all', question: choice({ stem: '' }), says: 'no text and no picture' },
		{
			name: 'white space in paragraphs',
			question: essay({ stem: '<p> </p><p><br/></p>' }),
			says: 'Write what is asked'
		}
	]
);
