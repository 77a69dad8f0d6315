import { markupOfNodes } from '../../markup/clean';
import { longestInstructions, mostMinutes, type QuizSettings } from '../../model/quiz-settings';
import { parseNumber } from '../../numbers/numbers';
import { childrenOf, type XmlElement } from '../../xml/tree';
import { wordsOfMarkup } from '../quiz-words';

const quiet = { media: (address: string) => address, removed: () => undefined };

/** What itemSessionControl says that a quiz has a place for, by what it is called here (2.1, 10.4). */
const shows = [
	['allowReview', 'own answers'],
	['showSolution', 'right answers'],
	['showFeedback', 'feedback']
] as const;

const minutesOf = (limits: XmlElement): number | null => {
	const seconds = parseNumber(limits.attributes.maxTime ?? '');
	const minutes = seconds === null ? null : Math.round((seconds / 60) * 1e6) / 1e6;
	return minutes !== null && minutes >= 1 && minutes <= mostMinutes ? minutes : null;
};

/**
 * What stands around the questions of a test and has a place in a quiz here (2.1, 10): its time, what is shown when it is
 * handed in, its mastery value, words for the candidate. What it has no place for it names.
 */
export class AroundTest {
	readonly #words: string[] = [];
	readonly #found: Partial<QuizSettings> = {};
	/** What has a place: what is said of the whole test, of its only part, or of its only section. */
	readonly #taken = new Set<XmlElement>();

	constructor(root: XmlElement | null) {
		if (!root) return;
		const parts = childrenOf(root, 'testPart');
		const only = parts.length === 1 ? parts[0]! : null;
		const sections = only ? childrenOf(only, 'assessmentSection') : [];
		const whole = [root, ...(only ? [only] : []), ...(sections.length === 1 ? sections : [])];
		this.#takeTime(whole.flatMap((node) => childrenOf(node, 'timeLimits')));
		this.#takeReview(whole.flatMap((node) => childrenOf(node, 'itemSessionControl')));
		for (const { attributes } of childrenOf(root, 'outcomeDeclaration')) {
			const [mastery, most] = [attributes.masteryValue, attributes.normalMaximum].map((text) =>
				parseNumber(text ?? '')
			);
			if (mastery == null || !most || most < 0) continue;
			const pass = Math.round((mastery / most) * 1e8) / 1e6;
			if (pass >= 0 && pass <= 100) this.#found.pass = pass;
		}
	}

	#takeTime(limits: XmlElement[]): void {
		const minutes = limits.flatMap((node) => minutesOf(node) ?? []);
		if (!minutes.length) return;
		this.#found.minutes = Math.min(...minutes);
		for (const node of limits)
			if (minutesOf(node) === this.#found.minutes && !parseNumber(node.attributes.minTime ?? '')) this.#taken.add(node);
	}

	#takeReview(controls: XmlElement[]): void {
		const [control] = controls;
		if (controls.length !== 1 || !control) return;
		const { attributes } = control;
		if (!shows.some(([name]) => attributes[name] !== undefined)) return;
		// a review of one's own answers is allowed where nothing is said of it, the others are not
		const isShown = (name: string) => (attributes[name] ?? String(name === 'allowReview')) === 'true';
		this.#found.shown = ['points', ...shows.flatMap(([name, thing]) => (isShown(name) ? [thing] : []))];
		this.#found.shownWhen = 'at once';
		const rest = Object.entries(attributes).filter(([name]) => !shows.some(([known]) => known === name));
		if (rest.every(([name, value]) => name === 'maxAttempts' && value === '1')) this.#taken.add(control);
	}

	/** Takes the words of a rubric for candidates as instructions; false where they are for others, or too long. */
	takeWords(rubric: XmlElement, part: string): boolean {
		const { view = 'candidate' } = rubric.attributes;
		if (!view.split(/\s+/).includes('candidate')) return false;
		const words = wordsOfMarkup(markupOfNodes(rubric.children, quiet));
		const isNamed = this.#words.length > 0 && part !== '';
		if (!words || [...this.#words, words].join().length > longestInstructions - part.length - 200) return false;
		this.#words.push(isNamed ? `${part}: ${words}` : words);
		return true;
	}

	/** What of some elements a quiz here does not hold, in words. */
	unheld(said: XmlElement[]): string[] {
		const left = said.filter((node) => !this.#taken.has(node));
		const has = (name: string) => left.some((node) => node.name === name);
		return [
			...(has('timeLimits') ? ['time limits'] : []),
			...(has('itemSessionControl') ? ['rules on attempts and review'] : [])
		];
	}

	/** What was found, where anything was. */
	settings(): Partial<QuizSettings> | null {
		const settings = {
			...(this.#words.length ? { instructions: this.#words.join('\n\n') } : {}),
			...this.#found
		};
		return Object.keys(settings).length ? settings : null;
	}
}
