import { Spool } from '../../../container/spool';
import { ZipWriter } from '../../../container/write-zip';
import type { Question } from '../../../kinds';
import { escapeAttribute, escapeText } from '../../../xml/serialise';
import type { ToWrite } from '../../format';
import { fit } from '../../fit/fit';
import { fitQuizzes } from '../../fit/quizzes';
import { addressOf, MediaFiles } from '../../package/files';
import type { Dialect } from './dialect';
import { writeItem, writeStimulus } from './item';
import { safeIdentifier } from './parts';
import { quizzes2, testXml, type WrittenItem } from './test';

const encoder = new TextEncoder();
const encode = (text: string) => [encoder.encode(text)];

function classification(question: Question): string {
	const text = (words: string) => `<string>${escapeText(words)}</string>`;
	const difficulty =
		question.difficulty === undefined
			? ''
			: `<educational><difficulty><source>${text('question bank')}</source><value>${escapeText(question.difficulty)}</value></difficulty></educational>`;
	const keywords = question.tags.length
		? `<general>${question.tags.map((tag) => `<keyword>${text(tag)}</keyword>`).join('')}</general>`
		: '';
	const taxons = question.category.map((name) => `<taxon><entry>${text(name)}</entry></taxon>`).join('');
	const path = `<classification><purpose><source>LOMv1.0</source><value>discipline</value></purpose><taxonPath><source>${text('question bank')}</source>${taxons}</taxonPath></classification>`;
	return `<metadata><lom xmlns="http://ltsc.ieee.org/xsd/LOM">${keywords}${difficulty}${path}</lom></metadata>`;
}

/** Writes a content package of a version: an item a file, quizzes as tests, files once each, categories as LOM taxons. */
export async function* writeQti2(
	dialect: Dialect,
	{ identifier, title, count, question: ask, quizzes, media, codec, options }: ToWrite,
	written: (count: number) => void = () => undefined
): AsyncGenerator<Uint8Array> {
	const zip = new ZipWriter(codec);
	const resources = new Spool(codec);
	const files = new MediaFiles();
	const items = new Map<number, WrittenItem[]>();
	const stimuli = new Map<string, { identifier: string; file: string }>();
	let number = 0;
	for (let at = 0; at < count; at += 1) {
		const { fitted } = fit(await ask(at), dialect.limits, options);
		for (const question of fitted) {
			number += 1;
			const digits = String(number).padStart(5, '0');
			const file = `items/${digits.slice(0, 3)}/q${digits}.xml`;
			for (const { hash, path } of files.fresh(question)) yield* zip.add(path, media(hash));
			const used = files.used(question);
			const from = (up: string) => files.address(question, up);
			let shared: { identifier: string; href: string } | null = null;
			let dependency = '';
			if (question.stimulus) {
				const { content, title: heading, identifier: given } = question.stimulus;
				const xml = writeStimulus(content, heading, 'IDENTIFIER', from('../'), dialect);
				const key = `${given}\n${xml}`;
				let stimulus = stimuli.get(key);
				if (!stimulus) {
					const taken = new Set([...stimuli.values()].map((other) => other.identifier));
					let name = safeIdentifier(given, `S${stimuli.size + 1}`);
					while (taken.has(name)) name = `${name}_${stimuli.size + 1}`;
					stimulus = { identifier: name, file: `stimuli/s${stimuli.size + 1}.xml` };
					stimuli.set(key, stimulus);
					yield* zip.add(stimulus.file, encode(writeStimulus(content, heading, name, from('../'), dialect)));
					resources.push(
						`<resource identifier="RES-S${stimuli.size}" type="${dialect.stimulusType}" href="${stimulus.file}"><file href="${stimulus.file}"/></resource>\n`
					);
				}
				shared = { identifier: stimulus.identifier, href: `../../${stimulus.file}` };
				dependency = `<dependency identifierref="RES-${stimulus.file.slice(8, -4).toUpperCase()}"/>`;
			}
			yield* zip.add(
				file,
				encode(writeItem(question, question.identifier || `Q${digits}`, from('../../'), dialect, shared))
			);
			// only quizzes speak of questions again
			if (quizzes.length)
				items.set(at, [...(items.get(at) ?? []), { file, identifier: `RES-Q${digits}`, points: question.points ?? 1 }]);
			resources.push(
				`<resource identifier="RES-Q${digits}" type="${dialect.itemType}" href="${file}">${classification(question)}<file href="${file}"/>${used.map((path) => `<file href="${addressOf(path)}"/>`).join('')}${dependency}</resource>\n`
			);
		}
		written(at + 1);
	}
	for (const [at, { quiz }] of fitQuizzes(quizzes, quizzes2, (one) => items.get(one)?.length ?? 0).entries()) {
		if (!quiz) continue;
		const file = `tests/t${at + 1}.xml`;
		yield* zip.add(file, encode(dialect.rename(testXml(quiz, items, dialect.namespace))));
		const dependencies = [...new Set(quiz.parts.flatMap((part) => part.questions))].flatMap((one) =>
			(items.get(one) ?? []).map((item) => `<dependency identifierref="${item.identifier}"/>`)
		);
		resources.push(
			`<resource identifier="RES-T${at + 1}" type="${dialect.testType}" href="${file}"><file href="${file}"/>${dependencies.join('')}</resource>\n`
		);
	}
	const head = `<?xml version="1.0" encoding="UTF-8"?>\n<manifest xmlns="${dialect.manifestNamespace}" identifier="${escapeAttribute(safeIdentifier(identifier, 'PACKAGE'))}">\n<metadata><schema>${dialect.schema}</schema><schemaversion>${dialect.schemaVersion}</schemaversion><lom xmlns="http://ltsc.ieee.org/xsd/LOM"><general><title><string>${escapeText(title)}</string></title></general></lom></metadata>\n<organizations/>\n`;
	const manifest = function* () {
		yield encoder.encode(`${head}${resources.empty ? '<resources/>\n' : '<resources>\n'}`);
		if (!resources.empty) yield* resources.take();
		yield encoder.encode(`${resources.empty ? '' : '</resources>\n'}</manifest>\n`);
	};
	yield* zip.add('imsmanifest.xml', manifest());
	yield* zip.end();
}
