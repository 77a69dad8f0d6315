/** Saves a weave that is on the page as a picture (SVG, which any size is sharp in): its table as it is seen, with its words. */
export function weavePicture(table: HTMLTableElement, name: string): void {
	const frame = table.getBoundingClientRect();
	const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
	const parts: string[] = [];
	const style = getComputedStyle(document.body);
	const textAt = (element: Element, x: number, y: number, anchor: string, turned = false) => {
		const { color, fontWeight, fontSize } = getComputedStyle(element);
		const turn = turned ? ` transform="rotate(-32 ${x} ${y})"` : '';
		parts.push(
			`<text x="${x}" y="${y}" text-anchor="${anchor}" font-size="${parseFloat(fontSize)}" font-weight="${fontWeight}" fill="${color}"${turn}>${escaped(element.textContent?.trim() ?? '')}</text>`
		);
	};
	for (const head of table.querySelectorAll('thead th')) {
		const box = head.getBoundingClientRect();
		textAt(
			head,
			box.left - frame.left + 4,
			box.bottom - frame.top - 8,
			'start',
			head.querySelector('.slanted') !== null
		);
	}
	for (const head of table.querySelectorAll('tbody th')) {
		const box = head.getBoundingClientRect();
		const indent = parseFloat(getComputedStyle(head).paddingLeft);
		textAt(head, box.left - frame.left + indent, box.top - frame.top + box.height / 2 + 5, 'start');
	}
	for (const cell of table.querySelectorAll('.cell, .track, .track span, .beside td')) {
		const box = cell.getBoundingClientRect();
		const [x, y] = [box.left - frame.left, box.top - frame.top];
		const { backgroundColor } = getComputedStyle(cell);
		if (cell.classList.contains('hole'))
			parts.push(
				`<circle cx="${x + box.width / 2}" cy="${y + box.height / 2}" r="5" fill="none" stroke="#b9ad97" stroke-dasharray="2 2"/>`
			);
		else if (!cell.matches('.beside td'))
			parts.push(
				`<rect x="${x}" y="${y}" width="${box.width}" height="${box.height}" rx="3" fill="${backgroundColor}"/>`
			);
		if (cell.matches('.cell, .beside td') && cell.textContent?.trim())
			textAt(cell, x + box.width / 2, y + box.height / 2 + 5, 'middle');
	}
	const picture = `<svg xmlns="http://www.w3.org/2000/svg" width="${frame.width + 60}" height="${frame.height}" viewBox="0 0 ${frame.width + 60} ${frame.height}" font-family="sans-serif"><rect width="100%" height="100%" fill="${style.backgroundColor}"/>${parts.join('')}</svg>`;
	const link = document.createElement('a');
	link.href = URL.createObjectURL(new Blob([picture], { type: 'image/svg+xml' }));
	link.download = `${name}.svg`;
	link.click();
	URL.revokeObjectURL(link.href);
}
