import { mathElements } from '$core/markup/mathml';

const namespace = 'http://www.w3.org/1998/Math/MathML';
const texEncoding = 'application/x-tex';

/** A formula in TeX as MathML, which carries its TeX; throws what is wrong with it in words. */
export async function formulaOf(tex: string, block: boolean): Promise<string> {
	const { default: katex } = await import('katex');
	const html = katex.renderToString(tex, { output: 'mathml', displayMode: block, throwOnError: true, trust: false });
	const held = document.createElement('div');
	held.innerHTML = html;
	return held.querySelector('math')?.outerHTML ?? '';
}

/** A formula that is written in MathML, in one element; throws what is wrong with it in words. */
export function formulaOfMathml(written: string): string {
	const named = /^\s*<math(?=[\s>])(?![^>]*\sxmlns=)/.test(written)
		? written.replace('<math', `<math xmlns="${namespace}"`)
		: written;
	const read = new DOMParser().parseFromString(named.trim(), 'application/xml');
	const trouble = read.querySelector('parsererror');
	if (trouble) {
		const said = /error on line \d+ at column \d+: [^\n]+/.exec(trouble.textContent ?? '')?.[0] ?? '';
		throw new Error(`That is not well-formed${said ? `: ${said}` : '.'}`);
	}
	const root = read.documentElement;
	if (root.localName !== 'math') throw new Error('MathML begins with <math> and ends with </math>.');
	for (const element of [root, ...root.querySelectorAll('*')]) {
		if (!mathElements.has(element.localName)) throw new Error(`<${element.localName}> is no element that is kept.`);
		for (const { name } of [...element.attributes])
			if (/^on|(?:^|:)(?:href|src)$/i.test(name)) element.removeAttribute(name);
	}
	return new XMLSerializer().serializeToString(root);
}

/** How a formula is written: as the TeX that it carries, else as MathML. */
export function writtenIn(math: string): { form: 'TeX' | 'MathML'; text: string } {
	const held = document.createElement('div');
	held.innerHTML = math;
	const tex = held.querySelector(`annotation[encoding="${texEncoding}"]`)?.textContent;
	return tex ? { form: 'TeX', text: tex } : { form: 'MathML', text: math };
}
