import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isChoice } from '../../kinds';
import { runsOf } from '../../test-support/runs';
import { short } from '../../test-support/short';
import {
	anyHabits,
	anyMeant,
	anyOwnHabits,
	shortOf,
	typed,
	type Habits,
	type Meant,
	type OwnHabits
} from '../../test-support/typed-lists';
import { readMarkedText } from './grammar';
import { linesOf } from './lines';

const runs = runsOf('TYPED', 300);

const expectAsMeant = (text: string, meant: Meant[], habits: Habits, own: (at: number) => OwnHabits) => {
	const { questions } = readMarkedText(linesOf(text), 'a.txt', 'text');
	expect({ text, read: questions.map(({ question }) => short(question)) }).toEqual({ text, read: meant.map(shortOf) });
	questions.forEach(({ question }, at) => {
		const { pointsForm, tags: tagged, feedback: told, optionFeedback, truth } = own(at);
		const { title, category, points, tags, feedback } = question;
		expect({ text, at, title, category, points, tags, feedback }).toEqual({
			text,
			at,
			title: habits.titled ? 'Of the harbour' : '',
			category: habits.heading ? [habits.heading.replace(/^#+ /, '')] : [],
			points: pointsForm === 'none' ? null : 2,
			tags: tagged ? ['harbour', 'autumn'] : [],
			feedback: told ? { general: 'See the handbook of the school.' } : {}
		});
		if (isChoice(question) && optionFeedback && ('options' in meant[at]! || truth === 'options'))
			expect({ text, notes: question.options.map((option) => option.feedback) }).toEqual({
				text,
				notes: question.options.map((_, place) => `Note ${place + 1}.`)
			});
	});
};

describe('a list of questions typed with any mixture of habits', () => {
	it('is read as it was meant', () => {
		fc.assert(
			fc.property(anyMeant, anyHabits, (meant, habits) =>
				expectAsMeant(typed(meant, habits), meant, habits, () => habits)
			),
			runs
		);
	});
	it('is read as it was meant where each question is typed in another way', () => {
		const mixed = fc
			.tuple(anyMeant, anyHabits)
			.chain(([meant, habits]) =>
				fc.tuple(fc.constant(meant), fc.constant(habits), anyOwnHabits(meant.length, habits))
			);
		fc.assert(
			fc.property(mixed, ([meant, habits, own]) =>
				expectAsMeant(typed(meant, habits, own), meant, habits, (at) => own[at]!)
			),
			runs
		);
	});
	it.each([' (Select one)', ' Select one:', ' Choose all that apply.', ' (Choose the best answer.)'])(
		'keeps “%s” with the stem, wherever its line ends',
		(aside) => {
			const asked = anyMeant.map((list) =>
				list.map((one) => ('options' in one ? { ...one, stem: one.stem + aside } : one))
			);
			fc.assert(
				fc.property(asked, anyHabits, (meant, habits) =>
					expectAsMeant(typed(meant, habits), meant, habits, () => habits)
				),
				{ ...runs, numRuns: Math.ceil(runs.numRuns / 4) }
			);
		}
	);
	it.each<[string, (text: string) => string]>([
		['blanks that do not break', (text) => text.replace(/ /g, '\u00a0')],
		['signs that nobody sees', (text) => text.replace(/^| /gm, '$&\u200b')],
		['blanks at the ends of its lines', (text) => text.replace(/$/gm, ' \t')],
		['the line ends of an old Mac', (text) => text.replace(/\r?\n/g, '\r')],
		['line separators', (text) => text.replace(/\r?\n/g, '\u2028')],
		[
			'the signs of a keyboard of the East',
			(text) => text.replace(/[:()]/g, (sign) => String.fromCharCode(sign.charCodeAt(0) + 0xfee0))
		],
		['the marks of an answered mail', (text) => text.replace(/^/gm, '> ')],
		['an indent', (text) => text.replace(/^/gm, '    ')],
		['an empty line behind each line', (text) => text.replace(/\n/g, '\n\n')],
		['line ends of HTML', (text) => text.replace(/\r?\n/g, '<br>\n')],
		['dashes of a word processor', (text) => text.replace(/(?<=^\s*)- /gm, '– ')]
	])('is read as it was meant with %s', (_, change) => {
		fc.assert(
			fc.property(anyMeant, anyHabits, (meant, habits) =>
				expectAsMeant(change(typed(meant, habits)), meant, habits, () => habits)
			),
			{ ...runs, numRuns: Math.ceil(runs.numRuns / 6) }
		);
	});
});
