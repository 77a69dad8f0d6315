import { phrase } from './phrase';

const picture = {
	en: '(?:pictures?|images?|photo(?:graph)?s?|diagrams?|drawings?|illustrations?|sketch(?:es)?|screenshots?)',
	en2: '(?:figure|graph|chart|map|plan|table|curve|text|passage|extract|excerpt|paragraph|cartoon|symbol|code)s?',
	de: '(?:bild(?:er)?|fotos?|diagramm|schaubild|schema)',
	de2: '(?:abbildung(?:en)?|zeichnung|grafik|skizze|karte|tabelle|text|textabschnitt|auszug|kurve)',
	fr: '(?:image|photo(?:graphie)?|illustration|figure|schéma|dessin|croquis|tableau|graphique|carte|texte|passage|extrait|diagramme)s?',
	es: '(?:imagen|imágenes|foto(?:grafía)?s?|figuras?|ilustración|dibujos?|diagramas?|esquemas?|tablas?|gráfic[oa]s?|textos?|mapas?|fragmento|pasaje)',
	pt: '(?:imagem|imagens|foto(?:grafia)?s?|figuras?|ilustração|desenhos?|diagramas?|esquemas?|tabelas?|gráficos?|textos?|mapas?|trecho|excerto)',
	it: '(?:immagin[ei]|foto(?:grafia)?|figur[ae]|illustrazion[ei]|disegn[oi]|diagramm[ai]|schem[ai]|tabell[ae]|grafic[oi]|test[oi]|mapp[ae]|cartin[ae]|bran[oi])',
	nl: "(?:afbeelding(?:en)?|foto(?:'s)?|figu(?:ur|ren)|tekening(?:en)?|plaatjes?|schema|diagram|tabel|grafiek|tekst|kaart|fragment)"
};
/** Behind “above” and “below”: no thing that something else is above or below of. */
const atEnd = '(?! (?:the|a|an|any|its|each|all|this|that|sea|water|\\d))';
const shown = '(?:shown |given |drawn |printed |reproduced )?';
/**
 * How a language points at something that stands with a question: what is seen, what is read, how one is sent there
 * (`by` for either, `at` for what is seen alone), and how it is said to show something.
 */
