import { streamText } from '../../container/decode';
import type { Report } from '../../reports/report';
import { escapeAttribute, escapeText } from '../../xml/serialise';
import { repairXml } from '../../xml/repair';
import { parseXml } from '../../xml/parse';
import { streamXml } from '../../xml/stream';
import { childrenOf, textOf, type XmlElement } from '../../xml/tree';
import { damagedQuestion, type DamagedSource } from '../damaged';
import type { DocumentContext, DocumentReader, ReadEvent, ReadQuestion, ToWrite } from '../format';
import { base64Of } from './base64';
import { MediaFiles } from '../package/files';
import { ownQuiz, ownVersion, withOwnNames } from './form';
import { takeCategory, TakenQuestions, takeQuestion } from './take';
import { takeQuiz } from './take-quiz';

/** The namespace of our own XML. */
export const ownNamespace = 'urn:yarn-barrow:questions:1';
const encoder = new TextEncoder();

/** A value as elements: text as it is, everything else with its type; lists hold entries. */
function toXml(name: string, value: unknown, depth: number): string {
	const lead = '\t'.repeat(depth);
	if (value === undefined) return '';
	if (value === null) return `${lead}<${name} type="none"/>\n`;
	if (typeof value === 'string') {
		const kept = /^\s|\s$|[\r\n\t]/.test(value) ? ' xml:space="preserve"' : '';
		return `${lead}<${name}${kept}>${escapeText(value).replace(/\r/g, '&#13;')}</${name}>\n`;
	}
	if (typeof value === 'number') return `${lead}<${name} type="number">${value}</${name}>\n`;
	if (typeof value === 'boolean') return `${lead}<${name} type="truth">${value}</${name}>\n`;
	if (Array.isArray(value))
		return value.length
			? `${lead}<${name} type="list">\n${value.map((one) => toXml('entry', one, depth + 1)).join('')}${lead}</${name}>\n`
			: `${lead}<${name} type="list"/>\n`;
	const inner = Object.entries(value as Record<string, unknown>)
		.map(([key, one]) => toXml(key, one, depth + 1))
		.join('');
	return `${lead}<${name} type="group">\n${inner}${lead}</${name}>\n`;
}

/** What stands right under the root and is read whole. */
const parts = new Set(['question', 'categories', 'quiz']);

function fromXml(node: XmlElement): unknown {
	const { type } = node.attributes;
	if (type === 'none') return null;
	if (type === 'number') return Number(textOf(node));
	if (type === 'truth') return textOf(node).trim() === 'true';
	if (type === 'list') return childrenOf(node).map(fromXml);
	if (type === 'group' || node.name === 'question' || node.name === 'quiz')
		return Object.fromEntries(childrenOf(node).map((child) => [child.name, fromXml(child)]));
	return textOf(node);
}

const inner = (value: object) =>
	Object.entries(value)
		.map(([key, one]) => toXml(key, one, 2))
		.join('');

/** Writes our own XML, with pictures in base 64. The form is in docs/formats.md, its schema in docs/questions.xsd. */
export async function* writeXml(
	{ title, count, question: ask, quizzes, categories = [], media }: ToWrite,
	written: (count: number) => void = () => undefined
): AsyncGenerator<Uint8Array> {
	const names = new MediaFiles();
	const files = new Map<string, { name: string; mediaType: string }>();
	yield encoder.encode(
		`<?xml version="1.0" encoding="UTF-8"?>\n<questions xmlns="${ownNamespace}" version="${ownVersion}" title="${escapeAttribute(title)}">\n`
	);
	for (let at = 0; at < count; at += 1) {
		const { kind, ...rest } = withOwnNames(await ask(at), names);
		for (const { hash, name, mediaType } of rest.attachments) if (hash) files.set(hash, { name, mediaType });
		yield encoder.encode(`\t<question kind="${kind}">\n${inner(rest)}\t</question>\n`);
		written(at + 1);
	}
	if (categories.length) yield encoder.encode(toXml('categories', categories, 1));
	for (const quiz of quizzes) yield encoder.encode(`\t<quiz>\n${inner(ownQuiz(quiz))}\t</quiz>\n`);
	for (const [hash, { name, mediaType }] of files)
		yield encoder.encode(
			`\t<file name="${escapeAttribute(name)}" mediaType="${escapeAttribute(mediaType)}" hash="${hash}">${await base64Of(media(hash))}</file>\n`
		);
	yield encoder.encode('</questions>\n');
}

/** The question in an element of ours, put right where it is not well-formed; null where it is none. */
function mendedOf(fragment: string, context: DocumentContext): ReadQuestion | null {
	const { root } = parseXml(repairXml(fragment));
	if (root?.name !== 'question') return null;
	const value = { ...(fromXml(root) as object), kind: root.attributes.kind };
	for (const event of takeQuestion(value, 0, 1, context, 'xml')) if (event.type === 'question') return event;
	return null;
}

/** Reads as much as can be made out of a question that is not well-formed; it is kept as it came. */
function readDamaged(source: DamagedSource, context: DocumentContext): ReadQuestion {
	const mended = mendedOf(source.fragment, context)?.question ?? null;
	const named = mended && mended.kind !== 'unreadable' ? mended : null;
	const said = (name: string) => new RegExp(`<${name}[^>]*>([^<]*)`).exec(source.fragment)?.[1]?.trim() ?? '';
	const found = damagedQuestion(source, named, { ...context, format: 'xml' }, { identifier: 'identifier' });
	if (!named) Object.assign(found.question, { title: said('title'), identifier: said('identifier') });
	return found;
}

/** Reads a question of ours anew that was kept since it is not well-formed; null where it is still none. */
export function readOwnAgain(fragment: string, context: DocumentContext): ReadQuestion | null {
	return mendedOf(fragment, context);
}

/** Reads our own XML. */
export const readOwnXml: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const told: Report[] = [];
	const taken = new TakenQuestions();
	let number = 0;
	const pieces = streamText(context.container, context.file, (report) => told.push(report));
	const collect = (name: string, depth: number) => depth === 1 && parts.has(name);
	for await (const event of streamXml(pieces, { collect, resumeAt: 'question' })) {
		for (const report of told.splice(0)) yield { type: 'report', report };
		if (event.type === 'fault' && event.fragment !== null && event.rule === 'not-well-formed') {
			number += 1;
			const read = readDamaged({ ...event, fragment: event.fragment }, context);
			taken.add(number, read.question.identifier);
			yield read;
		} else if (event.type === 'fault')
			yield {
				type: 'report',
				report: {
					rule: event.rule,
					severity: event.rule === 'bad-entity' ? 'untidy' : 'broken',
					message: `“${context.file}”, line ${event.line}: ${event.message}. The questions before and after it were read. Mend the file there, or ask for it again.`,
					place: { file: context.file, line: event.line }
				}
			};
		if (event.type !== 'element') continue;
		const node = event.element;
		if (node.name === 'question') {
			number += 1;
			const value = { ...(fromXml(node) as object), kind: node.attributes.kind };
			for (const event of takeQuestion(value, number, node.line, { ...context, format: 'xml' }, 'xml')) {
				if (event.type === 'question') taken.add(number, event.question.identifier);
				yield event;
			}
		} else if (node.name === 'categories') {
			for (const child of childrenOf(node)) {
				const category = takeCategory(fromXml(child));
				if (category) yield category;
			}
		} else if (node.name === 'quiz') {
			yield* takeQuiz(fromXml(node), taken, context);
		}
	}
};
