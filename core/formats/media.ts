import { lookup } from '../model/lookup';
import { resolvePath, type Container } from '../container/container';
import type { FileList } from '../container/file-list';
import type { CleanContext } from '../markup/clean';
import type { Attachment, QuestionCommon } from '../model/question';
import type { DocumentContext } from './format';

const types = lookup<string>({
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
});

/** The media type of a file by the ending of its name. */
export function mediaType(path: string): string {
	return types[path.split('.').pop()!.toLowerCase()] ?? 'application/octet-stream';
}

/** What stands in an address for the folder of a cartridge's files (the file base token of Common Cartridge 1.1 and later). */
const fileBase = /^(?:\$|%24)IMS[-_]CC[-_]FILEBASE(?:\$|%24)(?=[./\\]|%2E|\w)/i;
const filesOf = new WeakMap<FileList, Map<string, string[]>>();

/** The only file of a package whose path ends as one that was looked for, or null. */
function endingAs(path: string, { files }: Container): string | null {
	let byName = filesOf.get(files);
	const nameOf = (one: string) => one.slice(one.lastIndexOf('/') + 1).toLowerCase();
	if (!byName) {
		byName = new Map();
		for (const { path: one } of files) byName.set(nameOf(one), [...(byName.get(nameOf(one)) ?? []), one]);
		filesOf.set(files, byName);
	}
	const found = (byName.get(nameOf(path)) ?? []).filter((one) =>
		`/${one}`.toLowerCase().endsWith(`/${path}`.toLowerCase())
	);
	return found.length === 1 ? found[0]! : null;
}

/** The path that an address with the file base of a cartridge leads to: from its document, from the top, or wherever the rest of it stands. */
function fromFileBase(rest: string, { container, resolve }: DocumentContext): string | null {
	const own = resolve(rest.replace(/^[/\\]+/, ''));
	const top = resolvePath('', rest);
	for (const path of [own, top]) {
		const found = path === null ? null : container.find(path);
		if (found !== null) return found;
	}
	return (top && endingAs(top, container)) ?? own;
}

/** Notes that a question uses a file of the package; gives the name under which it is attached. */
export function attach(question: QuestionCommon, context: DocumentContext, address: string): string | null {
	const rest = address.trim().replace(fileBase, '');
	const path = rest === address.trim() ? context.resolve(address) : fromFileBase(rest, context);
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
