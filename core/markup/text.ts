import { lookup } from '../model/lookup';
import type { Markup } from '../model/question';
import { formulaText } from './formula';
import { replaceBlanks, replaceVariables } from './markers';

const inline = new Set(
	'a abbr acronym b bdo big cite code dfn em i kbd mark q s samp small span strong sub sup tt u var math mi mn mo mtext msqrt mfrac mrow msup msub semantics annotation'.split(
		' '
	)
);
const decoded = lookup<string>({ amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" });

/** White space of every sort folded to single blanks, none at the ends. */
export function fold(text: string): string {
	// most texts have nothing to fold, which is seen faster than done
	return (/[^\S ]| {2}/.test(text) ? text.replace(/\s+/g, ' ') : text).trim();
}

/** What was made plain last: the same text is asked for by readers, checks and comparisons one after the other. */
const recent = new Map<Markup, string>();
const mostRecent = 4000;
const longestRecent = 2000;

/** Plain text of rich text of ours: tags gone, blocks apart by a blank, white space folded; a blank reads [ID], a variable {NAME}. */
export function plainText(markup: Markup): string {
	if (!/[<&]/.test(markup)) return fold(markup);
	if (markup.length > longestRecent) return withoutMarkup(markup);
	let plain = recent.get(markup);
	if (plain === undefined) {
		plain = withoutMarkup(markup);
		if (recent.size >= mostRecent) recent.clear();
		recent.set(markup, plain);
	}
	return plain;
}

const formulas = /<math\b[^>]*>([\s\S]*?)<\/math>/g;
/** Powers that are typed as raised digits, or as a single raised letter. */
const powers = /<sup>\s*([-+−]?\d+(?:[.,]\d+)?|[a-z])\s*<\/sup>/g;

/** The same with formulas and powers in one line, as they are typed. */
function inLine(markup: Markup): Markup {
	if (!/<math|<sup/.test(markup)) return markup;
	return markup.replace(formulas, (_, inner: string) => formulaText(inner)).replace(powers, '^$1');
}

function withoutMarkup(given: Markup): string {
	const markup = inLine(given);
	const named = /class="(blank|variable)"/.test(markup)
		? replaceVariables(
				replaceBlanks(markup, (identifier, block) => (block ? ' ' : `[${identifier}]`)),
				(name) => `{${name}}`
			)
		: markup;
	return fold(
		named
			.replace(/<\/?([a-zA-Z0-9]+)[^>]*>/g, (_, name: string) => (inline.has(name) ? '' : ' '))
			.replace(
				/&(?:#(x?)([0-9a-fA-F]+)|([a-z]+));/g,
				(whole: string, hex: string | undefined, digits: string, name: string | undefined) =>
					name ? (decoded[name] ?? whole) : String.fromCodePoint(parseInt(digits, hex ? 16 : 10))
			)
	);
}

/** The beginning of a text for a list: at most `length` characters, cut at a word. */
export function beginning(text: string, length = 120): string {
	if (text.length <= length) return text;
	const cut = text.slice(0, length - 1);
	return `${cut.slice(0, cut.lastIndexOf(' ') > length / 2 ? cut.lastIndexOf(' ') : undefined)}…`;
}
