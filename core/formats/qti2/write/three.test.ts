import { describe, expect, it } from 'vitest';
import { namesOfThree } from './three';

const head = '<?xml version="1.0" encoding="UTF-8"?>\n';
const body = (xml: string) =>
	namesOfThree(head + xml)
		.slice(head.length)
		.trimEnd();

describe('the names of QTI 3.0', () => {
	it.each([
		[
			'<simpleChoice identifier="A" templateIdentifier="x" xml:lang="en">a &lt; <b>b</b></simpleChoice>',
			'<qti-simple-choice identifier="A" template-identifier="x" xml:lang="en">a &lt; <b>b</b></qti-simple-choice>'
		],
		['<value>3</value>', '<qti-value>3</qti-value>'],
		['<p class="aB">a<br/></p>', '<p class="aB">a<br/></p>'],
		[
			'<rubricBlock view="scorer"><p>Two.</p></rubricBlock>',
			'<qti-rubric-block view="scorer"><qti-content-body><p>Two.</p></qti-content-body></qti-rubric-block>'
		],
		[
			'<p><math xmlns="m"><mi mathVariant="b">x</mi><value>1</value></math><printedVariable xmlns="q" identifier="X"/></p>',
			'<p><math xmlns="m"><mi mathVariant="b">x</mi><value>1</value></math><qti-printed-variable identifier="X"/></p>'
		]
	])('stand for those of 2.x: %s', (two, three) => {
		expect(body(two)).toBe(three);
	});
	it('are found also where the text is not of our own hand', () => {
		expect(body("<!-- a --><itemBody class='x'><gap identifier='G'/></itemBody>")).toBe(
			'<qti-item-body class="x"><qti-gap identifier="G"/></qti-item-body>'
		);
	});
});
