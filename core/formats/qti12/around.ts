import type { FoundQuiz } from '../../model/quiz';
import { longestInstructions, mostAttempts, mostMinutes, type QuizSettings } from '../../model/quiz-settings';
import { parseNumber } from '../../numbers/numbers';
import { trimmed, type XmlElement } from '../../xml/tree';
import { wordsOfMarkup } from '../quiz-words';
import { joinBlocks, materialBelow } from './material';
import { metadataOf } from './metadata';

type Settings = Partial<QuizSettings>;

const quiet = { media: (address: string) => address, removed: () => undefined };
const silent = /profile|^qmd_assessmenttype$|^qmd_hintspermitted$/i;
const isYes = (text: string | undefined) => /^(yes|true|1)$/i.test(text ?? '');
/** A duration in days, hours, minutes and seconds (ISO 8601). */
const duration = /^P(?:(\d+)D)?(?:T(?:(\d+(?:\.\d+)?)H)?(?:(\d+(?:\.\d+)?)M)?(?:(\d+(?:\.\d+)?)S)?)?$/;

const asMinutes = (minutes: number): number | null =>
	minutes >= 1 && minutes <= mostMinutes ? Math.round(minutes * 1e6) / 1e6 : null;

/** The minutes of a duration; null where it is none, or nothing that a quiz can be limited to. */
export function minutesOfDuration(text: string): number | null {
	const found = duration.exec(text.trim());
	if (!found) return null;
	const [days, hours, minutes, seconds] = found.slice(1).map((part) => Number(part ?? 0));
	return asMinutes(days! * 1440 + hours! * 60 + minutes! + seconds! / 60);
}

/** The pass mark in percent that a score variable says by its cut value (3.2.1: decvar); null where it cannot be told. */
export function passOf({ cutvalue, maxvalue, minvalue }: Record<string, string | undefined>): number | null {
	const [cut, most, least] = [cutvalue, maxvalue, minvalue ?? '0'].map((text) => parseNumber(text ?? ''));
	if (cut == null || most == null || least !== 0 || most <= 0 || cut < 0 || cut > most) return null;
	return Math.round((cut / most) * 1e8) / 1e6;
}

/** Metadata of an assessment that has a place in a quiz: takes it into the settings, or says that it does not fit. */
const fields = new Map<string, (value: string, settings: Settings) => boolean>([
	[
		'qmd_timelimit',
		(value, settings) => {
			const minutes = asMinutes(parseNumber(value) ?? 0);
			if (minutes !== null) settings.minutes = minutes;
			return minutes !== null;
		}
	],
	[
		'cc_maxattempts',
		(value, settings) => {
			if (/^unlimited$/i.test(value)) return true;
			const attempts = parseNumber(value) ?? 0;
			const fits = Number.isInteger(attempts) && attempts >= 1 && attempts <= mostAttempts;
			if (fits) settings.attempts = attempts;
			return fits;
		}
	],
	['qmd_feedbackpermitted', (value, settings) => show(settings, 'feedback', isYes(value))],
	['qmd_solutionspermitted', (value, settings) => show(settings, 'right answers', isYes(value))]
]);

/** Notes whether something is shown afterwards; points are, for nothing says that they are not. */
function show(settings: Settings, thing: QuizSettings['shown'][number], isShown: boolean): true {
	const others = (settings.shown ?? ['points']).filter((other) => other !== thing);
	const shown = isShown ? [...others, thing] : others;
	// in the order in which they are always named
	settings.shown = (['points', 'own answers', 'right answers', 'feedback'] as const).filter((one) =>
		shown.includes(one)
	);
	settings.shownWhen = 'at once';
	return true;
}

function takeMetadata(element: XmlElement, settings: Settings): string {
	return [...metadataOf(element)]
		.filter(([name, value]) => value && !silent.test(name) && !fields.get(name.toLowerCase())?.(value, settings))
		.map(([name, value]) => `“${name}: ${value}”`)
		.join(', ');
}

function takeWords(element: XmlElement, settings: Settings): boolean {
	const { view = 'All' } = element.attributes;
	if (element.name === 'rubric' && !/^(all|candidate)$/i.test(view)) return false;
	const words = wordsOfMarkup(joinBlocks(materialBelow(element, quiet))) || trimmed(element);
	const all = [settings.instructions, words].filter(Boolean).join('\n\n');
	if (!words || all.length > longestInstructions) return false;
	settings.instructions = all;
	return true;
}

/**
 * Takes what an assessment says around its questions into its quiz (3.2.1): its time, its attempts, what is shown
 * afterwards, its words for candidates. Says whether it was taken whole, and in words what of its metadata was not.
 */
export function takeAround(element: XmlElement, quiz: FoundQuiz): { isTaken: boolean; unheld: string } {
	const settings: Settings = { ...quiz.settings };
	const { attributes } = element;
	let isTaken = false;
	let unheld = '';
	if (element.name === 'duration') {
		const minutes = minutesOfDuration(trimmed(element));
		if (minutes !== null) settings.minutes = minutes;
		isTaken = minutes !== null;
	} else if (element.name === 'rubric' || element.name === 'presentation_material')
		isTaken = takeWords(element, settings);
	else if (element.name === 'qtimetadata') unheld = takeMetadata(element, settings);
	else if (element.name === 'assessmentcontrol') {
		const { feedbackswitch, solutionswitch } = attributes;
		if (feedbackswitch !== undefined) show(settings, 'feedback', isYes(feedbackswitch));
		if (solutionswitch !== undefined) show(settings, 'right answers', isYes(solutionswitch));
	}
	if (Object.keys(settings).length) quiz.settings = settings;
	return { isTaken, unheld };
}
