import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { score } from '../scoring/score';
import { readBare } from '../test-support/packages';

/** What each option earns, how many may be ticked, and the bounds of the sum. */
interface Marking {
	worths: number[];
	several: boolean;
	lower: number | null;
	/** Written as the most that can be earned. */
	points: number;
}

const anyMarking: fc.Arbitrary<Marking> = fc
	.record({
		worths: fc.array(fc.integer({ min: -3, max: 5 }), { minLength: 2, maxLength: 5 }),
		several: fc.boolean(),
		lower: fc.constantFrom(null, 0, -1, -2)
	})
	.map((one) => {
		const earning = one.worths.filter((worth) => worth > 0);
		const most = one.several ? earning.reduce((sum, worth) => sum + worth, 0) : Math.max(0, ...earning);
		return { ...one, points: most };
	})
	// credit of an option is a share of the points, from -1 to 1
	.filter(({ worths, points }) => points > 0 && worths.every((worth) => worth >= -points));

const idents = 'ABCDE';
const sets = ({ worths, several }: Marking): number[][] =>
	several
		? Array.from({ length: 2 ** worths.length - 1 }, (_, mask) =>
				worths.flatMap((_worth, at) => ((mask + 1) & (1 << at) ? [at] : []))
			)
		: worths.map((_, at) => [at]);
const earned = ({ worths, lower, points }: Marking, set: number[]) =>
	Math.max(
		lower ?? -Infinity,
		-points,
		Math.min(
			points,
			set.reduce((sum, at) => sum + worths[at]!, 0)
		)
	);

const qti12 = ({ worths, several, lower, points }: Marking) =>
	`<questestinterop><item ident="i" title="Q"><presentation><material><mattext>Which?</mattext></material><response_lid ident="R" rcardinality="${several ? 'Multiple' : 'Single'}"><render_choice>${worths.map((_, at) => `<response_label ident="${idents[at]}"><material><mattext>${idents[at]}</mattext></material></response_label>`).join('')}</render_choice></response_lid></presentation><resprocessing><outcomes><decvar varname="SCORE" maxvalue="${points}"${lower === null ? '' : ` minvalue="${lower}"`}/></outcomes>${worths.map((worth, at) => `<respcondition continue="Yes"><conditionvar><varequal respident="R">${idents[at]}</varequal></conditionvar><setvar action="Add">${worth}</setvar></respcondition>`).join('')}</resprocessing></item></questestinterop>`;

const float = (value: number) => `<baseValue baseType="float">${value}</baseValue>`;
const qti21 = (form: 'template' | 'rules') => (marking: Marking) => {
	const { worths, several, lower, points } = marking;
	const entries = worths.map((worth, at) => `<mapEntry mapKey="${idents[at]}" mappedValue="${worth}"/>`).join('');
	const set = (value: string) => `<setOutcomeValue identifier="SCORE">${value}</setOutcomeValue>`;
	const variable = '<variable identifier="SCORE"/>';
	const holds = (at: number) =>
		several
			? `<member><baseValue baseType="identifier">${idents[at]}</baseValue><variable identifier="RESPONSE"/></member>`
			: `<match><variable identifier="RESPONSE"/><baseValue baseType="identifier">${idents[at]}</baseValue></match>`;
	const rules =
		form === 'template'
			? '<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/map_response"/>'
			: `<responseProcessing>${worths.map((worth, at) => `<responseCondition><responseIf>${holds(at)}${set(`<sum>${variable}${float(worth)}</sum>`)}</responseIf></responseCondition>`).join('')}${lower === null ? '' : set(`<max>${variable}${float(lower)}</max>`)}</responseProcessing>`;
	const mapping =
		form === 'template'
			? `<mapping${lower === null ? '' : ` lowerBound="${lower}"`} defaultValue="0">${entries}</mapping>`
			: '';
	return `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="Q" title="Q" adaptive="false" timeDependent="false"><responseDeclaration identifier="RESPONSE" cardinality="${several ? 'multiple' : 'single'}" baseType="identifier">${mapping}</responseDeclaration><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration><outcomeDeclaration identifier="MAXSCORE" cardinality="single" baseType="float"><defaultValue><value>${points}</value></defaultValue></outcomeDeclaration><itemBody><choiceInteraction responseIdentifier="RESPONSE" maxChoices="${several ? 0 : 1}"><prompt>Which?</prompt>${worths.map((_, at) => `<simpleChoice identifier="${idents[at]}">${idents[at]}</simpleChoice>`).join('')}</choiceInteraction></itemBody>${rules}</assessmentItem>`;
};

describe.each([
	['QTI 1.2 by conditions', qti12],
	['QTI 2.1 by a mapping', qti21('template')],
	['QTI 2.1 by rules', qti21('rules')]
] as const)('partial credit of %s', (_, write) => {
	it('earns for every set of ticks what the file says', () =>
		fc.assert(
			fc.asyncProperty(anyMarking, async (marking) => {
				const document = write(marking);
				const [question] = (await readBare('q.xml', document)).questions;
				expect({ document, points: question!.points }).toEqual({ document, points: marking.points });
				for (const set of sets(marking)) {
					const { credit } = score(question!, { options: set.map((at) => idents[at]!) });
					expect({ document, set, earns: Math.round(credit! * marking.points * 1000) / 1000 + 0 }).toEqual({
						document,
						set,
						earns: earned(marking, set) + 0
					});
				}
			}),
			{ numRuns: 150 }
		));
});
