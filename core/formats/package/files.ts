import type { Question } from '../../kinds';

/** A path in a package as an address: each step escaped. */
export const addressOf = (path: string) => path.split('/').map(encodeURIComponent).join('/');

/** The path that a file gets in a package: by its content, with the end of its name so that people know it again. */
export function mediaPath(hash: string, name: string): string {
	const base =
		name
			.split('/')
			.pop()!
			.normalize('NFKD')
			.replace(/[^A-Za-z0-9._-]+/g, '-')
			.replace(/^[-.]+/, '')
			.slice(-48) || 'file';
	return `media/${hash.slice(0, 10)}-${base}`;
}

/** The files of questions in a package: each content once, whatever its names. */
export class MediaFiles {
	readonly paths = new Map<string, string>();

	/** The files of a question that are not in the package yet, which have to be added now. */
	fresh(question: Question): { hash: string; path: string }[] {
		return question.attachments.flatMap(({ hash, name }) => {
			if (hash === null || this.paths.has(hash)) return [];
			const path = mediaPath(hash, name);
			this.paths.set(hash, path);
			return [{ hash, path }];
		});
	}

	/** The paths of all files of a question. */
	used(question: Question): string[] {
		return [...new Set(question.attachments.flatMap(({ hash }) => (hash === null ? [] : [this.paths.get(hash)!])))];
	}

	/** Gives the address of an attachment of a question for a document that lies some folders deep. */
	address(question: Question, up: string): (name: string) => string {
		return (name) => {
			const attachment = question.attachments.find((one) => one.name === name);
			const path = attachment?.hash ? this.paths.get(attachment.hash)! : name;
			return /^https?:/i.test(name) && !attachment?.hash ? name : `${up}${addressOf(path)}`;
		};
	}
}
