import type { Attachment, Markup } from '../model/question';
import { ownClasses } from './classes';
import { escapeAttribute, escapeText } from '../xml/serialise';

const voids = new Set(['br', 'hr', 'img', 'col']);
const decode = (text: string) =>
	text
		.replace(/&quot;/g, '"')
		.replace(/&lt;/g, '<')
		.replace(/&gt;/g, '>')
		.replace(/&amp;/g, '&');

/**
 * Rich text of ours as HTML for a page: files by the address that `addressOf` gives for their hash and type, those that
 * are missing as a frame with their name, sound and film with controls.
 */
export function displayMarkup(
	markup: Markup,
	attachments: readonly Attachment[],
	addressOf: (hash: string, mediaType: string) => string
): string {
	const known = (name: string) => attachments.find((one) => one.name === decode(name));
	const missing = (name: string) =>
		`<span class="not-there">picture missing: ${escapeText(decode(name).split('/').pop()!)}</span>`;
	return markup
		.replace(/ class="([^"]*)"/g, (_, names: string) => {
			const kept = ownClasses(names);
			return kept && ` class="${kept}"`;
		})
		.replace(/<object data="media:([^"]*)"[^>]*?(\/>|>([\s\S]*?)<\/object>)/g, (_, name: string) => {
			const file = known(name);
			if (!file?.hash) return missing(name);
			const address = escapeAttribute(addressOf(file.hash, file.mediaType));
			if (file.mediaType.startsWith('audio/')) return `<audio controls src="${address}"></audio>`;
			if (file.mediaType.startsWith('video/')) return `<video controls src="${address}"></video>`;
			return `<a href="${address}">${escapeText(file.name.split('/').pop()!)}</a>`;
		})
		.replace(/<img src="media:([^"]*)"([^>]*)\/>/g, (_, name: string, rest: string) => {
			const file = known(name);
			const said = / alt="/.test(rest) ? rest : ` alt=""${rest}`;
			return file?.hash
				? `<img src="${escapeAttribute(addressOf(file.hash, file.mediaType))}"${said}/>`
				: missing(name);
		})
		.replace(/ href="media:([^"]*)"/g, (_, name: string) => {
			const file = known(name);
			return file?.hash ? ` href="${escapeAttribute(addressOf(file.hash, file.mediaType))}"` : '';
		})
		.replace(/<([a-z0-9]+)((?:\s[^<>]*?)?)\/>/g, (whole, name: string, rest: string) =>
			voids.has(name) ? whole : `<${name}${rest}></${name}>`
		);
}
