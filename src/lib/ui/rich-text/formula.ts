/** A formula in TeX as MathML, which carries its TeX; throws what is wrong with it in words. */
export async function formulaOf(tex: string, block: boolean): Promise<string> {
	const { default: katex } = await import('katex');
	const html = katex.renderToString(tex, { output: 'mathml', displayMode: block, throwOnError: true, trust: false });
	const held = document.createElement('div');
	held.innerHTML = html;
	return held.querySelector('math')?.outerHTML ?? '';
}
