import { withCommon } from '../../model/question';
import type { Question } from '../../kinds';
import { rightBlanks } from '../../kinds/fill-blanks';
import { bestCredit } from '../../scoring/score';
import type { Report } from '../../reports/report';
import { descendants, type XmlElement } from '../../xml/tree';
import { askedIn, readBody } from './body';
import { promptNodes, stemOf, type Reading } from './reading';
import { UnknownRule, UnknownTemplate } from './values';
import { isTemplateItem, workedOutItem } from './worked-out';

/** Whether no answer to a question earns anything that a machine can mark. */
function earnsNothing(question: Question): boolean {
	// the plain cases are seen without marking anything, which would take its time in a large package
	if ('options' in question && question.bounds.upper === null && question.options.some(({ credit }) => credit > 0))
		return false;
	if ('accepted' in question && question.accepted.some(({ credit }) => credit > 0)) return false;
	if (question.kind !== 'fill-blanks') return (bestCredit(question) ?? 1) <= 0;
	const right = rightBlanks(question).blanks!;
	const marked = question.blanks.filter((blank) => blank.form !== 'open');
	return marked.length > 0 && marked.every((blank) => !right[blank.identifier]?.length);
}

/** Why an item cannot be held as it is, in a sentence; `what` of it uses the rule that is not known. */
const reasonOf = ({ message }: UnknownRule, what: string) =>
	/^It /.test(message) ? message : `${what} uses ${message}, which cannot be followed here.`;

/** Reading an item in another way where its marking cannot be followed: as if nothing had been read of it before. */
class WaysRound {
	readonly #before: Reading['common'];
	readonly #known: Report[];

	constructor(
		private readonly reading: Reading,
		private readonly item: XmlElement
	) {
		const { common, reports } = reading;
		this.#before = { ...common, feedback: {}, metadata: [...common.metadata], hints: [] };
		this.#known = [...reports];
	}

	/** Forgets what was read, and what was said of it. */
	again(...reports: Report[]): void {
		Object.assign(this.reading.common, structuredClone({ ...this.#before, attachments: [], removed: [] }));
		this.reading.reports.splice(0, Infinity, ...this.#known, ...reports);
	}

	/** Takes back what was said by a rule since. */
	forget(rule: Report['rule']): void {
		const { reports } = this.reading;
		const kept = reports.filter((report, at) => at < this.#known.length || report.rule !== rule);
		reports.splice(0, Infinity, ...kept);
	}

	/** Marks it by the declared key; `feedbackRules` still say which feedback is given. */
	byKey(interactions: XmlElement[], message: string, feedbackRules?: XmlElement): Question {
		this.again({
			rule: 'marking-simplified',
			severity: 'doubtful',
			message: `${message} It is marked by the declared key; look at the credit.`,
			place: this.reading.place
		});
		return readBody({ ...this.reading, rules: undefined, feedbackRules }, interactions);
	}

	/** Reads one version of an item whose values are drawn. */
	oneVersion(error: UnknownRule): Question {
		const { item: version, values } = workedOutItem(this.item);
		const { interactions, plays: _, ...parts } = askedIn(version);
		const message = `${reasonOf(error, 'It')} One version of it was read${values && `, with ${values}`}; make others by hand where they are wanted.`;
		this.again({ rule: 'worked-out', severity: 'doubtful', message, place: this.reading.place });
		return readBody({ ...this.reading, ...parts }, interactions);
	}
}

/**
 * The question that an item is: by its marking, or in a way round, which is reported; unreadable where there is none. `item`
 * is the item as it stands, `fragment` its source.
 */
export function readMarked(
	reading: Reading,
	interactions: XmlElement[],
	{ item, fragment }: { item: XmlElement; fragment: string }
): Question {
	const { common, rules, declarations } = reading;
	const ways = new WaysRound(reading, item);
	const isKeyed = declarations.some(({ correct, mapping, areas }) => correct.length > 0 || mapping || areas);
	try {
		try {
			const question = readBody(reading, interactions);
			if (!isKeyed || !rules || !earnsNothing(question)) return question;
			const byKey = ways.byKey(
				interactions,
				'Its marking gives no points for any answer, though it declares which one is right.',
				rules
			);
			// where the key names nothing, or nothing but what earns nothing, that is the one thing to be said
			if (byKey.lostKeys?.length || earnsNothing(byKey)) ways.forget('marking-simplified');
			return byKey;
		} catch (error) {
			if (error instanceof UnknownRule && isTemplateItem(item)) return ways.oneVersion(error);
			// the template's rules are not in the file, but the declared key is: the question is marked by that
			if (error instanceof UnknownTemplate && isKeyed)
				return ways.byKey(interactions, `Its marking uses ${error.message}, whose rules are not in the file.`);
			throw error;
		}
	} catch (error) {
		if (!(error instanceof UnknownRule)) throw error;
		// what was said of a way round is not true where that has failed too
		ways.again();
		const reason = reasonOf(error, 'Its marking');
		common.stem = stemOf(reading, (node) => promptNodes(node, reading.cleaning));
		for (const node of descendants(item, 'object', 'img'))
			reading.attach(node.attributes.data ?? node.attributes.src ?? '');
		common.feedback = {};
		return withCommon(common, { kind: 'unreadable', reason, fragment });
	}
}
