import { expect } from 'vitest';
import type { Question } from '../kinds';
import { choiceOf, lasts } from '../test-support/checked';
import { tryCheck } from '../test-support/tester';
import { optionPlace } from './option-place';

const found = [
	'All of the above',
	'None of these',
	'Both of the first two',
	'none of the above.',
	'Any of the above',
	'Neither of these',
	'All of these answers are correct',
	'Alle oben genannten',
	'Keine der genannten',
	'Die ersten beiden',
	'Toutes les réponses ci-dessus',
	'Aucune de ces réponses',
	'Todas las anteriores',
	'Ninguna de las anteriores',
	'Todas as anteriores',
	'Nenhuma das alternativas',
	'Tutte le precedenti',
	'Nessuna delle precedenti',
	'Alle bovenstaande',
	'Geen van deze'
];
const left = [
	'None of the lights is lit',
	'All vessels at anchor',
	'Both lights',
	'The first two minutes',
	'All others keep clear',
	'None',
	'Keine Lichter',
	'Les deux bateaux',
	'Todas las luces',
	'Tutte le barche',
	'Alle schepen',
	'Above the waterline'
];

tryCheck(
	optionPlace,
	[
		...lasts(left),
		{ name: 'options that keep their order', question: lasts(['All of the above'], { shuffle: false })[0]!.question },
		{
			name: 'a pinned one',
			question: {
				...choiceOf('Which?', ['Red|1', 'All of these']),
				options: choiceOf('Which?', ['Red|1', 'All of these']).options.map((one, at) => ({ ...one, pinned: at === 1 }))
			}
		}
	],
	lasts(found).map(({ name, question }) => ({
		name,
		question,
		says: 'shuffled out of its place',
		mended: (after: Question) =>
			expect('options' in after && after.options.map(({ pinned }) => pinned)).toEqual([false, false, false, true])
	}))
);
