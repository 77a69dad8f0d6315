import type { QuizToWrite } from '../../../model/quiz';
import type { QuizSettings } from '../../../model/quiz-settings';
import { tidy } from '../../../numbers/numbers';
import { escapeAttribute, escapeText } from '../../../xml/serialise';
import { unitsOf } from '../../fit/groups';
import { paragraphsOf } from '../../quiz-words';

type Settings = Partial<QuizSettings>;

const yes = (truth: boolean) => (truth ? 'Yes' : 'No');

/** A time limit as a duration (ISO 8601): in minutes where they are whole, else in seconds. */
const durationOf = (minutes: number) =>
	Number.isInteger(minutes) ? `PT${minutes}M` : `PT${Math.round(minutes * 60)}S`;

const rubricOf = ({ instructions }: Settings) =>
	instructions
		? `<rubric view="Candidate"><material><mattext texttype="text/html">${escapeText(paragraphsOf(instructions))}</mattext></material></rubric>`
		: '';

/** Whether feedback and right answers are shown (assessmentcontrol, 3.2.1), where that is said. */
function controlOf({ shown }: Settings): string {
	if (!shown) return '';
	return `<assessmentcontrol feedbackswitch="${yes(shown.includes('feedback'))}" solutionswitch="${yes(shown.includes('right answers'))}"/>`;
}

/** The pass mark as the value from which the sum of all points is a pass. */
function outcomesOf({ pass }: Settings, points: number | null | undefined): string {
	if (pass == null || !points) return '';
	return `<outcomes_processing scoremodel="SumofScores"><outcomes><decvar varname="SCORE" vartype="Decimal" minvalue="0" maxvalue="${tidy(points)}" cutvalue="${tidy((pass * points) / 100)}"/></outcomes></outcomes_processing>`;
}

/** A quiz as an assessment whose sections refer to items; `items` are their identifiers by the place of each question. */
export function quizXml(
	quiz: QuizToWrite,
	items: Map<number, string[]>,
	at: number,
	head: string,
	namespace: string
): string {
	const { settings = {} } = quiz;
	const sections = quiz.parts.map((part, n) => {
		// a section in a section is drawn as one (selection and ordering, 3), and has no title where it is but a group
		const references = unitsOf(part.questions, part.groups ?? []).map((unit, place) => {
			const held = unit
				.flatMap((question) => items.get(question) ?? [])
				.map((item) => `<itemref linkrefid="${escapeAttribute(item)}"/>`)
				.join('');
			return unit.length === 1 ? held : `<section ident="Q${at + 1}-P${n + 1}-G${place + 1}">${held}</section>`;
		});
		const selection =
			part.draw === null
				? '<selection/>'
				: `<selection><selection_number>${part.draw / (part.groups?.[0]?.length ?? 1)}</selection_number></selection>`;
		return `<section ident="Q${at + 1}-P${n + 1}" title="${escapeAttribute(part.title)}"><selection_ordering>${selection}<order order_type="${part.shuffle ? 'Random' : 'Sequential'}"/></selection_ordering>${references.join('')}</section>`;
	});
	const duration = settings.minutes == null ? '' : `<duration>${durationOf(settings.minutes)}</duration>`;
	const around = `${duration}${controlOf(settings)}${rubricOf(settings)}${outcomesOf(settings, quiz.points)}${quiz.rules?.partsShuffled ? '<selection_ordering><selection/><order order_type="Random"/></selection_ordering>' : ''}`;
	return `${head}<questestinterop xmlns="${namespace}">\n<assessment ident="${escapeAttribute(quiz.identifier || `QUIZ-${at + 1}`)}" title="${escapeAttribute(quiz.title)}">${around}\n${sections.join('\n')}\n</assessment>\n</questestinterop>\n`;
}

/** The beginning of the assessment of a quiz in a cartridge, with what the profile has a place for of what is around it. */
export function openedExam(quiz: QuizToWrite, at: number, settings: Settings = {}): string {
	const { minutes, attempts, shown } = settings;
	const fields: [string, string][] = [
		['cc_profile', 'cc.exam.v0p1'],
		['qmd_assessmenttype', 'Examination'],
		...(shown
			? ([
					['qmd_feedbackpermitted', yes(shown.includes('feedback'))],
					['qmd_solutionspermitted', yes(shown.includes('right answers'))]
				] as [string, string][])
			: []),
		...(minutes == null ? [] : ([['qmd_timelimit', String(minutes)]] as [string, string][])),
		...(attempts == null ? [] : ([['cc_maxattempts', String(attempts)]] as [string, string][]))
	];
	const metadata = fields
		.map(
			([label, entry]) =>
				`<qtimetadatafield><fieldlabel>${label}</fieldlabel><fieldentry>${entry}</fieldentry></qtimetadatafield>`
		)
		.join('');
	return `<assessment ident="${escapeAttribute(quiz.identifier || `QUIZ-${at + 1}`)}" title="${escapeAttribute(quiz.title)}"><qtimetadata>${metadata}</qtimetadata>${rubricOf(settings)}`;
}
