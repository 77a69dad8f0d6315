import { kindOfWord } from '../drafts/words';
import { type Draft } from '../drafts/draft';
import { note, type Block } from './block';
import type { Line } from './lines';
import { cut } from './marks';

const kindWords =
	/^(?:essay|short[-\s]?answer|numeric(?:al)?|matching|match|t\s*\/\s*f|tf|true\s*[/|]?\s*(?:or)?\s*false|multiple[-\s]choice|mcq?|multiple[-\s]response|multi(?:ple)?[-\s]select|multiple answers?|file upload|ordering|sequenc(?:e|ing)|fill[-\s]in(?:[-\s]the)?[-\s]blanks?|fib|information|open|long answer)(?:\s+question)?$/i;
const points = /^(?:worth\s+)?(\d+(?:[.,]\d+)?)\s*(?:points?|marks?|pts?\.?|p)(?:\s+each)?$/i;
const hardness = /^(?:easy|medium|moderate|hard|difficult)$/i;
const lead = /^\s*[([]([^()[\]]{1,60})[)\]]\s*[:.–-]?\s*/;
const tail = /\s*[([]([^()[\]]{1,60})[)\]]\s*$/;

/** Takes what a bracket says of its question into the draft; false where it says anything else. */
export function takes(content: string, draft: Draft): boolean {
	const parts = content.split(/\s*[,;·|]\s*|\s+[-–—]\s+/).filter(Boolean);
	const known = (part: string) => kindWords.test(part) || points.test(part) || hardness.test(part);
	if (!parts.length || !parts.every(known)) return false;
	for (const part of parts) {
		const worth = points.exec(part);
		if (worth) draft.points ??= worth[1]!;
		else if (hardness.test(part)) draft.difficulty ??= part.toLowerCase();
		else draft.kind ??= /^t/i.test(part) ? 'true-false' : (kindOfWord(part) ?? null);
	}
	return true;
}

/** A stem without the brackets at its ends that say its kind, its points or how hard it is: they go into the draft. */
export function withoutBrackets(line: Line, draft: Draft): Line {
	let kept = line;
	for (let found = lead.exec(kept.text); found && takes(found[1]!, draft); found = lead.exec(kept.text))
		kept = cut(kept, found[0].length);
	for (let found = tail.exec(kept.text); found && takes(found[1]!, draft); found = tail.exec(kept.text))
		kept = cut(kept, 0, found.index);
	return kept;
}

const bareNumber = /\s*\[\s*(\d+(?:[.,]\d+)?)\s*\]\s*$/;

/** Takes the number in brackets behind each stem for its points, where every question of a text has one: "Name a knot. [2]". */
export function pointsInBrackets(blocks: Block[]): void {
	const ends = blocks.map((block) => {
		const last = block.stem.at(-1)?.line;
		return last && block.draft.points === null ? bareNumber.exec(last.text) : null;
	});
	// our own files say the kind of each question, and its points where it has any
	if (blocks.every((block) => block.draft.kind !== null)) return;
	if (blocks.length < 2 || ends.some((end) => end === null || end.index === 0)) return;
	blocks.forEach((block, at) => {
		const stem = block.stem.at(-1)!;
		stem.line = cut(stem.line, 0, ends[at]!.index);
		block.draft.points = ends[at]![1]!;
		note(block, 'guessed-points', `The number in brackets behind it, [${ends[at]![1]}], was read as its points.`);
	});
}
