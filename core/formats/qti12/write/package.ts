import { Names } from '../../../container/compact';
import { ZipWriter } from '../../../container/write-zip';
import type { Question } from '../../../kinds';
import { escapeAttribute, escapeText } from '../../../xml/serialise';
import { fit, type Limits } from '../../fit/fit';
import type { ToWrite } from '../../format';
import type { QuizToWrite } from '../../../model/quiz';
import { addressOf, MediaFiles } from '../../package/files';
import { tidy } from '../../../numbers/numbers';
import { fitQuizzes } from '../../fit/quizzes';
import { cartridgeLimits, cartridgeQuizzes, limits12, limits12Bare, quizzes12 } from './limits';
import { openedExam, quizXml } from './quiz';
import { writeItem12, type Profile } from './item';

const encoder = new TextEncoder();
const encode = (text: string) => [encoder.encode(text)];
const head = '<?xml version="1.0" encoding="UTF-8"?>\n';
const namespace = 'http://www.imsglobal.org/xsd/ims_qtiasiv1p2';

const profile12: Profile = {
	fields: (question) => [
		...(question.points === null ? [] : ([['qmd_maximumscore', String(tidy(question.points))]] as [string, string][])),
		...(question.tags.length ? ([['qmd_keywords', question.tags.join('; ')]] as [string, string][]) : []),
		...(question.difficulty === undefined
			? []
			: ([['qmd_levelofdifficulty', question.difficulty]] as [string, string][])),
		...question.metadata.map(({ name, value }): [string, string] => [name, value])
	],
	scale: (question) => question.points || 1,
	cartridge: false
};

const ccProfiles: Partial<Record<Question['kind'], string>> = {
	'true-false': 'cc.true_false.v0p1',
	'multiple-choice': 'cc.multiple_choice.v0p1',
	'multiple-response': 'cc.multiple_response.v0p1',
	'short-answer': 'cc.fib.v0p1',
	essay: 'cc.essay.v0p1'
};
const profileCc: Profile = {
	fields: (question) => [
		[
			'cc_profile',
			question.kind === 'short-answer' && question.accepted.some((one) => one.match === 'contains')
				? 'cc.pattern_match.v0p1'
				: ccProfiles[question.kind]!
		],
		...(question.points === null ? [] : ([['cc_weighting', String(tidy(question.points))]] as [string, string][])),
		...(question.category.length
			? ([['cc_question_category', question.category.join(' / ')]] as [string, string][])
			: []),
		...(question.kind === 'essay' ? ([['qmd_computerscored', 'No']] as [string, string][]) : [])
	],
	scale: () => 100,
	cartridge: true
};

/** Gives each question an identifier that no other has. */
function identifiers(): (question: Question, number: number) => string {
	const seen = new Names();
	return (question, number) => {
		let name = question.identifier.trim() || `Q${number}`;
		while (seen.find(name) >= 0) name = `${name}-${number}`;
		seen.add(name);
		return name;
	};
}

/** Whether anything is left to be written of some of the questions. */
async function anyHeld(
	{ question: ask, options }: ToWrite,
	members: Iterable<number>,
	limits: Limits
): Promise<boolean> {
	for (const at of members) if (fit(await ask(at), limits, options).fitted.length) return true;
	return false;
}

/** The tags that lead from one category to another: sections that end, and sections that begin. */
function between(from: string[], to: string[], next: () => number): string {
	let same = 0;
	while (same < from.length && same < to.length && from[same] === to[same]) same += 1;
	return (
		'</section>\n'.repeat(from.length - same) +
		to
			.slice(same)
			.map((title) => `<section ident="S${next()}" title="${escapeAttribute(title)}">\n`)
			.join('')
	);
}

