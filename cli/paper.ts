import { writeFile } from 'node:fs/promises';
import { hashAttachments, type KnownFiles } from '../core/formats/hash';
import { presented } from '../core/draws/presented';
import { called } from '../core/kinds/called';
import { paperQuestion } from '../core/paper';
import { paperPage } from '../core/paper/html';
import { wordDocument, type WordForms } from '../core/paper/word/document';
import type { Question } from '../core/kinds';
import { digest } from '../src/lib/server/files/digest';
import { drawingType, drawnPictures } from '../src/lib/server/files/drawings';
import { say, type Options } from './command';
import { openFile } from './open';

/** What questions can be written as for paper: a page to be printed, or a Word document. */
export const paperKinds = ['paper', 'paper-docx'] as const;

/** One of these. */
export type PaperKind = (typeof paperKinds)[number];

/** The questions of a file as one form in their order; calculated ones have numbers by a seed, and what is put in order is shuffled by it. */
function formOf(title: string, questions: readonly Question[], seed: string, options: Options): WordForms {
	let number = 0;
	return {
		title,
		instructions: '',
		minutes: null,
		parts: [''],
		paper: options.paper === 'letter' ? 'letter' : 'A4',
		what: options.keys ? 'keys' : 'papers',
		forms: [
			{
				name: 'A',
				questions: questions
					.filter(({ kind }) => kind !== 'unreadable')
					.map((question, at) => {
						const isText = question.kind === 'information';
						if (!isText) number += 1;
						return {
							id: at + 1,
							number: isText ? null : number,
							part: 0,
							points: isText ? null : question.points,
							title: called(question),
							stimulus: question.stimulus?.content ?? '',
							attachments: question.attachments,
							// options keep the order of the file: a file says no more than that
							...paperQuestion(presented(question, seed, at + 1, false).question)
						};
					})
			}
		]
	};
}

/** Writes the questions of a file for paper; gives the exit code. */
export async function writePaper(
	from: string,
	questions: readonly Question[],
	to: string,
	kind: PaperKind,
	options: Options
): Promise<number> {
	const { container, close } = await openFile(from);
	const pictures = new Map<string, Uint8Array>();
	const drawings = new Set<string>();
	try {
		const hashes = new Map() as KnownFiles;
		for (const question of questions) {
			await hashAttachments(question, container, digest, hashes);
			for (const { hash, name, mediaType } of question.attachments) {
				if (!hash || pictures.has(hash) || !mediaType.startsWith('image/')) continue;
				const pieces: Uint8Array[] = [];
				for await (const piece of container.stream(name)) pieces.push(piece);
				pictures.set(hash, new Uint8Array(Buffer.concat(pieces)));
				if (mediaType === drawingType) drawings.add(hash);
			}
		}
	} finally {
		await close();
	}
	const title = from
		.split('/')
		.pop()!
		.replace(/\.[^.]*$/, '');
	const form = formOf(title, questions, options.seed ?? 'paper', options);
	const bytesOf = (hash: string) => pictures.get(hash);
	await writeFile(
		to,
		kind === 'paper' ? paperPage(form, bytesOf) : wordDocument(form, bytesOf, await drawnPictures(pictures, drawings))
	);
	const left = questions.length - form.forms[0]!.questions.length;
	say(
		`${form.forms[0]!.questions.length} questions written for paper${left ? `, ${left} that cannot be read left out` : ''}.`
	);
	return 0;
}
