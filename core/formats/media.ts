import type { CleanContext } from '../markup/clean';
import type { Attachment, QuestionCommon } from '../model/question';
import type { DocumentContext } from './format';

const types: Record<string, string> = {
	png: 'image/png',
	jpg: 'image/jpeg',
	jpeg: 'image/jpeg',
	gif: 'image/gif',
	svg: 'image/svg+xml',
	webp: 'image/webp',
	avif: 'image/avif',
	bmp: 'image/bmp',
	mp3: 'audio/mpeg',
	wav: 'audio/wav',
	ogg: 'audio/ogg',
	m4a: 'audio/mp4',
	mp4: 'video/mp4',
	webm: 'video/webm',
	pdf: 'application/pdf',
	txt: 'text/plain',
	xml: 'application/xml'
};

/** The media type of a file by the ending of its name. */
export function mediaType(path: string): string {
	return types[path.split('.').pop()!.toLowerCase()] ?? 'application/octet-stream';
}

/** Notes that a question uses a file of the package; gives the name under which it is attached. */
export function attach(question: QuestionCommon, context: DocumentContext, address: string): string | null {
	const path = context.resolve(address);
	if (path === null) {
		if (/^https?:/i.test(address.trim()))
			note(question, { name: address.trim(), mediaType: mediaType(address), hash: null, missing: true });
		return null;
	}
	const name = context.container.find(path) ?? path;
	note(question, { name, mediaType: mediaType(name), hash: null, missing: !context.container.has(name) });
	return name;
}

function note(question: QuestionCommon, attachment: Attachment): void {
	if (!question.attachments.some((known) => known.name === attachment.name)) question.attachments.push(attachment);
}

/** The surroundings in which a question's rich text is cleaned: its files are attached, what is removed is noted. */
export function cleaningFor(question: QuestionCommon, context: DocumentContext): CleanContext {
	return {
		media: (address) => attach(question, context, address),
		removed: (what) => {
			if (!question.removed.includes(what)) question.removed.push(what);
		},
		// named here, so that the many copies of this that have another one are of one shape
		replace: undefined
	};
}
