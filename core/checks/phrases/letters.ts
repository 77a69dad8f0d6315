const and = '(?:and|or|nor|und|oder|als(?: auch)?|noch|et|ou|ni|y|o|u|e|ed|né|che|como|quanto|en|of|&|\\+)';
const before =
	'(?:both|only|neither|either|just|beide|nur|sowohl|weder|allein|seulement|uniquement|les deux|ambos|ambas|solo|sólo|solamente|tanto|ni|apenas|somente|nem|só|soltanto|entrambi|entrambe|sia|né|zowel|geen van|alleen|slechts|enkel|(?:all|everything) (?:except|but)|(?:the )?same as|alle außer|tous sauf|todas (?:menos|excepto|exceto)|alle behalve)';
const named =
	'(?:(?:the|die|les|las|los|as|os|le|de) )?(?:options?|answers?|choices?|alternatives?|antwort(?:en)?|optionen|möglichkeit(?:en)?|réponses?|propositions?|respuestas?|opción|opciones|respostas?|alternativas?|opções|opção|risposta|risposte|opzione|opzioni|antwoord(?:en)?|opties?)';
const after =
	'(?:only|together|above|are (?:both )?(?:correct|right|true|wrong)|is (?:correct|right|true)|are both (?:correct|right|true)|nur|zusammen|sind (?:beide )?(?:richtig|korrekt|falsch)|ist richtig|seulement|sont (?:toutes )?(?:vraies?|justes?|exactes?|correctes?)|solamente|solo|sólo|son (?:ambas )?(?:correctas|verdaderas)|apenas|somente|estão (?:ambas )?(?:corretas|certas)|soltanto|sono (?:entrambe )?(?:corrette|giuste|vere)|zijn (?:beide )?(?:juist|goed|correct)|alleen)';
const letter = '\\(?(?:[A-H]\\b|[a-h]\\))\\)?\\.?';
const figure = '\\(?\\d{1,2}\\)?';

/** Several of one sign, parted by commas and a word: “A, B and C”. */
const several = (sign: string) => `${sign}(?:\\s*,\\s*${sign})*(?:\\s*,)?\\s*${and}\\s*${sign}`;
/** Words may be written large or small; letters stand for themselves. */
const anyCase = (pattern: string) =>
	pattern.replace(/(?<![\\[\p{L}])\p{Ll}(?=\p{L}{1,})/gu, (first) => `[${first}${first.toUpperCase()}]`);

const withLetters = [
	`^(?:${anyCase(before)}\\s+)?(?:${anyCase(named)}\\s+)?${several(letter)}(?:\\s+${anyCase(after)})?$`,
	`^${anyCase(before)}\\s+${several(letter)}(?=\\s|$)`,
	`^${anyCase(before)}\\s+${letter}$`,
	`^(?:${anyCase(before)}\\s+)?${anyCase(named)}\\s+${letter}(?:\\s*${and}\\s*${letter})?(?:\\s+${anyCase(after)})?$`,
	`^${letter}\\s+(?:is|ist|est|es|é|è)\\s+(?:correct|right|true|wrong|false|richtig|falsch|vraie?|fausse?|correcta|falsa|corret[ao]|juist|fout)(?!\\p{L})`,
	`^${letter}\\s*(?:,|&|\\+)\\s*${letter}(?:\\s*,\\s*${letter})*(?:\\s+${anyCase(after)})$`
].map((pattern) => new RegExp(pattern, 'u'));
/** Small letters are letters of options only behind a word that says so. */
const inSmall = new RegExp(`^(?:${anyCase(before)}\\s+|${anyCase(named)}\\s+)${several('[a-h]')}$`, 'u');
const withFigures = [
	`^${before}\\s+${several(figure)}(?:\\s+${after})?$`,
	`^(?:${before}\\s+)?${named}\\s+${several(figure)}(?:\\s+${after})?$`,
	`^${several(figure)}\\s+${after}$`
].map((pattern) => new RegExp(pattern, 'iu'));

const bare = (text: string) => text.replace(/[\s.;]+$/u, '');

/** The letters or numbers by which an option speaks of others, as “A” or “3”; none where it does not. */
export function optionsNamedIn(text: string): string[] {
	const words = bare(text);
	if (inSmall.test(words))
		return words
			.replace(/^\S+/, '')
			.match(/(?<!\p{L})[a-h](?!\p{L})/gu)!
			.map((sign) => sign.toUpperCase());
	if (withLetters.some((pattern) => pattern.test(words)))
		return [...words.matchAll(/(?<!\p{L})([A-H]|[a-h](?=\)))(?!\p{L})/gu)].map(([, sign]) => sign!.toUpperCase());
	if (withFigures.some((pattern) => pattern.test(words))) return words.match(/\d{1,2}/g) ?? [];
	return [];
}