interface Pointing {
	language: string;
	the: string;
	seen: string;
	read: string;
	by: string;
	at?: string;
	shows: string;
	tells?: string;
	numbered: string;
}
const pointing: Pointing[] = [
	{
		language: 'en',
		the: '(?:the|this|these)',
		seen: `(?:${picture.en}|graph|screenshot)`,
		read: '(?:table|text|passage|extract|excerpt|paragraph|article)',
		by: '(?:according to|(?:based|judging|drawing) (?:on|by|from)|refer(?:ring)? to|with reference to|as (?:shown|seen|given|described|stated|mentioned) (?:in|by)|(?:use|using|from|with) the (?:information|data|figures|values) (?:given |shown )?(?:in|from)|the (?:information|data|figures|values) (?:given |shown )?(?:in|from)|read(?! (?:out|aloud))|study|use|using)',
		at: '(?:from|look at|looking at|by|of)',
		shows: '(?:shows?|depicts?|illustrates?|represents?|displays?)',
		tells: '(?:gives|lists|shows)',
		numbered: '(?:figure|fig\\.?|diagram|table|image|picture|photo|illustration|exhibit|graph)'
	},
	{
		language: 'de',
		the: '(?:der|die|das|dem|den|des|diese[rsmn]?|beim?|zum|vom|im)',
		seen: '(?:abbildung(?:en)?|abb\\.|bild(?:er|es)?|fotos?|diagramms?|schaubilds?|zeichnung|gra(?:f|ph)ik|skizze|schemas?)',
		read: '(?:text(?:es|s)?|textabschnitts?|auszugs?|auszug|tabelle|artikels?)',
		by: '(?:laut|gemäß|anhand|nach|mit ?hilfe|unter verwendung|auf grundlage|siehe|beachte[nt]?(?: sie)?|betrachte[nt]?(?: sie)?|lies|lest|lesen sie|nutze[nt]?(?: sie)?|verwende[nt]?(?: sie)?)',
		shows: '(?:zeigt|zeigen|veranschaulicht)',
		numbered: '(?:abb(?:\\.|ildung)?|bild|tabelle|grafik|skizze)'
	},
	{
		language: 'fr',
		the: "(?:le |la |les |l['’]|ce |cet |cette |ces |du |de la |de l['’]|au |à la |à l['’])",
		seen: '(?:images?|photo(?:graphie)?s?|illustrations?|figures?|schémas?|dessins?|croquis|graphiques?|diagrammes?)',
		read: '(?:textes?|passages?|extraits?|tableaux?|documents?)',
		by: "(?:d['’]après|selon|(?:d['’]|en )observant|observe[zr]?|regarde[zr]?|examine[zr]?|étudie[zr]?|voir|à l['’]aide|à partir|en utilisant|utilise[zr]?|lis|lisez|lire|consulte[zr]?|en vous (?:aidant|basant|appuyant))",
		shows: '(?:montre(?:nt)?|représente(?:nt)?|illustre(?:nt)?)',
		numbered: '(?:fig(?:\\.|ure)?|tableau|image|photo|schéma|document)'
	},
	{
		language: 'es',
		the: '(?:el|la|los|las|este|esta|estos|estas|del|al)',
		seen: '(?:imagen|imágenes|foto(?:grafía)?s?|figuras?|ilustración|dibujos?|diagramas?|esquemas?|gráfic[oa]s?)',
		read: '(?:textos?|pasajes?|fragmentos?|tablas?|cuadros?)',
		by: '(?:según|de acuerdo (?:con|a)|(?:en|con) base (?:en|a)|observ[ae]|mir[ae]|analiz[ae]|analic[ea]|le[ae]|lee|leer|vea|ver|utilic[ea]|utiliza|us[ae]|a partir|consult[ae])',
		at: '(?:en|de)',
		shows: '(?:muestran?|representan?|ilustran?)',
		numbered: '(?:fig(?:\\.|ura)?|tabla|imagen|foto|gráfico|cuadro)'
	},
	{
		language: 'pt',
		the: '(?:o|a|os|as|este|esta|do|da|no|na|ao|à)',
		seen: '(?:imagem|imagens|foto(?:grafia)?s?|figuras?|ilustração|desenhos?|diagramas?|esquemas?|gráficos?)',
		read: '(?:textos?|trechos?|excertos?|tabelas?|quadros?)',
		by: '(?:de acordo com|segundo|conforme|com base|observ[ae]|vej?a|analis[ae]|leia|use|utilize|a partir|consult[ae])',
		shows: '(?:mostram?|representam?|ilustram?)',
		numbered: '(?:fig(?:\\.|ura)?|tabela|imagem|foto|gráfico|quadro)'
	},
	{
		language: 'it',
		the: "(?:il |la |lo |le |i |gli |l['’]|quest[aoei] |quest['’]|al |alla |all['’]|del |della |dell['’]|dal |dalla |dall['’])",
		seen: '(?:immagin[ei]|foto(?:grafia)?|figur[ae]|illustrazion[ei]|disegn[oi]|diagramm[ai]|schem[ai]|grafic[oi]|vignett[ae])',
		read: '(?:test[oi]|bran[oi]|tabell[ae]|passaggi?o?)',
		by: '(?:secondo|in base|osserv[aei]|osservate|guard[aei]|guardate|leggi|leggete|legga|leggere|vedi|consulta|utilizza|utilizzando|a partire|con riferimento)',
		shows: '(?:mostra(?:no)?|rappresenta(?:no)?|illustra(?:no)?|raffigura(?:no)?)',
		numbered: '(?:fig(?:\\.|ura)?|tabella|immagine|foto|grafico)'
	},
	{
		language: 'nl',
		the: '(?:de|het|deze|dit)',
		seen: "(?:afbeelding(?:en)?|foto(?:['’]s)?|figu(?:ur|ren)|tekening(?:en)?|plaatje|schema|diagram|grafiek)",
		read: '(?:teksten?|tekst|tabel|fragment|passage)',
		by: '(?:volgens|op basis van|aan de hand van|met behulp van|zie|bekijk|lees|gebruik|bestudeer|raadpleeg)',
		shows: '(?:toont|tonen|laat|laten)',
		numbered: '(?:fig(?:\\.|uur)?|tabel|afbeelding|foto|grafiek)'
	}
];
/** A thing that is only named by a picture: a picture book, an image sensor. */
const compound = '(?! (?:gallery|book|frame|post\\b|room|board|sensor|tube|processing|quality|file)s?)';
/** A book that everybody has is not what stands with the question, nor is the text of something that is told. */
const ofItsOwn =
	"(?! ?(?:of|des|der|einer|eines|de|des|du|d['’]|del|della|di|do|da|van) (?!eight\\b)(?:the |an? |la |le |los |las |het |een )?\\p{L})";
