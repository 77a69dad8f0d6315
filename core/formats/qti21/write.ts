import { ZipWriter } from '../../container/write-zip';
import type { Question } from '../../model/question';
import { escapeAttribute, escapeText } from '../../xml/serialise';
import type { QuizToWrite, ToWrite } from '../format';
import { tidy } from '../numbers';
import { lossInQti21 } from './loss';
import { safeIdentifier, writeItem21 } from './item';

const encode = (text: string) => [new TextEncoder().encode(text)];
const addressOf = (path: string) => path.split('/').map(encodeURIComponent).join('/');

/** The path that a file gets in the package: by its content, with the end of its name so that people know it again. */
function mediaPath(hash: string, name: string): string {
	const base =
		name
			.split('/')
			.pop()!
			.normalize('NFKD')
			.replace(/[^A-Za-z0-9._-]+/g, '-')
			.replace(/^[-.]+/, '')
			.slice(-48) || 'file';
	return `media/${hash.slice(0, 10)}-${base}`;
}

function classification(question: Question): string {
	const text = (words: string) => `<string>${escapeText(words)}</string>`;
	const keywords = question.tags.length
		? `<general>${question.tags.map((tag) => `<keyword>${text(tag)}</keyword>`).join('')}</general>`
		: '';
	const taxons = question.category.map((name) => `<taxon><entry>${text(name)}</entry></taxon>`).join('');
	const path = `<classification><purpose><source>LOMv1.0</source><value>discipline</value></purpose><taxonPath><source>${text('question bank')}</source>${taxons}</taxonPath></classification>`;
	return `<metadata><lom xmlns="http://ltsc.ieee.org/xsd/LOM">${keywords}${path}</lom></metadata>`;
}

function testXml(quiz: QuizToWrite, items: Map<number, { file: string; identifier: string; points: number }>): string {
	let reference = 0;
	const sections = quiz.parts.map((part, at) => {
		const references = part.questions.flatMap((question) => {
			const item = items.get(question);
			if (!item) return [];
			reference += 1;
			const weight =
				part.pointsEach === null
					? ''
					: `<weight identifier="WEIGHT" value="${tidy(part.pointsEach / (item.points || 1))}"/>`;
			return [
				`<assessmentItemRef identifier="R${reference}" href="../${item.file}"${weight ? `>${weight}</assessmentItemRef>` : '/>'}`
			];
		});
		const select = part.draw === null ? '' : `<selection select="${part.draw}"/>`;
		return `<assessmentSection identifier="S${at + 1}" title="${escapeAttribute(part.title)}" visible="true">${select}<ordering shuffle="${part.shuffle}"/>\n${references.join('\n')}\n</assessmentSection>`;
	});
	return `<?xml version="1.0" encoding="UTF-8"?>\n<assessmentTest xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="${escapeAttribute(safeIdentifier(quiz.identifier, 'QUIZ'))}" title="${escapeAttribute(quiz.title)}">\n<testPart identifier="P1" navigationMode="nonlinear" submissionMode="simultaneous">\n${sections.join('\n')}\n</testPart>\n<outcomeProcessing><setOutcomeValue identifier="SCORE"><sum><testVariables variableIdentifier="SCORE" weightIdentifier="WEIGHT"/></sum></setOutcomeValue></outcomeProcessing>\n</assessmentTest>\n`.replace(
		'<testPart',
		'<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>\n<testPart'
	);
}

/** Writes a QTI 2.1 content package: an item a file, quizzes as tests, files once each, categories as LOM taxons. */
export async function* writeQti21(
	{ identifier, title, count, question: ask, quizzes, media }: ToWrite,
	written: (count: number) => void = () => undefined
): AsyncGenerator<Uint8Array> {
	const zip = new ZipWriter();
	const resources: string[] = [];
	const paths = new Map<string, string>();
	const items = new Map<number, { file: string; identifier: string; points: number }>();
	for (let at = 0; at < count; at += 1) {
		const question = await ask(at);
		if (lossInQti21(question).outcome === 'lost') continue;
		const number = String(at + 1).padStart(5, '0');
		const file = `items/${number.slice(0, 3)}/q${number}.xml`;
		const used = new Set<string>();
		for (const attachment of question.attachments) {
			if (attachment.hash === null) continue;
			const known = paths.get(attachment.hash);
			const path = known ?? mediaPath(attachment.hash, attachment.name);
			used.add(path);
			if (known) continue;
			paths.set(attachment.hash, path);
			yield* zip.add(path, media(attachment.hash));
		}
		const address = (name: string) => {
			const attachment = question.attachments.find((one) => one.name === name);
			const path = attachment?.hash ? paths.get(attachment.hash)! : name;
			return /^https?:/i.test(name) && !attachment?.hash ? name : `../../${addressOf(path)}`;
		};
		yield* zip.add(file, encode(writeItem21(question, question.identifier || `Q${number}`, address)));
		items.set(at, { file, identifier: `RES-Q${number}`, points: question.points ?? 1 });
		resources.push(
			`<resource identifier="RES-Q${number}" type="imsqti_item_xmlv2p1" href="${file}">${classification(question)}<file href="${file}"/>${[...used].map((path) => `<file href="${addressOf(path)}"/>`).join('')}</resource>`
		);
		written(at + 1);
	}
	for (const [at, quiz] of quizzes.entries()) {
		const file = `tests/t${at + 1}.xml`;
		yield* zip.add(file, encode(testXml(quiz, items)));
		const dependencies = [...new Set(quiz.parts.flatMap((part) => part.questions))].flatMap((one) =>
			items.has(one) ? [`<dependency identifierref="${items.get(one)!.identifier}"/>`] : []
		);
		resources.push(
			`<resource identifier="RES-T${at + 1}" type="imsqti_test_xmlv2p1" href="${file}"><file href="${file}"/>${dependencies.join('')}</resource>`
		);
	}
	const head = `<?xml version="1.0" encoding="UTF-8"?>\n<manifest xmlns="http://www.imsglobal.org/xsd/imscp_v1p1" identifier="${escapeAttribute(safeIdentifier(identifier, 'PACKAGE'))}">\n<metadata><schema>QTIv2.1 Package</schema><schemaversion>1.0.0</schemaversion><lom xmlns="http://ltsc.ieee.org/xsd/LOM"><general><title><string>${escapeText(title)}</string></title></general></lom></metadata>\n<organizations/>\n`;
	yield* zip.add(
		'imsmanifest.xml',
		encode(
			`${head}${resources.length ? `<resources>\n${resources.join('\n')}\n</resources>` : '<resources/>'}\n</manifest>\n`
		)
	);
	yield* zip.end();
}
