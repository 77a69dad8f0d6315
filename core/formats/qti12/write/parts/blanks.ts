import type { Blank, FillBlanksQuestion } from '../../../../kinds';
import { blanksIn, isBlankMarker } from '../../../../markup/markers';
import type { Markup } from '../../../../model/question';
import { parseXml } from '../../../../xml/parse';
import { escapeAttribute, serialise } from '../../../../xml/serialise';
import type { XmlNode } from '../../../../xml/tree';
import { allOf, anyOf, condition, equals, not, numberTest, setvar, textTest } from '../conditions';
import { material } from '../html';
import { byCredit, fib, label, names, yesNo, type Address, type Parts } from './parts';

/** Conditions that each hold only where none before does, so that the first that fits is the only one. */
function exclusive(tests: { test: string; credit: number }[]): { test: string; credit: number }[] {
	return tests.map(({ test, credit }, at) => ({
		test: at ? allOf([test, not(anyOf(tests.slice(0, at).map((one) => one.test)))]) : test,
		credit
	}));
}

function responseOf(blank: Blank, ident: string, address: Address): string {
	const at = escapeAttribute(ident);
	if (blank.form === 'number')
		return `<response_num ident="${at}" rcardinality="Single" numtype="${blank.whole ? 'Integer' : 'Decimal'}">${fib(blank.whole ? 'Integer' : 'Decimal')}</response_num>`;
	if (blank.form === 'list') {
		const idents = names(blank.entries, 'E');
		const labels = blank.entries.map((one, place) => label(idents[place]!, material(one.text, address))).join('');
		return `<response_lid ident="${at}" rcardinality="${blank.several ? 'Multiple' : 'Single'}"><render_choice${yesNo(blank.shuffle)}>${labels}</render_choice></response_lid>`;
	}
	return `<response_str ident="${at}" rcardinality="Single">${fib('String', blank.form === 'open' ? 8 : 1)}</response_str>`;
}

/** What the answers to a blank earn, each by a test; the tests exclude each other. */
function testsOf(blank: Blank, ident: string): { test: string; credit: number }[] {
	if (blank.form === 'text')
		return exclusive(byCredit(blank.accepted).map((one) => ({ test: textTest(ident, one), credit: one.credit })));
	if (blank.form === 'number')
		return exclusive(byCredit(blank.accepted).map((one) => ({ test: numberTest(ident, one), credit: one.credit })));
	if (blank.form !== 'list') return [];
	const idents = names(blank.entries, 'E');
	return blank.entries.flatMap((one, at) =>
		one.credit === 0 ? [] : [{ test: equals(ident, idents[at]!), credit: one.credit }]
	);
}

/** How a question with blanks is asked and marked. */
export function blankParts(question: FillBlanksQuestion, scale: number, address: Address): Parts {
	const idents = names(question.blanks, 'B');
	const place = new Map(question.blanks.map((blank, at) => [blank.identifier, at]));
	const response = (identifier: string) => {
		const at = place.get(identifier);
		return at === undefined ? '' : responseOf(question.blanks[at]!, idents[at]!, address);
	};
	const rights = question.blanks.map((blank, at) => {
		const tests = testsOf(blank, idents[at]!).filter((one) => one.credit >= 1 - 1e-6);
		if (blank.form === 'list' && blank.several)
			return allOf(
				testsOf(blank, idents[at]!)
					.filter((one) => one.credit > 0)
					.map((one) => one.test)
			);
		return anyOf(tests.map((one) => one.test));
	});
	const whole = rights.every((test, at) => test || question.blanks[at]!.form === 'open') ? allOf(rights) : '';
	return {
		presentation: flows(question.stem, response, address),
		points:
			question.combination === 'all'
				? whole
					? [condition(whole, setvar(scale, 'Set'), false)]
					: []
				: question.blanks.flatMap((blank, at) =>
						testsOf(blank, idents[at]!).map(({ test, credit }) =>
							condition(test, setvar(credit * blank.share * scale, 'Add'), true)
						)
					),
		right: whole
	};
}

/** A stem with blanks as flows: what stands in one line in one flow, text and responses side by side. */
function flows(stem: Markup, response: (identifier: string) => string, address: Address): string {
	const nodes = parseXml(`<x>${stem}</x>`).root?.children ?? [];
	const isBlock = (node: XmlNode) =>
		typeof node !== 'string' && /^(p|div|ul|ol|table|h\d|blockquote|pre|dl|hr|address)$/.test(node.name);
	const line = (children: XmlNode[]): string => {
		let out = '';
		let run: XmlNode[] = [];
		const end = () => {
			const text = serialise(run);
			if (text.trim()) out += material(text, address);
			run = [];
		};
		for (const child of children)
			if (typeof child !== 'string' && isBlankMarker(child)) {
				end();
				out += response(child.attributes.id!);
			} else run.push(child);
		end();
		return out;
	};
	const blocks: string[] = [];
	let run: XmlNode[] = [];
	const end = () => {
		if (serialise(run).trim()) blocks.push(line(run));
		run = [];
	};
	for (const node of nodes) {
		if (!isBlock(node)) {
			run.push(node);
			continue;
		}
		end();
		if (typeof node === 'string') continue;
		if (isBlankMarker(node)) blocks.push(response(node.attributes.id!));
		else if (node.name === 'p' && blanksIn(serialise([node])).length) blocks.push(line(node.children));
		else blocks.push(material(serialise([node]), address));
	}
	end();
	return `<flow class="blanks">${blocks.map((block) => `<flow>${block}</flow>`).join('')}</flow>`;
}
