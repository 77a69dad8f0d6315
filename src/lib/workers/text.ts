import { checkBeside } from '$core/checks/one';
import { readMarkedText } from '$core/formats/text/grammar';
import { linesOf } from '$core/formats/text/lines';
import type { Question } from '$core/kinds';
import type { Report } from '$core/reports/report';

/** What is found in a text while it is typed. */
export interface TextAnswer {
	questions: { question: Question; reports: Report[]; from: number; to: number }[];
	reports: Report[];
	title: string;
}

self.onmessage = (event: MessageEvent<string>) => {
	const found = readMarkedText(linesOf(event.data), 'pasted.txt', 'text');
	const answer: TextAnswer = {
		title: found.title,
		reports: found.reports,
		questions: found.questions.map((read) => ({
			...read,
			reports: [...read.reports, ...checkBeside(read.question, read.reports)]
		}))
	};
	postMessage(answer);
};
