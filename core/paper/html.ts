import { displayMarkup } from '../markup/display';
import type { Attachment, Markup } from '../model/question';
import { escapeAttribute, escapeText } from '../xml/serialise';
import type { PaperBlock } from '.';
import { letterAt } from './letters';
import { drawnPlace, timesOnPaper } from './places';
import type { WordForms, WordQuestion } from './word/document';
import type { PictureBytes } from './word/pictures';
import { pointsText, totalText, worthText } from './worth';

const dataUri = (bytes: Uint8Array, mediaType: string) => {
	let text = '';
	for (const byte of bytes) text += String.fromCharCode(byte);
	return `data:${mediaType};base64,${btoa(text)}`;
};

/** What shows the pictures of a question: each stands in the page itself. */
class Shown {
	constructor(
		readonly attachments: readonly Attachment[],
		readonly bytesOf: PictureBytes
	) {}

	address(hash: string, mediaType: string): string {
		const bytes = this.bytesOf(hash);
		return bytes ? dataUri(bytes, mediaType) : '';
	}

	markup(markup: Markup): string {
		return displayMarkup(markup, this.attachments, (hash, mediaType) => this.address(hash, mediaType));
	}

	picture({ picture, places }: Extract<PaperBlock, { sort: 'picture' }>): string {
		const file = this.attachments.find(({ name }) => name === picture.name);
		const address = file?.hash ? this.address(file.hash, file.mediaType) : '';
		const [width, height] = [picture.width ?? 320, picture.height ?? 200];
		const times = timesOnPaper(width);
		// as large as a small picture stands there, its marks and lines are not
		const size = 14 / times;
		const numbers = places
			.map((place, at) => {
				const { outline, corner } = drawnPlace(place);
				const [x, y] = [Math.max(size, corner[0]), Math.max(size, corner[1])];
				return `<polygon points="${outline.map((point) => point.join(',')).join(' ')}" fill="none" stroke="#000" stroke-width="${1 / times}"/><circle cx="${x}" cy="${y}" r="${size * 0.75}" fill="#fff" stroke="#000" stroke-width="${1 / times}"/><text x="${x}" y="${y}" font-size="${size}" text-anchor="middle" dominant-baseline="central">${at + 1}</text>`;
			})
			.join('');
		return `<svg viewBox="0 0 ${width} ${height}" width="${Math.min(560, width * times)}" role="img" aria-label="${escapeAttribute(picture.alt || picture.name)}"><image href="${escapeAttribute(address)}" width="${width}" height="${height}"/>${numbers}</svg>`;
	}
}

const letters = (texts: readonly Markup[], sign: string, shown: Shown) =>
	`<ul>${texts.map((text, at) => `<li>${sign}<b>${letterAt(at)}</b> <span>${shown.markup(text)}</span></li>`).join('')}</ul>`;

function blockHtml(block: PaperBlock, shown: Shown): string {
	switch (block.sort) {
		case 'options':
			return letters(block.options, block.several ? '☐ ' : '○ ', shown);
		case 'lines':
			return Array.from(
				{ length: block.count },
				(_, at) =>
					`<div class="line">${at === 0 ? escapeText(block.before) : ''}<span></span>${at === block.count - 1 ? escapeText(block.after) : ''}</div>`
			).join('');
		case 'pairs':
			return `<div class="pairs"><ul>${block.left.map((text, at) => `<li><b>${at + 1}</b> <span>${shown.markup(text)}</span> ____</li>`).join('')}</ul>${letters(block.right, '', shown)}</div>`;
		case 'order':
			return `${letters(block.items, '', shown)}<p>In order: ${block.items.map(() => '____').join(' ')}</p>`;
		case 'picture':
			return shown.picture(block);
		case 'words':
			return `<p>${escapeText(block.title)}:</p>${letters(block.words, '', shown)}`;
		case 'say':
			return `<p>${escapeText(block.text)}</p>`;
	}
}

function questionHtml(question: WordQuestion, bytesOf: PictureBytes): string {
	const shown = new Shown(question.attachments, bytesOf);
	const { number, stimulus, stem, blocks } = question;
	const words = worthText(question);
	const worth = words && `<span class="points">${words}</span>`;
	return `<section><b class="number">${number ?? ''}</b><div>${worth}${stimulus ? `<div>${shown.markup(stimulus)}</div>` : ''}<div>${shown.markup(stem)}</div>${blocks.map((block) => blockHtml(block, shown)).join('')}</div></section>`;
}

function keysHtml(forms: WordForms, at: number): string {
	const { name, questions } = forms.forms[at]!;
	const lines = questions
		.filter(({ number }) => number !== null)
		.map(
			({ number, key, points, title }) =>
				`<tr><td>${number}</td><td><b>${escapeText(key)}</b></td><td>${points === null ? '' : pointsText(points)}</td><td>${escapeText(title)}</td><td></td></tr>`
		)
		.join('');
	return `<article><h1>${escapeText(forms.title)}, form ${name}: the key</h1><table><tr><th>No.</th><th>Key</th><th>Points</th><th>Question</th><th>Earned</th></tr>${lines}<tr><td></td><td>in all</td><td>${totalText(questions)}</td><td></td><td></td></tr></table></article>`;
}

function paperHtml(forms: WordForms, at: number, bytesOf: PictureBytes): string {
	const { name, questions } = forms.forms[at]!;
	const title = forms.forms.length > 1 ? `${forms.title} · form ${name}` : forms.title;
	const said = [forms.instructions, ...(forms.minutes ? [`Time: ${forms.minutes} minutes.`] : [])]
		.filter(Boolean)
		.join(' ');
	const total = totalText(questions);
	return `<article><h1>${escapeText(title)}</h1><p class="fields">Name ______________________________ Date ____________ Points ________${total && ` of ${total}`}</p>${said ? `<p>${escapeText(said)}</p>` : ''}${questions.map((question) => questionHtml(question, bytesOf)).join('')}</article>`;
}

const style = (paper: string) =>
	`@page{size:${paper};margin:16mm}body{font:11pt/1.4 sans-serif;max-width:178mm;margin:auto}article{break-after:page}section{display:flex;gap:12px;border-top:1px solid #bbb;padding:8px 0;break-inside:avoid}section>div{flex:1;min-width:0}.points{float:right;margin-left:12px;color:#555;font-size:9pt}section p,section ul{margin:4px 0}section>div>div>p:first-child{margin-top:0}ul{list-style:none;padding:0}li{display:flex;gap:6px;padding:2px 0}.line{display:flex;gap:8px;align-items:flex-end;height:9mm}.line span{flex:1;border-bottom:1px solid #666}.pairs{display:grid;grid-template-columns:1fr 1fr;gap:20px}img,svg{max-width:100%;height:auto}table{border-collapse:collapse;width:100%}td,th{border:1px solid #aaa;padding:3px 6px;text-align:left}tr{break-inside:avoid}`;

/** Forms of a quiz, or their keys, as one HTML page that needs nothing beside it and is printed on sheets of their size. */
export function paperPage(forms: WordForms, bytesOf: PictureBytes): string {
	const body = forms.forms
		.map((_, at) => (forms.what === 'keys' ? keysHtml(forms, at) : paperHtml(forms, at, bytesOf)))
		.join('\n');
	return `<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><title>${escapeText(forms.title)}</title><style>${style(forms.paper)}</style></head>\n<body>\n${body}\n</body></html>\n`;
}
