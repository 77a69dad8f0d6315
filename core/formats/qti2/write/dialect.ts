import { ExpressionError, parseExpression, writeExpression } from '../../../kinds/calculated/expression';
import { parseXml } from '../../../xml/parse';
import { ways } from '../../fit/nearest';
import { treeOf } from '../calculated';
import { UnknownRule } from '../values';
import { expressionXml } from './calculated';
import type { Question } from '../../../kinds';
import { features } from '../../fit/features';
import { everyKind, type Limits } from '../../fit/fit';
import type { FormatName } from '../../format';
import { namesOfThree } from './three';

/** What differs between the versions of QTI from 2.1 on. */
export interface Dialect {
	name: FormatName & ('qti21' | 'qti22' | 'qti30');
	title: string;
	namespace: string;
	templates: string;
	/** The end of the address of a template. */
	templateEnding: string;
	itemType: string;
	testType: string;
	stimulusType: string | null;
	manifestNamespace: string;
	schema: string;
	schemaVersion: string;
	/** Gives an item or a test, written with the names of 2.1, its own names. */
	rename: (xml: string) => string;
	limits: Limits;
}

/** Whether each blank of a question names a kind of answer that can stand where its marker is. */
const lost = [
	'metadata',
	'odd-language',
	'unset-points',
	'lost-keys',
	'keyless-all',
	'unequal-all',
	'unreachable-all',
	'loose-patterns',
	'mixed-bank',
	'rich-bank',
	'rich-lists',
	'float-steps',
	'hidden-decimals',
	'slider-unit',
	'rich-labels',
	'odd-whole',
	'odd-truth',
	'lone-open-blank',
	'open-all',
	'inline-open-blanks'
];

function limits(namespace: string, root: string, without: string[]): Limits {
	const address = namespace.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');
	return {
		holds: everyKind,
		features: features.map((one) => one.name).filter((name) => ![...lost, ...without].includes(name)),
		carries: (fragment) => new RegExp(`^<${root}\\b[^>]*xmlns\\s*=\\s*["']${address}["']`).test(fragment),
		settle
	};
}

/** The one form in which a question is written: what has no effect on what is asked and marked is left as it is read back. */
function settle(question: Question): { question: Question; what: string[] } {
	if (question.kind !== 'calculated') return { question, what: [] };
	const names = new Set(question.variables.map((one) => one.name));
	const again = (expression: string) => {
		const { root } = parseXml(expressionXml(parseExpression(expression), names));
		return writeExpression(treeOf(root ?? undefined));
	};
	try {
		const settled: Question = {
			...question,
			expression: again(question.expression),
			constraints: question.constraints.map(again),
			variables: question.variables.map((variable) =>
				variable.values.form === 'expression'
					? { ...variable, values: { form: 'expression' as const, expression: again(variable.values.expression) } }
					: variable
			)
		};
		return { question: settled, what: ['functions that the standard has no name for are written with others'] };
	} catch (error) {
		if (!(error instanceof ExpressionError || error instanceof UnknownRule)) throw error;
		const [first] = ways.find((way) => way.from === 'calculated')!.change(question, 1);
		return {
			question: first!,
			what: [`it cannot be worked out in this format (${error.message}) and becomes numeric`]
		};
	}
}

/** The versions that are written. */
export const dialects: Dialect[] = [
	{
		name: 'qti21',
		title: 'QTI 2.1 package',
		namespace: 'http://www.imsglobal.org/xsd/imsqti_v2p1',
		templates: 'http://www.imsglobal.org/question/qti_v2p1/rptemplates',
		templateEnding: '',
		itemType: 'imsqti_item_xmlv2p1',
		testType: 'imsqti_test_xmlv2p1',
		stimulusType: null,
		manifestNamespace: 'http://www.imsglobal.org/xsd/imscp_v1p1',
		schema: 'QTIv2.1 Package',
		schemaVersion: '1.0.0',
		rename: (xml) => xml,
		limits: limits('http://www.imsglobal.org/xsd/imsqti_v2p1', 'assessmentItem', ['stimulus', 'text-labels'])
	},
	{
		name: 'qti22',
		title: 'QTI 2.2 package',
		namespace: 'http://www.imsglobal.org/xsd/imsqti_v2p2',
		templates: 'http://www.imsglobal.org/question/qti_v2p2/rptemplates',
		templateEnding: '',
		itemType: 'imsqti_item_xmlv2p2',
		testType: 'imsqti_test_xmlv2p2',
		stimulusType: 'imsqti_stimulus_xmlv2p2',
		manifestNamespace: 'http://www.imsglobal.org/xsd/imscp_v1p1',
		schema: 'QTIv2.2 Package',
		schemaVersion: '1.0.0',
		rename: (xml) => xml,
		limits: limits('http://www.imsglobal.org/xsd/imsqti_v2p2', 'assessmentItem', [])
	},
	{
		name: 'qti30',
		title: 'QTI 3.0 package',
		namespace: 'http://www.imsglobal.org/xsd/imsqtiasi_v3p0',
		templates: 'https://purl.imsglobal.org/spec/qti/v3p0/rptemplates',
		templateEnding: '.xml',
		itemType: 'imsqti_item_xmlv3p0',
		testType: 'imsqti_test_xmlv3p0',
		stimulusType: 'imsqti_stimulus_xmlv3p0',
		manifestNamespace: 'http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1',
		schema: 'QTI Package',
		schemaVersion: '3.0.0',
		rename: namesOfThree,
		limits: limits('http://www.imsglobal.org/xsd/imsqtiasi_v3p0', 'qti-assessment-item', ['hints'])
	}
];
