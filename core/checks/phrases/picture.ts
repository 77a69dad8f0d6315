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
const pattern = phrase(
	`(?:in|on|from|see|look(?:ing)? at|study|consider|examine) (?:the|this|these|that) (?:\\p{L}+ )?${picture.en}(?! (?:gallery|book|frame|post\\b))`,
	`(?:in|see|look(?:ing)? at|from) (?:the|this) figure(?! (?:of eight|eight))`,
	`(?:${picture.en}|${picture.en2}) ${shown}(?:(?:below|above|opposite)${atEnd}|overleaf|shown here|on the (?:left|right)|to the (?:left|right)|at the (?:left|right)|alongside)`,
	`(?<!of )(?:the |this )?(?<!of the )(?:following|accompanying|attached|adjacent) (?:${picture.en}|${picture.en2})(?! datum)`,
	`(?<!of )(?:the|this) (?:above|below) (?:${picture.en}|${picture.en2})(?! datum)`,
	`(?:shown|pictured|depicted|drawn|seen|displayed|illustrated) (?:(?:below|above|here|opposite)${atEnd}|in (?:the |this )?(?:${picture.en}|figure|fig\\.)|in (?:figure|fig\\.?|table) \\d+)`,
	`(?:as|see|in) (?:figure|fig\\.?|table|diagram) \\d+|(?:figure|fig\\.?|table) \\d+ (?:shows|above|below)`,
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
	`${picture.nl} (?:hieronder|hierboven|hiernaast|rechts|links)`
);

/** The words that send to a picture, a chart, a table or a text; null where none do. */
export const sendsToPicture = (text: string): string | null => pattern.exec(text)?.[0].trim() ?? null;
