import { readFileSync } from 'node:fs';
import { ZipWriter } from '../core/container/write-zip';
import { escapeAttribute, escapeText } from '../core/xml/serialise';

/** One multiple choice of the large demo package; the first option is right unless there is a trouble. */
interface Sum {
	title: string;
	stem: string;
	options: string[];
	/** What is wrong with it: no key, or its text escaped twice. */
	trouble?: 'key' | 'escaped';
}

const three = (degrees: number) => String(((degrees % 360) + 360) % 360).padStart(3, '0');

/** The bearing in the other direction. */
function reciprocal(at: number): Sum {
	const bearing = (at * 7) % 360;
	return {
		title: `Reciprocal of ${three(bearing)}°`,
		stem: `A light bears ${three(bearing)}° from you. What is your bearing from the light?`,
		options: [three(bearing + 180), three(bearing + 90), three(360 - bearing + 1), three(bearing + 270)].map(
			(one) => `${one}°`
		)
	};
}

/** How long a distance takes. */
function passage(at: number): Sum {
	const [speed, minutes] = [3 + (at % 8), 30 + 6 * ((at * 5) % 31)];
	const distance = Math.round(speed * minutes) / 60;
	const knots = `${speed} knots`;
	return {
		title: `Passage ${at + 1}`,
		stem: `How many minutes do ${distance.toFixed(2)} nautical miles take at ${knots} over the ground?`,
		options: [minutes, minutes + 6, minutes + 12, Math.max(1, minutes - 6)].map((one) => `${one} min`)
	};
}

/** The water under the keel. */
function clearance(at: number): Sum {
	const [charted, height, draught] = [1 + (at % 9) / 2, 0.5 + ((at * 3) % 11) / 5, 1.2 + ((at * 7) % 8) / 10];
	const under = charted + height - draught;
	const metres = (value: number) => `${value.toFixed(1)} m`;
	return {
		title: `Under the keel ${at + 1}`,
		stem: `The chart gives a depth of ${metres(charted)}, the height of tide is ${metres(height)}, and the vessel draws ${metres(draught)}. How much water is under the keel?`,
		options: [under, under + draught, charted + draught - height, under + 0.5].map(metres)
	};
}

const makers: [string, (at: number) => Sum, number][] = [
	['Bearings', reciprocal, 340],
	['Passages', passage, 330],
	['Depths', clearance, 330]
];

/** The large demo package: a thousand sums of chartwork, with troubles here and there. */
export function sums(): { category: string; list: Sum[] }[] {
	let number = 0;
	return makers.map(([category, make, count]) => ({
		category,
		list: Array.from({ length: count }, (_, at): Sum => {
			number += 1;
			const one = make(at);
			return number % 60 === 0 ? { ...one, trouble: 'key' } : number % 35 === 0 ? { ...one, trouble: 'escaped' } : one;
		})
	}));
}

function itemXml({ title, stem, options, trouble }: Sum, ident: string): string {
	const text =
		trouble === 'escaped'
			? escapeText(escapeText(stem.replace(/(\w+)\?$/, '"$1"?').replaceAll('"', '&quot;')))
			: escapeText(stem);
	const labels = options
		.map(
			(one, at) =>
				`<response_label ident="${'ABCD'[at]}"><material><mattext>${escapeText(one)}</mattext></material></response_label>`
		)
		.join('');
	const rules =
		trouble === 'key'
			? ''
			: '<resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal" minvalue="0" maxvalue="1"/></outcomes><respcondition><conditionvar><varequal respident="R">A</varequal></conditionvar><setvar varname="SCORE" action="Set">1</setvar></respcondition></resprocessing>';
	return `<item ident="${ident}" title="${escapeAttribute(title)}"><presentation><material><mattext texttype="text/html">${text}</mattext></material><response_lid ident="R" rcardinality="Single"><render_choice shuffle="Yes">${labels}</render_choice></response_lid></presentation>${rules}</item>\n`;
}

/** The package of sums as a QTI 1.2 zip. */
export async function* sumsPackage(): AsyncGenerator<Uint8Array> {
	const encoder = new TextEncoder();
	const zip = new ZipWriter();
	let number = 0;
	const body = sums()
		.map(
			({ category, list }) =>
				`<section ident="${category}" title="${category}">\n${list.map((one) => itemXml(one, `GH-${(number += 1)}`)).join('')}</section>\n`
		)
		.join('');
	yield* zip.add('chart-sums.xml', [
		encoder.encode(`<?xml version="1.0" encoding="UTF-8"?>\n<questestinterop>\n${body}</questestinterop>\n`)
	]);
	yield* zip.add('imsmanifest.xml', [
		encoder.encode(
			'<?xml version="1.0" encoding="UTF-8"?>\n<manifest xmlns="http://www.imsglobal.org/xsd/imscp_v1p1" identifier="SUMS"><metadata><schema>IMS Content</schema><schemaversion>1.1.3</schemaversion><lom xmlns="http://ltsc.ieee.org/xsd/LOM"><general><title><string>Chart sums</string></title></general></lom></metadata><organizations/><resources><resource identifier="R1" type="imsqti_xmlv1p1" href="chart-sums.xml"><file href="chart-sums.xml"/></resource></resources></manifest>\n'
		)
	]);
	yield* zip.end();
}

/** The small demo loads, by their names: a Word list, text as a language model wrote it, and a table that wants a recipe. */
export const smallLoads: Record<string, () => Uint8Array> = {
	'radio-procedure.docx': () => readFileSync(new URL('./files/radio-procedure.docx', import.meta.url)),
	'buoyage-draft.txt': () =>
		new TextEncoder().encode(
			'Sure! Here are some questions on buoyage.\n\n# Lateral marks\n\n**1.** In region A, which colour is a port-hand buoy?\na) Green\n*b) Red\nc) Yellow\n\n**2.** In region A, which topmark does a starboard-hand buoy carry?\nA. A can\nB. A cone, point up\nC. Two spheres\nAnswer: B\n\n# Cardinal marks\n\n**3.** On which side of a north cardinal mark do you pass?\na) North\nb) South\nAnswer: C\n\n**4.** How many topmarks does a cardinal mark carry?\nAnswer: 2\n\n**5.** A cardinal mark is yellow and black. (T/F)\nAnswer: True\n'
		),
	'knot-list.csv': () =>
		new TextEncoder().encode(
			'Eins,Zwei,Drei,Vier,Fünf\nWhich knot makes a loop that does not slip?,Bowline,Reef knot,Sheet bend,Bowline\nWhich knot joins two ropes of different thickness?,Bowline,Reef knot,Sheet bend,Sheet bend\nWhich hitch makes a line fast to a rail in a moment?,Clove hitch,Carrick bend,Figure of eight,Clove hitch\n'
		)
};