/** Writes QTI 1.2 as one bare file; pictures have no place in it. */
export async function* writeQti12Bare(
	{ count, question: ask, options }: ToWrite,
	written: (count: number) => void = () => undefined
): AsyncGenerator<Uint8Array> {
	const name = identifiers();
	let category: string[] = [];
	let section = 0;
	let number = 0;
	yield encoder.encode(`${head}<questestinterop xmlns="${namespace}">\n`);
	for (let at = 0; at < count; at += 1) {
		for (const question of fit(await ask(at), limits12Bare, options).fitted) {
			number += 1;
			const lead = between(category, question.category, () => (section += 1));
			category = question.category;
			yield encoder.encode(
				`${lead}${writeItem12(question, name(question, number), (one) => addressOf(one), profile12)}\n`
			);
		}
		written(at + 1);
	}
	yield encoder.encode(`${between(category, [], () => 0)}</questestinterop>\n`);
}

/** Writes a QTI 1.2 package: the questions in one file with sections as categories, a file for each quiz. */
export async function* writeQti12(
	what: ToWrite,
	written: (count: number) => void = () => undefined
): AsyncGenerator<Uint8Array> {
	const { identifier, title, count, question: ask, quizzes, media, options } = what;
	const zip = new ZipWriter(what.codec);
	const files = new MediaFiles();
	const name = identifiers();
	const items = new Map<number, string[]>();
	const pictures: { hash: string; path: string }[] = [];
	let category: string[] = [];
	let section = 0;
	let number = 0;
	const document = async function* () {
		yield encoder.encode(`${head}<questestinterop xmlns="${namespace}">\n`);
		for (let at = 0; at < count; at += 1) {
			for (const question of fit(await ask(at), limits12, options).fitted) {
				number += 1;
				pictures.push(...files.fresh(question));
				const ident = name(question, number);
				// only quizzes speak of questions again
				if (quizzes.length) items.set(at, [...(items.get(at) ?? []), ident]);
				const lead = between(category, question.category, () => (section += 1));
				category = question.category;
				yield encoder.encode(`${lead}${writeItem12(question, ident, files.address(question, ''), profile12)}\n`);
			}
			written(at + 1);
		}
		yield encoder.encode(`${between(category, [], () => 0)}</questestinterop>\n`);
	};
	const resources: string[] = [];
	if (await anyHeld(what, Array(count).keys(), limits12)) {
		yield* zip.add('questions.xml', document());
		for (const { hash, path } of pictures) yield* zip.add(path, media(hash));
		resources.push(
			`<resource identifier="RES-Q" type="imsqti_xmlv1p1" href="questions.xml"><file href="questions.xml"/>${pictures.map(({ path }) => `<file href="${addressOf(path)}"/>`).join('')}</resource>`
		);
	}
	const fitted = fitQuizzes(quizzes, quizzes12, (at) => items.get(at)?.length ?? 0);
	for (const [at, { quiz }] of fitted.entries()) {
		if (!quiz) continue;
		const file = `quiz-${at + 1}.xml`;
		yield* zip.add(file, encode(quizXml(quiz, items, at, head, namespace)));
		resources.push(
			`<resource identifier="RES-T${at + 1}" type="imsqti_xmlv1p1" href="${file}"><file href="${file}"/>${number ? '<dependency identifierref="RES-Q"/>' : ''}</resource>`
		);
	}
	yield* zip.add(
		'imsmanifest.xml',
		encode(
			`${head}<manifest xmlns="http://www.imsglobal.org/xsd/imscp_v1p1" identifier="${escapeAttribute(/^[A-Za-z_][\w.-]*$/.test(identifier) ? identifier : 'PACKAGE')}">\n<metadata><schema>IMS Content</schema><schemaversion>1.1.3</schemaversion><lom xmlns="http://ltsc.ieee.org/xsd/LOM"><general><title><string>${escapeText(title)}</string></title></general></lom></metadata>\n<organizations/>\n${resources.length ? `<resources>\n${resources.join('\n')}\n</resources>` : '<resources/>'}\n</manifest>\n`
		)
	);
	yield* zip.end();
}

/**
 * Where each question stands in a cartridge: in the first quiz that uses it, by the place of that from 0 and in its order,
 * and in the bank, -1, where none does.
 */
