import { phrase, told, type Phrase } from './phrase';

/** Words that tell to choose, in each language, as patterns. */
export const chooseWords = {
	en: '(?:select|choose|mark|tick|check|pick|circle|identify|indicate|click(?: on)?)',
	de: '(?:wähle?n?|markiere?n?|kreuze?n?|nenne?n?|bestimme?n?)(?: sie)?',
	fr: '(?:choisi(?:s|ssez|r)|sélectionne[zr]?|coche[zr]?|indique[zr]?|marque[zr]?)',
	es: '(?:seleccion(?:e|a|ar|en)|elij[ae]|elige|elegir|escoj[ae]|escoge|mar(?:ca|can|que|quen|car)|indi(?:que|ca|car)|señal[ae])',
	pt: '(?:selecion(?:e|a|ar)|escolh[ae]|escolher|mar(?:ca|que|car)|assinal[ae]|assinalar|indiqu?[ea]|indicar)',
	it: '(?:seleziona(?:re|te)?|scegli(?:ere|ete)?|indica(?:re|te)?|segna(?:re|te)?|spunta(?:re|te)?|barra(?:re|te)?)',
	nl: '(?:kies|selecteer|markeer|kruis|vink|duid)'
};

const answers = {
	en: '(?:answers|options|choices|responses|statements|alternatives|boxes)',
	de: '(?:antworten|aussagen|optionen|möglichkeiten|lösungen|kästchen)',
	fr: '(?:réponses|propositions|options|affirmations|cases)',
	es: '(?:respuestas|opciones|alternativas|afirmaciones|casillas)',
	pt: '(?:respostas|opções|alternativas|afirmações|afirmativas)',
	it: '(?:risposte|opzioni|alternative|affermazioni|caselle)',
	nl: '(?:antwoorden|opties|beweringen|uitspraken|mogelijkheden)'
};
const right = {
	en: '(?:correct|right|true|best|valid|appropriate)',
	de: '(?:richtigen?|korrekten?|zutreffenden?|wahren?|passenden?)',
	fr: '(?:bonnes|correctes|exactes|justes|vraies)',
	es: '(?:correctas|verdaderas|ciertas)',
	pt: '(?:corretas|certas|verdadeiras)',
	it: '(?:corrette|giuste|esatte|vere)',
	nl: '(?:juiste|goede|correcte)'
};
const severalTold = [
	`${chooseWords.en} (?:the|both|any|your) (?:(?:two |three |four )?${right.en} )?${answers.en}`,
	`${chooseWords.en} (?:them|each one that)`,
	`${chooseWords.de} (?:bitte )?die ${right.de} ${answers.de}`,
	`${chooseWords.fr} les ${right.fr} ${answers.fr}|${chooseWords.fr} les ${answers.fr} ${right.fr}`,
	`${chooseWords.es} las ${answers.es} ${right.es}`,
	`${chooseWords.pt} as ${answers.pt} ${right.pt}`,
	`${chooseWords.it} le ${answers.it} ${right.it}`,
	`${chooseWords.nl} de ${right.nl} ${answers.nl}`,
	`${chooseWords.es} una o (?:más|varias)`,
	`${chooseWords.fr} une ou plusieurs`,
	`${chooseWords.pt} uma ou mais`,
	`${chooseWords.it} una o più`,
	`${chooseWords.nl} (?:een|één) of meer(?:dere)?`,
	`${chooseWords.de} eine oder mehrere`,
	`${chooseWords.en} (?:only )?(?:all|every|each)(?! one\\b)`,
	`${chooseWords.en} (?:the |any |exactly |only )?(?:two|three|four|five|[2-9]|several|more than one|one or more|as many)`,
	`${chooseWords.de} (?:genau )?(?:alle|jede[nsr]?|zwei|drei|vier|fünf|[2-9]|mehrere|die (?:zwei|drei|beiden))`,
	`${chooseWords.fr} (?:exactement )?(?:tou(?:te)?s|deux|trois|quatre|[2-9]|plusieurs|chaque|les (?:deux|trois|quatre))`,
	`${chooseWords.es} (?:exactamente )?(?:tod[ao]s?|dos|tres|cuatro|[2-9]|varias|varios|cada|l[ao]s (?:dos|tres|cuatro))`,
	`${chooseWords.pt} (?:exatamente )?(?:tod[ao]s?|duas|dois|três|quatro|[2-9]|várias|vários|cada|[ao]s (?:duas|dois|três|quatro))`,
	`${chooseWords.it} (?:esattamente )?(?:tutt[ei]|due|tre|quattro|[2-9]|più|diverse|ogni|l[ei] (?:due|tre|quattro)|i (?:due|tre|quattro))`,
	`${chooseWords.nl} (?:precies )?(?:alle|elke?|ieder|twee|drie|vier|[2-9]|meerdere|de (?:twee|drie|vier))`
];
const severalSaid = [
	'which (?:two|three|four|five)(?! ?-)(?= \\p{L}+s\\b| of\\b| \\p{L}+ \\p{L}+s\\b)',
	'(?:mark|tick|check|select|choose) all that apply',
	`(?:all|${answers.en}|ones) that apply`,
	`(?:several|multiple) ${answers.en} (?:are|may be|can be|might be|may|can)`,
	`(?:two|three|four) (?:${right.en} )?${answers.en}(?: are)?(?= (?:correct|right|true|required|expected)|[.,!)]|$)`,
	`there (?:are|is more than) (?:two|three|four|several|multiple|one) (?:${right.en} )?${answers.en}`,
	'more than one (?:may|can|might) (?:apply|be (?:correct|right|true))',
	'you (?:may|can|should|must) (?:select|choose|mark|tick) (?:more than one|several)',
	`(?:zwei|drei|vier|[2-9]) ${answers.de}(?= (?:sind|können|wählen|ankreuzen|auswählen|möglich)|[.,!)]|$)`,
	`alle ${right.de} ${answers.de}`,
	`(?:deux|trois|quatre|[2-9]) (?:bonnes )?${answers.fr}(?= (?:sont|possibles|correctes|exactes|attendues|à)|[.,!)]|$)`,
	`(?:dos|tres|cuatro|[2-9]) ${answers.es} (?:son )?${right.es}`,
	`(?:duas|três|quatro|[2-9]) ${answers.pt} (?:são |estão )?${right.pt}`,
	`(?:due|tre|quattro|[2-9]) ${answers.it} (?:sono )?${right.it}`,
	`(?:twee|drie|vier|[2-9]) (?:${right.nl} )?${answers.nl}(?= (?:zijn|mogelijk|aan)|[.,!)]|$)`,
	`(?:there (?:may|can|might) be |you (?:may|can) (?:choose|select|mark|tick) )?more than one (?:${right.en} )?(?:answer|option|choice|response|statement)`,
	'one or more (?:answers|options|choices)',
	'mehrere antworten',
	'mehrere (?:lösungen|optionen|aussagen) (?:sind|können)',
	'mehrfach(?:nennung|auswahl)(?:en)?',
	'alle zutreffenden',
	'welche (?:zwei|drei|vier|beiden)(?! ?-)',
	'plusieurs réponses',
	'(?:toutes les|les deux|les trois) (?:bonnes )?réponses (?:correctes|justes|exactes|possibles)',
	'quel(?:le)?s (?:sont les )?(?:deux|trois|quatre)(?! ?-)',
	'más de una (?:respuesta|opción)',
	'varias respuestas',
	'(?:qué|cuáles son (?:las|los)|cuáles) (?:dos|tres|cuatro)(?! ?-)',
	'mais (?:de|do que) uma (?:resposta|alternativa|opção)',
	'várias respostas',
	'quais (?:são (?:as|os) )?(?:duas|dois|três|quatro)(?! ?-)',
	'più (?:di una risposta|risposte)',
	'quali (?:sono (?:le|i) )?(?:due|tre|quattro)(?! ?-)',
	'meerdere antwoorden',
	'meer dan één antwoord',
	'welke (?:twee|drie|vier)(?! ?-)'
];
const oneTold = [
	`${chooseWords.en} (?:only |just |exactly )?(?:one|1)(?! (?:or|and) more)`,
	`${chooseWords.en} the (?:one |single )?(?:best|correct|right|most \\p{L}+) (?:answer|option|choice|response|statement|one)(?!s)`,
	`${chooseWords.de} (?:nur |genau )?(?:eine?n?s?|1)(?! oder mehr)`,
	`${chooseWords.de} die (?:eine |einzige )?(?:beste|richtige|zutreffende) (?:antwort|aussage|option|lösung)`,
	`${chooseWords.fr} (?:seulement )?(?:une?(?: seule?)?|1)(?! ou plus)`,
	`${chooseWords.fr} la (?:seule )?(?:bonne|meilleure) réponse`,
	`${chooseWords.es} (?:solo |sólo |solamente |únicamente )?(?:un[ao]?|1)(?! o (?:más|varias|varios))`,
	`${chooseWords.es} la (?:mejor )?(?:respuesta|opción)(?: correcta)?`,
	`${chooseWords.pt} (?:apenas |somente |só )?(?:uma?|1)(?! ou mais)`,
	`${chooseWords.pt} a (?:melhor )?(?:resposta|alternativa|opção)(?: corret[ao]| certa)?`,
	`${chooseWords.it} (?:solo |soltanto |solamente )?(?:un[ao]?|1)(?! o più)`,
	`${chooseWords.it} la (?:migliore )?risposta(?: corretta| giusta| esatta)?`,
	`${chooseWords.nl} (?:slechts |maar |precies )?(?:één|een|1)(?! of meer)`,
	`${chooseWords.nl} het (?:juiste|beste|goede) antwoord`
];
const oneSaid = [
	'only one (?:correct |right |true )?(?:answer|option|choice|response)(?! or)',
	'(?:nur|genau) eine (?:richtige )?(?:antwort|lösung|option|aussage)',
	'une seule (?:bonne )?réponse',
	'(?:una sola|sol[oa] (?:hay |una )?una|sólo (?:hay )?una|únicamente una) (?:respuesta|opción)',
	'(?:uma única|(?:apenas|só|somente)(?: há)? uma) (?:resposta|alternativa|opção)',
	'una sola (?:risposta|opzione)',
	'(?:slechts|maar) (?:één|een|1) (?:juist |goed )?antwoord'
];

const several = [told(...severalTold), phrase(...severalSaid)];
const one = [told(...oneTold), phrase(...oneSaid)];
const found = (patterns: Phrase[], text: string) =>
	patterns
		.flatMap((pattern) => pattern.in(text)?.words ?? [])
		.map((words) => words.replace(/^[.?!:;,([–—-]\s*/u, '').trim())[0] ?? null;

/** The words that ask for several answers; null where none do. */
export const asksForSeveral = (text: string): string | null => found(several, text);

/** The words that ask for a single answer; null where none do, or where others ask for several. */
export const asksForOne = (text: string): string | null => (asksForSeveral(text) ? null : found(one, text));
