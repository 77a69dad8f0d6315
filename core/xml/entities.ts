/** Named characters that people write in XML without declaring them (HTML 4.01, section 24), beside XML's own five. */
const named: Record<string, string> = {
	nbsp: '\u00a0', iexcl: '¡', cent: '¢', pound: '£', yen: '¥', sect: '§', uml: '¨', copy: '©', laquo: '«', not: '¬',
	shy: '\u00ad', reg: '®', deg: '°', plusmn: '±', sup2: '²', sup3: '³', acute: '´', micro: 'µ', para: '¶',
	middot: '·', sup1: '¹', ordm: 'º', raquo: '»', frac14: '¼', frac12: '½', frac34: '¾', iquest: '¿', Agrave: 'À',
	Aacute: 'Á', Acirc: 'Â', Atilde: 'Ã', Auml: 'Ä', Aring: 'Å', AElig: 'Æ', Ccedil: 'Ç', Egrave: 'È', Eacute: 'É',
	Ecirc: 'Ê', Euml: 'Ë', Igrave: 'Ì', Iacute: 'Í', Icirc: 'Î', Iuml: 'Ï', Ntilde: 'Ñ', Ograve: 'Ò', Oacute: 'Ó',
	Ocirc: 'Ô', Otilde: 'Õ', Ouml: 'Ö', times: '×', Oslash: 'Ø', Ugrave: 'Ù', Uacute: 'Ú', Ucirc: 'Û', Uuml: 'Ü',
	szlig: 'ß', agrave: 'à', aacute: 'á', acirc: 'â', atilde: 'ã', auml: 'ä', aring: 'å', aelig: 'æ', ccedil: 'ç',
	egrave: 'è', eacute: 'é', ecirc: 'ê', euml: 'ë', igrave: 'ì', iacute: 'í', icirc: 'î', iuml: 'ï', ntilde: 'ñ',
	ograve: 'ò', oacute: 'ó', ocirc: 'ô', otilde: 'õ', ouml: 'ö', divide: '÷', oslash: 'ø', ugrave: 'ù', uacute: 'ú',
	ucirc: 'û', uuml: 'ü', alpha: 'α', beta: 'β', gamma: 'γ', delta: 'δ', theta: 'θ', lambda: 'λ', mu: 'μ', pi: 'π',
	sigma: 'σ', phi: 'φ', omega: 'ω', Delta: 'Δ', Sigma: 'Σ', Omega: 'Ω', ensp: '\u2002', emsp: '\u2003',
	thinsp: '\u2009', ndash: '–', mdash: '—', lsquo: '‘', rsquo: '’', sbquo: '‚', ldquo: '“', rdquo: '”', bdquo: '„',
	bull: '•', hellip: '…', prime: '′', Prime: '″', euro: '€', trade: '™', larr: '←', uarr: '↑', rarr: '→', darr: '↓',
	minus: '−', radic: '√', infin: '∞', asymp: '≈', ne: '≠', le: '≤', ge: '≥', sum: '∑'
};

/** The character of a name that HTML knows and XML does not, or undefined. */
export function namedCharacter(name: string): string | undefined {
	return Object.hasOwn(named, name) ? named[name] : undefined;
}
