/** A line of a source as it is shown. */
export interface SourceLine {
	/** Its number in the file. */
	number: number;
	text: string;
	/** Whether it is the first that is shown of that line of the file. */
	first: boolean;
}

const longest = 300;
const piece = /<!--[\s\S]*?-->|<!\[CDATA\[[\s\S]*?\]\]>|<[^<>]*>|[^<]+|</g;

/** One long line of markup as several, each element indented by how deep it stands; nothing is added but line ends. */
function indented(line: string): string[] {
	const out: string[] = [];
	let depth = 0;
	let held = '';
	const flush = () => {
		if (held.trim()) out.push('\t'.repeat(Math.max(0, depth)) + held.trim());
		held = '';
	};
	for (const [found] of line.matchAll(piece)) {
		if (/^<\/[^>]*>$/.test(found)) {
			flush();
			depth -= 1;
			held = found;
			flush();
		} else if (/^<[A-Za-z][^>]*\/>$|^<[!?]/.test(found)) {
			flush();
			held = found;
			flush();
		} else if (/^<[A-Za-z][^>]*>$/.test(found)) {
			flush();
			held = found;
			flush();
			depth += 1;
		} else held += found;
	}
	flush();
	return out;
}

/** A source in lines; where it is markup on very long ones, these are broken and indented, and keep their number. */
export function sourceLines(source: string, first: number): SourceLine[] {
	return source.split('\n').flatMap((line, at): SourceLine[] => {
		const parts = line.length > longest && /<[A-Za-z/]/.test(line) ? indented(line) : [line];
		return parts.map((text, n) => ({ number: first + at, text, first: n === 0 }));
	});
}