function cartridgeGroups(count: number, quizzes: QuizToWrite[]): [number, number[]][] {
	const taken = new Set<number>();
	const groups = quizzes.map((quiz, at): [number, number[]] => {
		const members = [...new Set(quiz.parts.flatMap((part) => part.questions))].filter((one) => !taken.has(one));
		for (const one of members) taken.add(one);
		return [at, members];
	});
	const bank = Array.from({ length: count }, (_, at) => at).filter((at) => !taken.has(at));
	return [[-1, bank] as [number, number[]], ...groups].filter(([, members]) => members.length > 0);
}

/** The order in which questions stand in a cartridge: those of no quiz in front, and then those of each. */
export const cartridgeOrder = (count: number, quizzes: QuizToWrite[]): number[] =>
	cartridgeGroups(count, quizzes).flatMap(([, members]) => members);

/** Writes a Common Cartridge of a version: a question bank, or an assessment for each quiz. */
export async function* writeCartridge(
	version: '1.2' | '1.3',
	what: ToWrite,
	written: (count: number) => void = () => undefined
): AsyncGenerator<Uint8Array> {
	const { identifier, title, count, question: ask, quizzes, media, options } = what;
	const zip = new ZipWriter(what.codec);
	const files = new MediaFiles();
	const name = identifiers();
	const code = version.replace('.', 'p');
	let number = 0;
	let done = 0;
	const resources: string[] = [];
	const fitted = fitQuizzes(quizzes, cartridgeQuizzes, () => 1);
	for (const [group, members] of cartridgeGroups(count, quizzes)) {
		if (!(await anyHeld(what, members, cartridgeLimits))) continue;
		const quiz = quizzes[group];
		const folder = quiz ? `assessment-${group + 1}` : 'bank';
		const file = `${folder}/${folder}.xml`;
		const [before, after] = quiz
			? [
					`${openedExam(quiz, group, fitted[group]?.quiz?.settings)}<section ident="root_section">`,
					'</section></assessment>'
				]
			: ['<objectbank ident="BANK">', '</objectbank>'];
		const fresh: { hash: string; path: string }[] = [];
		const pictures = new Set<string>();
		const document = async function* () {
			yield encoder.encode(`${head}<questestinterop xmlns="${namespace}">${before}\n`);
			for (const at of members) {
				for (const question of fit(await ask(at), cartridgeLimits, options).fitted) {
					number += 1;
					fresh.push(...files.fresh(question));
					for (const path of files.used(question)) pictures.add(path);
					yield encoder.encode(
						`${writeItem12(question, name(question, number), files.address(question, '../'), profileCc)}\n`
					);
				}
				written((done += 1));
			}
			yield encoder.encode(`${after}</questestinterop>\n`);
		};
		yield* zip.add(file, document());
		for (const { hash, path } of fresh) yield* zip.add(path, media(hash));
		const dependencies = [...pictures].map((path) => `<dependency identifierref="F-${path.slice(6, 16)}"/>`).join('');
		resources.push(
			`<resource identifier="RES-${folder}" type="imsqti_xmlv1p2/imscc_xmlv1p${version.slice(2)}/${quiz ? 'assessment' : 'question-bank'}"><file href="${file}"/>${dependencies}</resource>`
		);
	}
	for (const path of files.paths.values())
		resources.push(
			`<resource identifier="F-${path.slice(6, 16)}" type="webcontent" href="${addressOf(path)}"><file href="${addressOf(path)}"/></resource>`
		);
	yield* zip.add(
		'imsmanifest.xml',
		encode(
			`${head}<manifest xmlns="http://www.imsglobal.org/xsd/imsccv${code}/imscp_v1p1" identifier="${escapeAttribute(/^[A-Za-z_][\w.-]*$/.test(identifier) ? identifier : 'CARTRIDGE')}">\n<metadata><schema>IMS Common Cartridge</schema><schemaversion>${version}.0</schemaversion><lom xmlns="http://ltsc.ieee.org/xsd/imsccv${code}/LOM/manifest"><general><title><string language="en">${escapeText(title)}</string></title></general></lom></metadata>\n<organizations/>\n${resources.length ? `<resources>\n${resources.join('\n')}\n</resources>` : '<resources/>'}\n</manifest>\n`
		)
	);
	yield* zip.end();
}
