import { markupOf, type Question } from '../kinds';
import type { OneCheck } from './check';
import { quoted } from './saying';

const picture = /<img\b[^>]*>/g;
const valueOf = (tag: string, name: string) => new RegExp(`\\s${name}="([^"]*)"`).exec(tag)?.[1];
const nameOf = (path: string) =>
	path
		.replace(/^media:/, '')
		.split('/')
		.at(-1)!;
/** A text that is the name of a file, as “chart-3.png”, says nothing of what is to be seen. */
const isFileName = (text: string, path: string) =>
	text.trim() === nameOf(path) ||
	text.trim() === nameOf(path).replace(/\.[^.]+$/, '') ||
	/^[^\s]+\.(?:png|jpe?g|gif|svg|webp|bmp|tiff?)$/i.test(text.trim());

/** The picture that is pointed at or labelled, where nothing is said of it: it is no decoration, whatever it says. */
function askedOf(question: Question): string[] {
	if (question.kind !== 'hotspot' && question.kind !== 'label-image') return [];
	const { name, alt } = question.picture;
	return !alt.trim() || isFileName(alt, name) ? [nameOf(name)] : [];
}

/** The pictures that nothing is said of; an empty text says that a picture is decoration. */
function textless(question: Question): string[] {
	return [
		...new Set([
			...askedOf(question),
			...markupOf(question).flatMap(({ markup }) =>
				(markup.match(picture) ?? []).flatMap((tag) => {
					const path = valueOf(tag, 'src') ?? '';
					const text = valueOf(tag, 'alt');
					if (text === '') return [];
					return text === undefined || isFileName(text, path)
						? [path.startsWith('data:') ? 'a picture' : nameOf(path)]
						: [];
				})
			)
		])
	];
}

/** A picture has no text for those who do not see it. */
export const pictureWithoutText: OneCheck = {
	id: 'picture-without-text',
	version: 2,
	scope: 'one',
	title: 'Picture without a text',
	short: 'no text',
	severity: 'untidy',
	why: 'Whoever does not see the picture, or gets it as an empty frame, is told nothing of what is on it.',
	find(question) {
		if (question.kind === 'unreadable') return [];
		const words = textless(question);
		return words.length
			? [
					{
						message: `Nothing is said of ${quoted(words)} for those who do not see it. Write what is on it, ${askedOf(question).length ? 'for the question asks about it' : 'or mark it as decoration by an empty text'}.`,
						words
					}
				]
			: [];
	}
};
