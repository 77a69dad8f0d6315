import { Phrase } from './phrase';
import { chooseWords } from './several';

const verb = `(?:please |bitte |now |veuillez |por favor,? |per favore,? |graag )?(?:${Object.values(chooseWords).join('|')}|(?:select|choose|cross|tick|type|enter|write|fill in))(?: (?:please|bitte|aan|an))?`;
const quality =
	'(?:single |one |best |correct |right |true |most \\p{L}+ |only |eine |einzige |beste |richtige[nrs]? |zutreffende[nrs]? |korrekte[nrs]? |bonnes? |meilleure |mejor |correctas? |melhor |corretas? |certas? |migliore |giust[ae] |corrett[ae] |juiste |beste |goede |seule |única )*';
const noun =
	'(?:answers?|options?|choices?|responses?|alternatives?|ones?|antwort(?:en)?|lösung(?:en)?|optionen?|möglichkeit(?:en)?|réponses?|propositions?|respuestas?|opción|opciones|respostas?|alternativas?|opção|opções|risposta|risposte|opzione|opzioni|antwoord(?:en)?|opties?)';
const which =
	"(?:(?:only |just |exactly |nur |seulement |solo |sólo |apenas |somente |slechts )?(?:the|a|an|one|two|three|four|all|any|every|your|1|2|3|4|die|das|eine?n?|zwei|drei|alle|mehrere|la|le|les|l['’]|une?|deux|trois|tou(?:te)?s(?: les)?|las|los|una?|uno|dos|tres|tod[ao]s(?: [lao]+s)?|as?|os?|uma?|duas|dois|três|il|un['’]|tutte(?: le)?|due|tre|de|het|een|één|twee|drie)(?: of the following| or more)?)";
const tail =
	'(?: (?:only|that (?:apply|applies)|that (?:is|are|best) [^.:;()]{1,30}|below|from the list|aus|an|nur|zutreffenden|correctes?|justes?|exactes?|correctas?|corretas?|certas?|corrett[ae]|giust[ae]|esatt[ae]|qui conviennent|que correspondan?|che si applicano))*';
/** An instruction on how to answer, and nothing else: “Select one”, “Choose all that apply”, “Kreuzen Sie die richtige Antwort an”. */
const instruction = `(?:nur |genau )?(?:eine|mehrere) (?:antwort(?:en)?|lösung(?:en)?) (?:ist|sind) (?:richtig|korrekt|möglich)|one (?:answer|option) is (?:correct|right)|une seule (?:bonne )?réponse(?: (?:possible|correcte|exacte))?|(?:hay )?una sola respuesta(?: correcta)?|uma única resposta(?: correta)?|una sola risposta(?: (?:corretta|esatta))?|(?:er is )?(?:slechts )?één antwoord (?:is )?(?:juist|goed)|${verb} ${which}(?:(?: |(?<=['’]))${quality}(?:${noun})?)?${tail}|(?:multiple|single) (?:choice|answer|response)s?|more than one answer (?:may be|is|can be) (?:correct|possible|right)|(?:several|multiple) answers (?:are )?possible|(?:please )?answer (?:the|this) (?:following )?question(?:s)?(?: (?:below|that follows?))?|(?:bitte )?beantworten sie (?:bitte )?(?:die|diese) (?:folgende )?frage|répondez à la question(?: suivante)?|responda (?:a )?(?:la|à) (?:siguiente |seguinte )?pregunta(?: siguiente)?|responda à (?:seguinte )?(?:pergunta|questão)(?: (?:seguinte|abaixo))?|rispond[ia] alla (?:seguente )?domanda(?: seguente)?|beantwoord de (?:volgende )?vraag|mehrere antworten(?: sind)? (?:möglich|richtig)|plusieurs réponses(?: sont)? possibles|mehrfachnennungen? möglich`;

const bracketed = new Phrase(`\\s*[([]\\s*(?:${instruction})\\s*[.:!]?\\s*[)\\]]`);
/** A sentence of its own, or what a colon ends. */
const sentence = new Phrase(`(?:^|(?<=[.?!:…]\\s))(?:${instruction})\\s*(?:[.:!]|$)`);
const numbered =
	/^\s*(?:question|frage|aufgabe|pregunta|pergunta|questão|domanda|quesito|vraag|item|problem|exercise|q)\s*(?:n[°ºo.]\s*)?#?\s*\d{1,4}\s*(?:[:.)–—-]+\s*|(?=\s*$)|(?<=^\s*(?:question|pregunta|pergunta|questão|domanda|vraag)\s*\d{1,4})\s+(?=(?:what|which|who|when|where|why|how|is|are|do|does|¿|quels?|quelles?|qui|que|qual|quais|quale|quali|chi|che|wat|welke?|wie)(?!\p{L})))(?=\S)/iu;
const greeting =
	/^\s*(?:(?:sure|certainly|of course|absolutely|gerne|natürlich|bien sûr|claro|certo|natuurlijk)\s*[!,.:–—-]*\s*)?(?:here(?:'s|’s| is| are)\s+(?:your|the|a|an|another|some)\s+(?:[\p{L}-]+ ){0,3}?questions?(?: (?:for you|about [^:.]{1,40}))?|hier ist (?:ihre|deine|die|eine)\s+(?:\p{L}+ )?frage|voici (?:votre|ta|la|une)\s+(?:\p{L}+ )?question|aquí (?:está|tienes|tiene)\s+(?:su|tu|la|una)\s+(?:\p{L}+ )?pregunta|aqui está\s+(?:a sua|a|sua|uma)\s+(?:\p{L}+ )?pergunta|ecco\s+(?:la|una)\s+(?:tua |vostra )?domanda|hier is\s+(?:je|uw|de|een)\s+(?:\p{L}+ )?vraag)\s*[:.!]\s*/iu;
const required =
	/\s*[([]\s*\*?\s*(?:required|mandatory|pflicht(?:feld|frage)?|erforderlich|obligatoire|obligatori[oa]|obrigatóri[oa]|obbligatori[oa]|verplicht)\s*\*?\s*[)\]]\s*$|(?<=[^\s*])\s*\*\s*$/iu;

/** What stands in a text and says nothing of what is asked: an instruction, a number of a question, a greeting, a mark. */
export function boilerplateIn(text: string): string | null {
	const star = required.exec(text);
	// a star that stands elsewhere too leads to a note
	const isMark = star && !(star[0].includes('*') && text.slice(0, star.index).includes('*'));
	const found =
		(greeting.exec(text) ?? numbered.exec(text))?.[0] ??
		(bracketed.in(text) ?? sentence.in(text))?.words ??
		(isMark ? star[0] : null);
	if (found === null) return null;
	const words = found.trim();
	// where nothing else is said, it is what is asked
	return text.replace(found, '').replace(/[\s.:*–—-]+/gu, '') ? words : null;
}
