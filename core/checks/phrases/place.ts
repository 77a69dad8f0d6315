import { wholly } from './phrase';

const rest = {
	en: '(?: (?:answers?|options?|statements?|choices?|ones))?(?: (?:is|are|is all|apply|may be|can be)(?: (?:correct|right|true|wrong|false|possible))?)?',
	de: '(?: (?:antworten|möglichkeiten|aussagen|optionen))?(?: (?:ist|sind|treffen zu|trifft zu)(?: (?:richtig|falsch|korrekt|wahr))?)?',
	fr: '(?: (?:réponses?|propositions?|options?|affirmations?))?(?: (?:est|sont) (?:vraie?s?|justes?|exactes?|correctes?|fausses?|bonnes?))?',
	es: '(?: (?:respuestas?|opciones|alternativas))?(?: (?:es|son) (?:correct[ao]s?|verdader[ao]s?|fals[ao]s?))?',
	pt: '(?: (?:respostas?|opções|alternativas))?(?: (?:está|estão|é|são) (?:corret[ao]s?|cert[ao]s?|errad[ao]s?))?',
	it: '(?: (?:risposte|opzioni|alternative))?(?: (?:è|sono) (?:corrett[aei]|giust[aei]|ver[aei]|errat[aei]))?',
	nl: '(?: (?:antwoorden|opties|mogelijkheden))?(?: (?:is|zijn) (?:juist|goed|correct|fout|waar))?'
};

const placed = [
	'[nt]\\. ?d\\. ?a|n\\. ?o\\. ?t\\. ?a|a\\. ?o\\. ?t\\. ?a',
	`(?:all|none|any|both|neither|either|each|some) (?:of )?(?:the |those |these )?(?:answers? |options? |choices? |statements? )?(?:(?:listed |given |mentioned |shown )?(?:above|below|following)|listed|given|above[- ](?:mentioned|listed)|aforementioned|others?|(?:first|last|previous|preceding|following) (?:two|three|ones?|options?|answers?))${rest.en}`,
	`(?:all|none|both|neither|any|either) (?:of )?(?:these|those|them)${rest.en}`,
	`(?:all|none|both|neither|any) of the (?:options?|answers?|choices?|statements?)${rest.en}`,
	`(?:only )?the (?:first|last) (?:two|three)${rest.en}`,
	`(?:all|none|both|neither) (?:answers |options |choices |statements |of them )?(?:is|are) (?:all )?(?:correct|right|true|wrong|false|incorrect|possible)`,
	`(?:all|both) (?:the )?(?:answers|options|choices|statements)`,
	`(?:more than one|one|two|three|most) of the (?:above|others?|(?:above )?(?:answers|options|choices))${rest.en}`,
	`the (?:answers? |options? |ones? )?above(?: (?:answers?|options?|ones?))?(?: (?:is|are)(?: (?:all|both))? (?:correct|right|true|wrong|false|incorrect))?`,
	`(?:alle|keine?[rs]?|beide|jede) (?:der |die |von den )?(?:(?:oben |vor)?genannten|obigen|vorigen|oberen|obenstehenden|anderen|vorstehenden)${rest.de}`,
	`(?:alle|keine?[rs]?|nichts|alles|beides?) (?:davon|hiervon|von (?:diesen|allen|beiden)|dieser|genannte|oben genannte|zuvor genannte)${rest.de}`,
	`(?:alle|keine|beide) (?:der )?(?:antworten|möglichkeiten|aussagen)${rest.de}`,
	`(?:die |alle )?(?:beiden (?:ersten|letzten|oberen)|(?:ersten|letzten|oberen) (?:beiden|zwei|drei))${rest.de}`,
	`(?:tou(?:te)?s (?:les |ces )|aucune? (?:de ces |des |de celles-|de ceux-)|les deux |l'ensemble des )(?:réponses?|propositions?|options?|affirmations?|choix|ci|premi(?:er|ère)s|précédente?s)?(?: ?(?:ci-dessus|ci-dessous|précédente?s))?${rest.fr}`,
	'tout ce qui précède|rien de tout cela|aucun d(?:e ceux-ci|es deux)|toutes ces réponses',
	`(?:todas?|todos?|ningun[ao]|cualquiera|ambas|ambos|algun[ao]) (?:de )?(?:las |los |lo |estas |estos |ellas |ellos )?(?:respuestas |opciones |alternativas )?(?:anterior(?:es)?|estas|estos|ellas|ellos|otras|demás|de arriba)${rest.es}`,
	`(?:todas las|ninguna de las) (?:respuestas|opciones|alternativas)${rest.es}|(?:las|los) dos primer[ao]s${rest.es}|ninguna es correcta|todas son correctas|ambas (?:respuestas|opciones)${rest.es}`,
	`(?:todas?|todos|nenhuma?|ambas|ambos) (?:as |os |das |dos |de )?(?:respostas |opções |alternativas )?(?:anteriores|acima|estas|elas|eles|outras)${rest.pt}`,
	`(?:todas as|nenhuma das) (?:respostas|opções|alternativas)${rest.pt}|(?:as|os) (?:duas|dois) primeir[ao]s${rest.pt}|(?:todas|nenhuma) (?:estão|está|são|é) (?:corret[ao]s?|cert[ao]s?)|ambas as (?:respostas|opções)${rest.pt}`,
	`(?:tutt[ei]|nessun[ao]|entramb[ei]) (?:le |i |gli |delle |dei |di )?(?:risposte |opzioni )?(?:precedenti|suddett[ei]|quest[ei]|sopra|di cui sopra|elencat[ei]|altre|altri)${rest.it}`,
	`(?:tutte le|nessuna delle) (?:risposte|opzioni|alternative)${rest.it}|(?:le|i) prim[ei] due${rest.it}|(?:tutte|nessuna) (?:sono|è) (?:corrett[ae]|giust[ae]|ver[ae])|entrambe le risposte${rest.it}`,
	`(?:alle?|al|geen|beide|elk) (?:van )?(?:de |het )?(?:bovenstaande|bovengenoemde|voorgaande|vorige|andere|onderstaande)${rest.nl}`,
	`(?:geen|alle|allen) (?:van )?(?:deze|beide|allen|hierboven|de (?:antwoorden|opties))${rest.nl}|(?:de )?eerste twee${rest.nl}|alle antwoorden${rest.nl}`
];

const pattern = wholly(...placed);

/** Whether an option has its sense only in its place: “all of the above”, “both of the first two”. */
export const isBoundToPlace = (text: string): boolean =>
	pattern.isIn(text.replace(/[\s.…!]+$/u, '').replace(/^[–—-]\s*/u, ''));