const pointed = pointing.flatMap(({ language, the, seen, read, by, at, shows, tells, numbered }) => {
	const gap = the.includes(' |') ? '' : ' ';
	const between = '(?:\\p{L}+ )?';
	return [
		`${by} (?:${the}${gap}${between})${seen}${compound}`,
		`${by} (?:${the}${gap})${read}${ofItsOwn}`,
		...(language === 'de' ? [`(?:laut|gemäß|siehe|vgl\\.) (?:${seen}|${read})`] : []),
		...(at ? [`${at} ${the}${gap}${seen}${compound}${ofItsOwn}`] : []),
		`${the}${gap}${seen} (?:${language === 'en' ? 'below |above |here ' : ''})?${shows}`,
		`${shows} ${the}${gap}${between}${seen}`,
		...(tells ? [`${the} ${read} ${tells}`] : []),
		`(?<!(?:the|a|an|which|die|der|das|la|le|de|het|il) )${numbered} ?(?!8\\b)\\d+[a-z]?(?! ?(?:knot|of the|der|des|de la))(?:(?=[.,:;?!)]|$)|(?= \\p{Ll}))`
	];
});
/** What is shown with a question, in words that name it by that alone: “the mark shown below”, “die abgebildete Tonne”. */
const shownThings = [
	// a thing below that is an answer or one of a list stands there
	`(?:le |la |les |l['’]|cet? |cette |ces |du |des )(?!(?:réponse|proposition|option|affirmation|choix|phrase|énoncé|mot|terme|élément|liste|cas|nom|verbe|solution)s?)\\p{L}+ (?:\\p{L}+ )?(?:(?:représenté|illustré|montré|dessiné|photographié|figuré)e?s? )?ci-(?:dessous|dessus|contre)`,
	'(?:représenté|illustré|dessiné|photographié)e?s? ici',
	'(?:de[rmns]|die|das|welche[rsn]?) (?:hier |unten |oben |nebenan )?(?:abgebildete|dargestellte|gezeigte|skizzierte|gezeichnete)[nrsm]? \\p{L}+',
	'hier (?:zu sehen|gezeigt|dargestellt|gezeichnet)|(?:oben|unten|rechts|links|nebenstehend) (?:gezeigt|dargestellt|gezeichnet)',
	'(?:entnehmen|entnimm|entnehmt)(?: sie)? (?:aus )?(?:der|dem) (?:tabelle|grafik|text|abbildung|diagramm|karte|auszug|kartenausschnitt)|(?:der|dem) (?:tabelle|text|grafik|abbildung) (?:zu )?entnehmen',
	'(?:mostrad|representad|ilustrad|dibujad)[oa]s? (?:abajo|arriba|aquí|a continuación)',
	'que se muestran? (?:a continuación|aquí|abajo|arriba)',
	'(?:mostrad|representad|ilustrad|desenhad)[oa]s? (?:abaixo|acima|aqui|a seguir|ao lado)',
	`d(?:a|essa|esta) (?:imagem|figura|foto(?:grafia)?|ilustração)(?! ?d[aeo])|d(?:o|esse|este) (?:desenho|diagrama|esquema)`,
	'(?:raffigurat|mostrat|rappresentat|illustrat|disegnat)[oaie] (?:in figura|qui|qui sotto|qui sopra|a lato)',
	"in figura|dell(?:a (?:figura|foto|vignetta)|['’](?:immagine|illustrazione))(?! ?d(?:i|el))",
	'(?:afgebeelde|getekende|weergegeven|getoonde) \\p{L}+|(?:hier|hieronder|hierboven|hiernaast) (?:afgebeeld|getekend|weergegeven|getoond|te zien)',
	'(?:is|are|as) (?:pictured|depicted|illustrated|photographed|sketched)(?=[.,?!)]|$)|(?:pictured|depicted|illustrated|sketched) (?:vessel|buoy|mark|knot|light|flag|signal|shape|object|device|part)s?',
	'look(?:ing)? at (?:the|this) (?:\\p{L}+ )?(?:(?:table|graph|timetable)(?= (?:and|to|below|above)|[.,:;!]|$)|(?:chart|map|plan)(?= (?:and|below|above)|[:;!]))',
	'(?:consider|study|examine|inspect) (?:the|this) (?:\\p{L}+ )?(?:table|graph|chart|map|plan)(?=[.:;!]| (?:and|below|above))',
	'(?:curve|table|chart|graph|map|plan|diagram|data|information) (?:provided|supplied|enclosed)',
	'(?:use|using|from|with|on|in|study|refer to|see|look at|according to) (?:the|this) (?:\\p{L}+ )?(?:extract|excerpt)'
];
const pattern = phrase(
	...shownThings,
	`(?:in|on|from|see|look(?:ing)? at|study|consider|examine) (?:the|this|these|that) (?:\\p{L}+ )?${picture.en}${compound}`,
	`(?:in|see|look(?:ing)? at|from) (?:the|this) figure(?! (?:of eight|eight))`,
	`(?:${picture.en}|${picture.en2}) ${shown}(?:(?:below|above|opposite)${atEnd}|overleaf|shown here|on the (?:left|right)|to the (?:left|right)|at the (?:left|right)|alongside)`,
	`(?<!of )(?:the |this )?(?<!of the )(?:following|accompanying|attached|adjacent) (?:${picture.en}|${picture.en2})(?! datum)`,
	`(?<!of )(?:the|this) (?:above|below) (?:${picture.en}|${picture.en2})(?! datum)`,
	`(?:shown|pictured|depicted|drawn|seen|displayed|illustrated) (?:(?:below|above|here|opposite)${atEnd}|in (?:the |this )?(?:${picture.en}|figure|fig\\.)|in (?:figure|fig\\.?|table) \\d+)`,
	`(?:does|do|is|are) the (?:${picture.en}|figure|graph) (?:below |above )?(?:show|depict|illustrate|represent|display|about)`,
	`(?:ist|sind|wird|werden) (?:hier |oben |unten )?abgebildet`,
	`(?:as|see|in) (?:figure|fig\\.?|table|diagram) \\d+|(?:figure|fig\\.?|table) \\d+ (?:shows|above|below)`,
	`see (?:${picture.en}|figure|table)`,
	`(?:im|in dem|auf dem|am|siehe|in diesem|auf diesem|das|dieses) (?:\\p{L}+en )?${picture.de}(?= |[,.?!:;]|$)(?<!das (?:bild|foto|schema|diagramm))`,
	`(?:in|auf|siehe) (?:der|dieser|diese|die) (?:\\p{L}+en )?(?:abbildung|zeichnung|grafik|skizze)`,
	`siehe (?:abb\\.?|abbildung|bild|tabelle|skizze|text)`,
	`(?:${picture.de}|${picture.de2}) (?:oben|unten|rechts|links|nebenan)`,
	`(?:folgende|obige|unten?stehende|nebenstehende|obenstehende|abgebildete|beigefügte|vorliegende)[nmrs]? (?:${picture.de}|${picture.de2})`,
	`(?:sur|dans|d'après|selon|regarde[zr]?|observe[zr]?|voir) (?:l['’]|cette |ces |ce )(?:image|photo|illustration|figure|schéma|dessin)s?|(?:sur|dans) (?:la |le )(?:photo|figure|schéma|dessin)(?: |[,.?!:;]|$)`,
	`${picture.fr} (?:ci-(?:dessous|dessus|contre|après|joint)|suivante?s?|précédente?s?|au-dessus|en dessous)`,
	`en (?:la|esta|las|estas) (?:imagen|imágenes|foto(?:grafía)?|figura|ilustración)|en (?:el|este) (?:dibujo|diagrama|esquema)`,
	`${picture.es} (?:de (?:abajo|arriba|la (?:derecha|izquierda))|anterior(?:es)?|siguientes?|adjunt[ao]s?|que (?:se muestra|aparece|sigue)|a continuación)`,
	`(?:la|el|las|los) siguientes? ${picture.es}`,
	`(?:observ[ae]|mir[ae]|analic[ea]|analiza|consider[ae]|ve[ar]?|vea) (?:la|el) ${picture.es}`,
	`(?:observ[ae]|vej?a|analis[ae]|consider[ae]) (?:a|o) ${picture.pt}`,
	`(?:osserv[aei]|guard[aei]|analizz[aei]|vedi|consider[aei]) (?:la |il |l['’])${picture.it}`,
	`n(?:a|esta|as|essa) (?:imagem|imagens|foto(?:grafia)?|figura|ilustração)|n(?:o|este|esse) (?:desenho|diagrama|esquema)`,
	`${picture.pt} (?:abaixo|acima|a seguir|ao lado|anterior(?:es)?|seguintes?|em anexo)`,
	`(?:a|o|as|os) seguintes? ${picture.pt}`,
	`nell['’](?:immagine|illustrazione)|nella (?:foto|figura|vignetta)|nel (?:disegno|diagramma|grafico|brano)|in (?:questa|quest['’]) ?(?:immagine|foto|figura)`,
	`${picture.it} (?:qui )?(?:sotto|sopra|seguent[ei]|a lato|a fianco|accanto|in basso|in alto|riportat[aoei]|allegat[aoei]|precedente)`,
	`(?:la|il|le|i) seguent[ei] ${picture.it}`,
	`(?:op|in|zie|bekijk) (?:de|deze|die) (?:afbeelding|foto|figuur|tekening)|(?:op|in) (?:het|dit) (?:plaatje|schema|diagram)`,
	`(?:onderstaande?|bovenstaande?|bijgaande?|nevenstaande?|volgende) ${picture.nl}`,
	`${picture.nl} (?:hieronder|hierboven|hiernaast|rechts|links)`,
	...pointed
);

/** The words that send to a picture, a chart, a table or a text; null where none do. */
export const sendsToPicture = (text: string): string | null => pattern.in(text)?.words.trim() ?? null;
