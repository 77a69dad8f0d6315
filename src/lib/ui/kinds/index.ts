import type { Component } from 'svelte';
import type { Kind, Question } from '$core/kinds';
import type { Editing } from './editing';
import AcceptedNumbers from './edit/Numeric.svelte';
import AcceptedTexts from './edit/ShortAnswer.svelte';
import Areas from './edit/Areas.svelte';
import Blanks from './edit/Blanks.svelte';
import EditCalculated from './edit/Calculated.svelte';
import EditMatching from './edit/Matching.svelte';
import EditOrdering from './edit/Ordering.svelte';
import Options from './edit/Options.svelte';
import Calculated from './show/Calculated.svelte';
import Choice from './show/Choice.svelte';
import Essay from './show/Essay.svelte';
import FileUpload from './show/FileUpload.svelte';
import FillBlanks from './show/FillBlanks.svelte';
import Hotspot from './show/Hotspot.svelte';
import LabelImage from './show/LabelImage.svelte';
import Matching from './show/Matching.svelte';
import Numeric from './show/Numeric.svelte';
import Ordering from './show/Ordering.svelte';
import ShortAnswer from './show/ShortAnswer.svelte';
import Unreadable from './show/Unreadable.svelte';
import type { Showing } from './showing';

/** How a kind of question is shown below its stem, and how what is its own is edited; null where there is nothing of its own. */
interface KindInterface<Of extends Question> {
	show: Component<Showing<Of>> | null;
	edit: Component<Editing<Of>, object, 'question'> | null;
}

/** Every kind of question: a file for showing and one for editing, and one line here. */
const kindInterfaces: { [Of in Kind]: KindInterface<Question & { kind: Of }> } = {
	'true-false': { show: Choice, edit: Options },
	'multiple-choice': { show: Choice, edit: Options },
	'multiple-response': { show: Choice, edit: Options },
	'short-answer': { show: ShortAnswer, edit: AcceptedTexts },
	numeric: { show: Numeric, edit: AcceptedNumbers },
	'fill-blanks': { show: FillBlanks, edit: Blanks },
	matching: { show: Matching, edit: EditMatching },
	ordering: { show: Ordering, edit: EditOrdering },
	essay: { show: Essay, edit: null },
	'file-upload': { show: FileUpload, edit: null },
	hotspot: { show: Hotspot, edit: Areas },
	'label-image': { show: LabelImage, edit: Areas },
	calculated: { show: Calculated, edit: EditCalculated },
	information: { show: null, edit: null },
	unreadable: { show: Unreadable, edit: null }
};

/** How questions of a kind are shown and edited. */
export function interfaceOf(kind: Kind): KindInterface<Question> {
	return kindInterfaces[kind] as unknown as KindInterface<Question>;
}
