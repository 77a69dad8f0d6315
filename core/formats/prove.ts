import type { Codec } from '../container/codec';
import type { Container } from '../container/container';
import type { Difference } from '../compare/canonical';
import type { Loss } from '../compare/loss';
import { proofLine, type ProofLine } from '../compare/proof';
import { placesOfFitted, proveQuizzes, type QuizProof } from '../compare/quizzes';
import type { Question } from '../kinds';
import type { FoundQuiz, QuizToWrite } from '../model/quiz';
import type { FitOptions } from './fit/fit';
import { fitQuizzes } from './fit/quizzes';
import type { Format } from './format';
import { hashAttachments, type Digest, type KnownFiles } from './hash';
import { readPackage } from './package/read';
import { QuestionPlaces } from './question-places';

/** What was to be written, as a writer was given it: questions are asked for again, one at a time. */
export interface Sent {
	format: Format;
	options: FitOptions;
	count: number;
	question: (at: number) => Promise<Question>;
	quizzes: QuizToWrite[];
}

/** What became of a question that was to be written; of one that is written as several, each is told. */
export interface ProvedQuestion {
	/** Its place in what was sent, from 0. */
	at: number;
	question: Question;
	loss: Loss;
	outcome: ProofLine['outcome'] | 'left-behind';
	differences: Difference[];
}

/** What a file that was read back comes to. */
export interface FileProof {
	/** How many questions the file holds. */
	found: number;
	/** How many were written, where one may be written as several; the four below add up to it, but for questions that nobody sent. */
	sent: number;
	identical: number;
	foretold: number;
	otherwise: number;
	missing: number;
	/** How many the format cannot hold. */
	leftBehind: number;
	quizzes: QuizProof;
}

/** The questions that were to be written, in the order of the file; those that the format cannot hold are told on the way. */
class Order {
	readonly #sent: Sent;
	readonly #left: (at: number, question: Question, loss: Loss) => void;
	readonly order: number[];
	/** As how many questions each was written. */
	readonly counts: number[];
	#current: { at: number; question: Question; loss: Loss; which: number } | null = null;
	/** How many have been asked for. */
	place = 0;

	constructor(sent: Sent, left: (at: number, question: Question, loss: Loss) => void) {
		this.#sent = sent;
		this.#left = left;
		this.order = sent.format.order?.(sent.count, sent.quizzes) ?? Array.from({ length: sent.count }, (_, at) => at);
		this.counts = new Array<number>(sent.count).fill(0);
	}

	/** The next one, or null at the end. */
	async next() {
		if (this.#current && this.#current.which + 1 < this.#current.loss.fitted.length)
			return (this.#current = { ...this.#current, which: this.#current.which + 1 });
		while (this.place < this.order.length) {
			const at = this.order[this.place]!;
			this.place += 1;
			const question = await this.#sent.question(at);
			const loss = this.#sent.format.loss(question, this.#sent.options);
			this.counts[at] = loss.fitted.length;
			if (loss.outcome !== 'lost') return (this.#current = { at, question, loss, which: 0 });
			this.#left(at, question, loss);
		}
		return (this.#current = null);
	}
}

/**
 * The proof of a file that was written: it is read back, and each question is held against the one that was sent, with
 * what the loss table had foretold. One question at a time is held; `tell` is given what became of each, and `told` how
 * many of those that were sent have been looked at. Throws what the container throws, and whatever `told` throws to stop it.
 */
export async function proveFile(
	written: { container: Container; codec: Codec; digest: Digest },
	sent: Sent,
	tell: (proved: ProvedQuestion) => void,
	told: (count: number) => void = () => undefined
): Promise<FileProof> {
	const counts = { found: 0, sent: 0, identical: 0, foretold: 0, otherwise: 0, missing: 0, leftBehind: 0 };
	const order = new Order(sent, (at, question, loss) => {
		counts.leftBehind += 1;
		tell({ at, question, loss, outcome: 'left-behind', differences: [] });
	});
	const quizzesBack: FoundQuiz[] = [];
	const places = new QuestionPlaces();
	const hashes = new Map() as KnownFiles;
	for await (const event of readPackage(written.container, written.codec)) {
		if (event.type === 'quiz') quizzesBack.push(event.quiz);
		if (event.type !== 'question') continue;
		counts.found += 1;
		places.add(event.question);
		const next = await order.next();
		if (!next) {
			counts.otherwise += 1;
			continue;
		}
		await hashAttachments(event.question, written.container, written.digest, hashes);
		const { at, question, loss, which } = next;
		const { outcome, differences } = proofLine(at, question, event.question, loss, which);
		counts.sent += 1;
		counts[countOf[outcome]] += 1;
		tell({ at, question, loss, outcome, differences });
		told(order.place);
	}
	for (let next = await order.next(); next; next = await order.next()) {
		counts.sent += 1;
		counts.missing += 1;
		tell({ at: next.at, question: next.question, loss: next.loss, outcome: 'missing', differences: [] });
	}
	const fitted = fitQuizzes(sent.quizzes, sent.format.quizLimits, (at) => order.counts[at] ?? 0);
	const quizzes = proveQuizzes(fitted, quizzesBack, {
		sent: placesOfFitted(order.counts, order.order),
		found: (named) => places.find(named)
	});
	return { ...counts, quizzes };
}

const countOf = {
	identical: 'identical',
	'changed-as-foretold': 'foretold',
	'changed-otherwise': 'otherwise',
	missing: 'missing'
} as const;
