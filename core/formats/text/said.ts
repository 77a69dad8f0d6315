import { beginning, fold } from '../../markup/text';
import type { Block } from './block';
import type { Line } from './lines';
import { sectionWords } from './sections';
import type { TextState } from './state';

/** Takes what a heading, or a line between questions, says of each question below it. */
export function takeSection(state: TextState, line: Line, text: string): void {
	const said = sectionWords(text);
	const begins = said.begins || line.heading !== null;
	if (begins) {
		const total = said.total === null ? null : { points: said.total, line };
		state.each = { points: total ? null : state.overall, total, trueFalse: said.trueFalse };
	}
	if (said.points === null) return;
	if (!begins && !state.begun) state.overall = said.points;
	state.each = { ...state.each, points: said.points };
	state.report(
		'points-each',
		`“${beginning(text, 80)}” was taken to say that each question below it is worth ${said.points}, where it says nothing else.`,
		line.number
	);
}

/** Gives the points of a section to its only question; of several, it is said that nothing tells how they are shared. */
export function shareTotals(state: TextState, blocks: Block[]): void {
	for (const section of new Set(blocks.map((block) => block.each))) {
		const own = blocks.filter((block) => block.each === section && block.draft.points === null);
		if (!section.total || section.points !== null || !own.length || state.told.has(section)) continue;
		const { points, line } = section.total;
		const open = section === state.each && state.blocks.length > blocks.length;
		if (own.length > 1 || open) state.told.add(section);
		if (own.length === 1 && !open) own[0]!.draft.points = String(points);
		else
			state.report(
				'points-of-section',
				`“${beginning(line.text, 80)}” says ${points} points, and not whether each of the ${own.length} questions below it has so many or all of them together. They have none yet; set them.`,
				line.number,
				'doubtful'
			);
	}
}

/** Takes the lines in front of the first question as title and introduction. */
export function introduce(state: TextState): void {
	const lines = state.before.splice(0);
	if (!lines.length) return;
	const [first, ...rest] = lines;
	const chatty = /^(sure|of course|certainly|here (is|are)|absolutely|great|okay|ok)\b/i;
	if (first!.heading === 0 || !chatty.test(first!.text)) {
		state.found.title = first!.text;
		state.found.introduction = rest
			.filter((line) => !chatty.test(line.text))
			.map((line) => line.text)
			.join(' ');
	}
	leaveOut(state, lines, true);
}

/** Says that lines belong to no question, once what they say of a section is taken. */
export function leaveOut(state: TextState, lines: Line[], first = false): void {
	if (!lines.length) return;
	for (const line of lines) if (line.heading === null || line.heading === 0) takeSection(state, line, line.text);
	const text = fold(lines.map((line) => line.text).join(' '));
	const [start, end] = [lines[0]!.number, lines.at(-1)!.number];
	state.report(
		'left-out-text',
		`${start === end ? `Line ${start}` : `Lines ${start} to ${end}`} ${first ? 'in front of the first question: read as the title and introduction, and' : 'of no question:'} left out: “${beginning(text, 160)}”.`,
		start
	);
}
