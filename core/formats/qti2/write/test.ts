import type { PartToWrite, QuizToWrite } from '../../../model/quiz';
import type { QuizSettings } from '../../../model/quiz-settings';
import { tidy } from '../../../numbers/numbers';
import { escapeAttribute } from '../../../xml/serialise';
import { unitsOf } from '../../fit/groups';
import { wholeQuizzes, type QuizLimits } from '../../fit/quiz-limits';
import { paragraphsOf } from '../../quiz-words';
import { safeIdentifier } from './parts';

/** What tests of QTI 2.x and 3.0 hold of a quiz: attempts are counted there for each question, not for the whole. */
export const quizzes2: QuizLimits = {
	...wholeQuizzes,
	mixes: true,
	groups: true,
	instructions: true,
	minutes: true,
	seconds: true,
	review: true,
	ownAnswers: true,
	pass: true
};

/** An item as a test refers to it. */
export interface WrittenItem {
	file: string;
	identifier: string;
	points: number;
}

type Settings = Partial<QuizSettings>;

/** What is shown once all is handed in (2.1, 10.4: itemSessionControl), where that is said. */
function controlOf({ shown }: Settings): string {
	if (!shown) return '';
	const has = (thing: (typeof shown)[number]) => String(shown.includes(thing));
	return `<itemSessionControl showFeedback="${has('feedback')}" allowReview="${has('own answers')}" showSolution="${has('right answers')}"/>`;
}

/** The outcome that sums up all points, with the pass mark as its mastery value (2.1, 12.2: outcomeDeclaration). */
function outcomeOf({ pass }: Settings, points: number | null | undefined): string {
	const mark =
		pass == null || !points ? '' : ` normalMaximum="${tidy(points)}" masteryValue="${tidy((pass * points) / 100)}"`;
	return `<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"${mark}/>`;
}

/** A quiz as a test whose sections refer to items, with the names of 2.1; `items` are those that were written for each question. */
export function testXml(quiz: QuizToWrite, items: Map<number, WrittenItem[]>, namespace: string): string {
	const { settings = {}, points } = quiz;
	// instructions have a place only in a section (2.1, 10.6: rubricBlock): that which is seen first
	const words = settings.instructions
		? `<rubricBlock use="instructions" view="candidate">${paragraphsOf(settings.instructions)}</rubricBlock>`
		: '';
	const isMixed = quiz.rules?.partsShuffled === true;
	let reference = 0;
	const referencesOf = (questions: readonly number[], { pointsEach }: PartToWrite) =>
		questions.flatMap((question) =>
			(items.get(question) ?? []).map((item) => {
				reference += 1;
				const weight =
					pointsEach === null ? '' : `<weight identifier="WEIGHT" value="${tidy(pointsEach / (item.points || 1))}"/>`;
				return `<assessmentItemRef identifier="R${reference}" href="../${item.file}"${weight ? `>${weight}</assessmentItemRef>` : '/>'}`;
			})
		);
	const sections = quiz.parts.map((part, at) => {
		// a section that is not seen as one is kept together, and counts as one where it is drawn (2.1, 10.5)
		const references = unitsOf(part.questions, part.groups ?? []).flatMap((unit, place) => {
			const held = referencesOf(unit, part);
			return unit.length === 1
				? held
				: `<assessmentSection identifier="S${at + 1}-G${place + 1}" title="${escapeAttribute(`${part.title} ${place + 1}`)}" visible="false">\n${held.join('\n')}\n</assessmentSection>`;
		});
		const select = part.draw === null ? '' : `<selection select="${part.draw / (part.groups?.[0]?.length ?? 1)}"/>`;
		return `<assessmentSection identifier="S${at + 1}" title="${escapeAttribute(part.title)}" visible="true">${select}<ordering shuffle="${part.shuffle}"/>${at === 0 && !isMixed ? words : ''}\n${references.join('\n')}\n</assessmentSection>`;
	});
	// a weight that is named has to be there (2.1, 14.2: weightIdentifier)
	const weighted = sections.some((section) => section.includes('<weight '));
	// parts in random order are sections of one that shuffles them (2.1, 10.7: ordering)
	const body = isMixed
		? `<assessmentSection identifier="S0" title="${escapeAttribute(quiz.title)}" visible="false"><ordering shuffle="true"/>${words}\n${sections.join('\n')}\n</assessmentSection>`
		: sections.join('\n');
	const limit = settings.minutes == null ? '' : `<timeLimits maxTime="${tidy(settings.minutes * 60)}"/>\n`;
	return `<?xml version="1.0" encoding="UTF-8"?>\n<assessmentTest xmlns="${namespace}" identifier="${escapeAttribute(safeIdentifier(quiz.identifier, 'QUIZ'))}" title="${escapeAttribute(quiz.title)}">\n${outcomeOf(settings, points)}\n${limit}<testPart identifier="P1" navigationMode="nonlinear" submissionMode="simultaneous">\n${controlOf(settings)}${body}\n</testPart>\n<outcomeProcessing><setOutcomeValue identifier="SCORE"><sum><testVariables variableIdentifier="SCORE"${weighted ? ' weightIdentifier="WEIGHT"' : ''}/></sum></setOutcomeValue></outcomeProcessing>\n</assessmentTest>\n`;
}
