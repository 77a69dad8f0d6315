/**
 * The small words of languages (articles, prepositions, pronouns, question words, auxiliary verbs), by ISO 639-1. They
 * carry no content: two questions that share them alone are not alike.
 */
const lists = {
	en: 'a about after all also an and any are as at be because been before being between both but by can could did do does during each for from had has have he her his how if in into is it its may more most must no not of on one or other our shall she should so some such than that the their them then there these they this those to under up was we were what when where which while who whom whose why will with would you your',
	de: 'aber alle als also am an auch auf aus bei beim bis das dass dem den der des die dies diese diesem diesen dieser dieses durch ein eine einem einen einer eines er es für hat haben ich ihr ihre im in ist kann können man mit muss nach nicht noch nur ob oder ohne sein seine sich sie sind so über um und unter vom von vor wann war waren warum was welche welchem welchen welcher welches wenn wer werden wie wird wo worden wurde zu zum zur zwischen',
	fr: 'a à au aux avec ce ces cet cette comme d dans de des du elle elles en entre est et être eux il ils je l la le les leur leurs lors lorsque lui ma mais me ne nos notre nous on ont ou où par pas pendant peut plus pour pourquoi qu quand que quel quelle quelles quels qui s sa sans se ses si son sont sous sur ta un une vous votre y',
	es: 'a al ante antes bajo como con cual cuál cuáles cuando cuándo de del desde donde dónde durante e el él ella ellas ellos en entre era es esta está este esto estos estas fue ha han hasta la las le les lo los más me muy ni no o para pero por porque pueden puede que qué quien quién quiénes se ser si sin sobre son su sus también tiene un una uno unos y ya',
	pt: 'a ao aos as até com como da das de dela dele deles depois do dos durante e é ela elas ele eles em entre era essa esse esta está este eu foi há isso isto já lhe mais mas me mesmo na nas não nem no nos num numa o onde os ou para pela pelas pelo pelos pode podem por porque qual quais quando que quem são se sem ser seu seus sobre sua suas também tem um uma',
	it: 'a ad agli ai al alla alle allo anche che chi ci come con cosa così cui d da dagli dai dal dalla dalle dei degli del della delle dello di dove e è ed era essere gli ha hanno i il in io l la le lei lo loro lui ma mentre ne nei nel nella nelle nello non o per perché più può qual quale quali quando quanto quello questa queste questi questo se si sia sono su sua sue sugli sui sul sulla suo suoi tra un una uno',
	nl: 'aan al als bij dan dat de den der deze die dit door een en er geen had heb hebben heeft het hij hoe hun ik in is je kan kunnen maar men met mijn moet na naar niet nog nu of om onder ons ook op over te tegen ten ter toen tot tussen u uit uw van voor waar waarom wanneer want waren was wat welk welke werd wie wij wordt worden ze zich zij zijn zo zou zonder'
};

/** The languages whose small words are known. */
export type KnownLanguage = keyof typeof lists;

/** Those languages, by ISO 639-1. */
export const knownLanguages = Object.keys(lists) as KnownLanguage[];

const smallWords = new Map<KnownLanguage, ReadonlySet<string>>(
	knownLanguages.map((language) => [language, new Set(lists[language].split(' '))])
);

const languagesOfWord = new Map<string, KnownLanguage[]>();
for (const [language, words] of smallWords)
	for (const word of words) languagesOfWord.set(word, [...(languagesOfWord.get(word) ?? []), language]);

/** The words of a text in lower case, in their order: letters and figures, without the signs between them. */
export function wordsIn(text: string): string[] {
	return text.toLowerCase().match(/[\p{L}\p{M}\p{N}]+/gu) ?? [];
}

/** How many of the words are small words of a language. */
export function smallIn(words: readonly string[], language: KnownLanguage): number {
	const small = smallWords.get(language)!;
	return words.filter((word) => small.has(word)).length;
}

/** The language whose small words are the most among the words; the first of several, English where there are none. */
export function languageBySmallWords(words: readonly string[]): KnownLanguage {
	const counts = new Map<KnownLanguage, number>();
	for (const word of words)
		for (const language of languagesOfWord.get(word) ?? []) counts.set(language, (counts.get(language) ?? 0) + 1);
	let best: KnownLanguage = 'en';
	for (const language of knownLanguages) if ((counts.get(language) ?? 0) > (counts.get(best) ?? 0)) best = language;
	return best;
}

/** The words of a text that carry its content: all but the small words of its language, with repetitions. */
export function contentWords(text: string): string[] {
	const words = wordsIn(text);
	const small = smallWords.get(languageBySmallWords(words))!;
	return words.filter((word) => !small.has(word));
}
