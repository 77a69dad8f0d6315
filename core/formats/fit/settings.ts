import { plainSettings, shownThings, type QuizSettings } from '../../model/quiz-settings';
import type { QuizLimits } from './quiz-limits';
import { settledWords } from '../quiz-words';
import { counted, listed } from './words';

type Settings = Partial<QuizSettings>;

/** What is shown afterwards, in one order. */
const inOrder = (shown: readonly string[]) => shownThings.filter((thing) => shown.includes(thing));

/** What is shown afterwards where a format can say it as it is: at once, the points among it; else undefined. */
function fitShown(settings: Settings, { review, ownAnswers }: QuizLimits): Settings {
	const { shown, shownWhen = 'at once' } = settings;
	if (!shown || !review || shownWhen !== 'at once' || !shown.includes('points')) return {};
	if (!ownAnswers && shown.includes('own answers')) return {};
	return { shown: inOrder(shown), shownWhen };
}

function timeOf({ minutes }: Settings, limits: QuizLimits, what: string[]): Settings {
	if (minutes == null || !limits.minutes) return {};
	if (limits.seconds || Number.isInteger(minutes)) return { minutes };
	what.push(`Its time limit of ${minutes} minutes is written as ${Math.ceil(minutes)}.`);
	return { minutes: Math.ceil(minutes) };
}

/**
 * What is around a quiz as far as a format has a place for it; what is lost is said. `points` is what every sitting is
 * worth; null where they are not all worth the same, or what is written is worth something else.
 */
export function fitSettings(settings: Settings, points: number | null, limits: QuizLimits, what: string[]): Settings {
	if (limits.sheets) return settings;
	const { description, instructions, minutes, attempts, opens, due, closes, pass, gradeName, gradePoints } = settings;
	const words = settledWords(instructions ?? '');
	const kept: Settings = {
		...(limits.instructions && words ? { instructions: words } : {}),
		...timeOf(settings, limits, what),
		...(limits.attempts && attempts != null ? { attempts } : {}),
		...(limits.pass && pass != null && points ? { pass } : {}),
		...fitShown(settings, limits)
	};
	const plain = plainSettings();
	const isPlain = ({ shown, shownWhen }: Settings) =>
		(shown === undefined || inOrder(shown).join() === inOrder(plain.shown).join()) &&
		(shownWhen ?? plain.shownWhen) === plain.shownWhen;
	const said = [
		...(description ? ['its description'] : []),
		...(words && kept.instructions === undefined ? ['its instructions'] : []),
		...(minutes != null && kept.minutes === undefined ? [`the time limit of ${minutes} minutes`] : []),
		...(attempts != null && kept.attempts === undefined
			? [attempts === 1 ? 'that there is one attempt' : `that there are ${counted(attempts, 'attempt')}`]
			: []),
		...(attempts !== 1 && settings.counted && settings.counted !== plain.counted
			? [`that the ${settings.counted} attempt counts`]
			: []),
		...(opens || due || closes ? ['its dates'] : []),
		...(kept.shown === undefined && !isPlain(settings) ? ['what is shown afterwards'] : []),
		...(pass != null && kept.pass === undefined
			? [
					`the pass mark of ${pass} %${limits.pass ? ', since not every student gets the same points in what is written' : ''}`
				]
			: []),
		...(gradeName || gradePoints != null ? ['its grade'] : [])
	];
	if (said.length) what.push(`What is around it is not written: ${listed(said)}. Set it where the quiz is taught.`);
	return kept;
}
