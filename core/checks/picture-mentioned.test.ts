import { blankQuestion } from '../kinds/blank';
import { choiceOf, stems } from '../test-support/checked';
import { tryCheck } from '../test-support/tester';
import { pictureMentioned } from './picture-mentioned';

const there = (stem: string) => choiceOf(stem, ['Port|1', 'Starboard']);

tryCheck(
	pictureMentioned,
	[
		...stems([
			'What does a chart of the harbour show?',
			'What belongs in the plan of a passage?',
			'In the figure of eight knot, what is the working part called?',
			'On a weather map, what is an isobar?',
			'What stands in the table of tides?',
			'What is high water above chart datum called?',
			'What light is shown above the deck?',
			'Which of the following charts is best for harbours?',
			'Welche Karte zeigt Häfen?',
			'Quelle carte montre les ports ?'
		]),
		{ name: 'a picture that is there', question: there('Look at the picture below: <img src="media:a.png" alt=""/>') },
		{
			name: 'a table that is there',
			question: there('<p>In the table below:</p><table><tbody><tr><td>1</td></tr></tbody></table>')
		},
		{
			name: 'a text that is there',
			question: there(
				`<p>${'The pilot came aboard at dawn and the ebb had just begun to run. '.repeat(2)}</p><p>In the passage above, when did she come?</p>`
			)
		},
		{
			name: 'a table that is written as text',
			question: there('The table gives the tides: 04:10 is 4.2 m, 10:25 is 1.1 m, 16:40 is 4.4 m. What is the range?')
		},
		{
			name: 'a text that has the blanks',
			question: {
				...blankQuestion('fill-blanks', 1, 'en'),
				stem: 'Read the text and fill in what is missing: the ebb runs at noon.'
			}
		},
		{
			name: 'a shared text',
			question: {
				...there('What does the passage above say?'),
				stimulus: { identifier: 's', title: '', content: 'The ebb runs.' }
			}
		}
	],
	[
		['What kind of front lies over the harbour on the chart below?', 'chart below'],
		['What is shown in the picture?', 'shown in the picture'],
		['Name the sail in the following diagram.', 'in the following diagram'],
		['Use the table below.', 'Use the table'],
		['According to the passage above, what is a spring?', 'According to the passage'],
		['See Figure 3. Which light is it?', 'See Figure 3'],
		['Was ist im Bild zu sehen?', 'im Bild'],
		['Welche Tonne zeigt die Abbildung unten?', 'zeigt die Abbildung'],
		['Quelle bouée voit-on sur l’image ?', 'sur l’image'],
		['Regardez le tableau ci-dessous.', 'Regardez le tableau'],
		['¿Qué se ve en la imagen?', 'en la imagen'],
		['Na figura acima, qual é a boia?', 'Na figura'],
		['Che cosa mostra la seguente tabella?', 'la seguente tabella'],
		['Wat staat er op de foto?', 'op de foto']
	].map(([stem, words]) => ({ name: `“${words!}”`, question: there(stem!), says: words!, words: [words!] }))
);
