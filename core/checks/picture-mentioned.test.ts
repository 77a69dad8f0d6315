import { choice } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { pictureMentioned } from './picture-mentioned';

tryCheck(
	pictureMentioned,
	[
		{ name: 'a stem about charts', question: choice({ stem: 'What does a chart of the harbour show?' }) },
		{
			name: 'a picture that is there',
			question: choice({ stem: 'Look at the picture below: <img src="media:a.png" alt=""/>' })
		},
		{
			name: 'a table that is there',
			question: choice({ stem: '<p>In the table below:</p><table><tbody><tr><td>1</td></tr></tbody></table>' })
		},
		{ name: 'a plan', question: choice({ stem: 'What belongs in the plan of a passage?' }) }
	],
	[
		{
			name: 'a chart below',
			question: choice({ stem: 'What kind of front lies over the harbour on the chart below?' }),
			says: 'no picture',
			words: ['chart below']
		},
		{
			name: 'the following diagram',
			question: choice({ stem: 'Name the sail in the following diagram.' }),
			says: 'following diagram'
		},
		{
			name: 'the picture',
			question: choice({ stem: 'What does the flag in the picture mean?' }),
			says: 'in the picture'
		}
	]
);
