/** What a rule by which a reader speaks says of itself. */
interface RuleCard {
	/** A few words for lists. */
	title: string;
	/** Why it matters, in a sentence or two. */
	why: string;
}

/**
 * The rules that readers speak by. A reader that says something new adds a line here: what is not in this register does not
 * compile. The ids are the same for ever, since findings in databases carry them. How bad a finding is, its reader says.
 */
export const readerRules = {
	'not-questions': {
		title: 'Part that is no question',
		why: 'What stands there could not be read as a question, so nothing of it was taken. Look at it in its source, and write it in by hand where it was meant as one.'
	},
	reshaped: {
		title: 'Read in another shape',
		why: 'The source asks in a way that has no exact counterpart here. What is asked and what is right was kept, the way of answering is another.'
	},
	'marking-simplified': {
		title: 'Marking simplified',
		why: 'The rule by which the source marks is more than can be kept. Hold the credit against the source.'
	},
	'too-large': {
		title: 'Too large',
		why: 'It is beyond what is read of one thing, so that it cannot stop everything else. The file itself is kept as it came.'
	},
	'repeated-identifier': {
		title: 'Identifier twice',
		why: 'Two things of a question have one name in the source, so a key may mean either of them.'
	},
	'repeated-question-identifier': {
		title: 'Identifier twice',
		why: 'Two questions have one name, so that what refers to it may mean either of them.'
	},
	'quiz-rules': {
		title: 'Quiz with rules of its own',
		why: 'The quiz asks for something that quizzes here cannot do. Its questions and parts are there; look at how they are drawn.'
	},
	'no-right-order': {
		title: 'No right order',
		why: 'The source does not say which order is right.'
	},
	'guessed-key': {
		title: 'Key that was guessed',
		why: 'The key is written in a way that may mean two things. Look at it before anybody is marked by it.'
	},
	'guessed-encoding': {
		title: 'Encoding that was guessed',
		why: 'The file does not say in which encoding it is written. Where letters look wrong, this is why.'
	},
	'wrong-encoding': {
		title: 'Encoding',
		why: 'The file says one encoding and is written in another.'
	},
	'beside-question': {
		title: 'Text beside the question',
		why: 'Words or pictures that stand in no part of the question were kept with its stem.'
	},
	'worked-out': {
		title: 'Worked out',
		why: 'The numbers of the source are worked out there by a program; here they are those that it gives.'
	},
	'words-of-section': {
		title: 'Words of a section',
		why: 'A section has a text of its own, which belongs to no question.'
	},
	'unused-field': {
		title: 'Field that is not read',
		why: 'The recipe does not say what it is.'
	},
	'unused-column': {
		title: 'Column that is not read',
		why: 'No heading and no recipe says what it is.'
	},
	'unknown-bank': {
		title: 'Bank that is not there',
		why: 'A quiz draws from a bank that did not come with it.'
	},
	'unclosed-quote': {
		title: 'Quote that is never closed',
		why: 'From there on rows may have been read as one.'
	},
	'too-many-questions': {
		title: 'Too many questions',
		why: 'Of more than the limit of this installation the rest was left. Load the file in parts.'
	},
	'too-many-columns': {
		title: 'Too many columns',
		why: 'Of more columns than are read the rest was left.'
	},
	'sheet-without-questions': {
		title: 'Sheet without questions',
		why: 'A sheet of the workbook holds no table of questions.'
	},
	'shared-stimulus': {
		title: 'Shared text',
		why: 'Several questions refer to one text, which each of them keeps.'
	},
	'repeated-entry': {
		title: 'File twice in the package',
		why: 'Two files of the package have one path; the last one counts.'
	},
	'path-outside': {
		title: 'Path that leads outside',
		why: 'A file of the package asks to be put outside of it. It is left where it is.'
	},
	'odd-signs': {
		title: 'Signs that nobody sees',
		why: 'Signs without a look of their own were found, such as those that turn the direction of writing.'
	},
	'not-well-formed': {
		title: 'Not well-formed',
		why: 'The file breaks off or breaks the rules of its format there.'
	},
	'not-text': {
		title: 'No text',
		why: 'What should be text is none.'
	},
	'not-ours': {
		title: 'File that is not read',
		why: 'The package holds files that are no questions.'
	},
	'nested-too-deep': {
		title: 'Package within packages',
		why: 'Packages stand in one another deeper than is read.'
	},
	'needs-person': {
		title: 'Needs a person',
		why: 'The program cannot mark it: somebody has to.'
	},
	'missing-material': {
		title: 'Material that is missing',
		why: 'The source refers to material that is not there.'
	},
	'missing-file': {
		title: 'File that is missing',
		why: 'The manifest names a file that is not in the package.'
	},
	'missing-column': {
		title: 'Column that is missing',
		why: 'The recipe names a column that the table does not have.'
	},
	'lost-key': {
		title: 'Key that points at nothing',
		why: 'The key names something that is not there.'
	},
	'left-out-text': {
		title: 'Text that was left out',
		why: 'Words stand outside of every question.'
	},
	'key-without-question': {
		title: 'Key without a question',
		why: 'A list of answers has one for a question that is not there.'
	},
	'hidden-sheet': {
		title: 'Hidden sheet',
		why: 'A sheet that nobody sees in the workbook was read as well.'
	},
	'foreign-file': {
		title: 'File of another program',
		why: 'The file belongs to a program and holds no questions in a form that can be read.'
	},
	'external-entity': {
		title: 'Part that stands elsewhere',
		why: 'The file asks for something outside of itself, which is never fetched.'
	},
	'error-cell': {
		title: 'Error in a cell',
		why: 'The workbook shows an error there instead of a value.'
	},
	encrypted: {
		title: 'Locked',
		why: 'The file asks for a password.'
	},
	'empty-package': {
		title: 'Empty package',
		why: 'There is nothing in it.'
	},
	'draws-sections': {
		title: 'Draws sections',
		why: 'The quiz draws whole sections, which parts here cannot.'
	},
	'draw-too-large': {
		title: 'Draws more than there is',
		why: 'The quiz draws more questions than it names.'
	},
	'draw-condition': {
		title: 'Draw with a condition',
		why: 'The quiz draws by a condition that parts here do not have.'
	},
	'different-points': {
		title: 'Points that differ',
		why: 'Questions of one part are worth different points, and the part says one.'
	},
	'formula-cell': {
		title: 'Formula without a result',
		why: 'What wrote the workbook has calculated nothing, so that nobody knows what stands there.'
	},
	'date-cell': {
		title: 'Date in a cell',
		why: 'The workbook has made a date of it. Look at what was meant.'
	},
	'damaged-zip': {
		title: 'Damaged package',
		why: 'The package is broken; what could be reached was read.'
	},
	'damaged-entry': {
		title: 'Damaged file',
		why: 'A file of the package is broken.'
	},
	'control-characters': {
		title: 'Control signs',
		why: 'Signs that no text has were put out.'
	},
	'contradictory-key': {
		title: 'Key that contradicts itself',
		why: 'The source marks one thing as right in one place and another in another.'
	},
	'cut-off': {
		title: 'File that breaks off',
		why: 'The file ends in the middle. What came before that was read.'
	},
	'entity-expansion': {
		title: 'Text that grows without end',
		why: 'The file is made so that it grows as it is read. It was not.'
	},
	'bad-entity': {
		title: 'Sign without a meaning',
		why: 'The file names a sign that it does not declare, and that was put back as it is most often meant.'
	},
	'missing-question': {
		title: 'Question that is not there',
		why: 'A quiz names a question that did not come with it.'
	},
	'bad-points': {
		title: 'Points that are no number',
		why: 'What stands for points cannot be read as a number.'
	},
	'unknown-kind': {
		title: 'Kind that is not known',
		why: 'The word for the kind of the question is not known here; it was read by what it holds.'
	},
	'guessed-kind': {
		title: 'Kind that was guessed',
		why: 'The source does not say what kind of question it is; it was read by what it holds.'
	},
	'several-keys': {
		title: 'Several keys, one meant',
		why: 'More than one answer is marked as right where one may be given.'
	},
	'count-differs': {
		title: 'Number that differs',
		why: 'The archive says another number of questions than it holds.'
	},
	'joined-columns': {
		title: 'Columns side by side',
		why: 'Options that stand side by side were read line by line.'
	},
	'guessed-points': {
		title: 'Points that were guessed',
		why: 'A number in brackets was read as points.'
	},
	'unknown-field': {
		title: 'Field that is not known',
		why: 'A line with a name of its own is none that is known.'
	},
	'reason-as-feedback': {
		title: 'Reason read as feedback',
		why: 'Words behind the key were kept as what students are told.'
	},
	'options-on-a-line': {
		title: 'Options on one line',
		why: 'Options that stand on one line were taken apart.'
	},
	'odd-letter': {
		title: 'Letter out of line',
		why: 'The letters of the options do not follow one another.'
	},
	'options-without-letters': {
		title: 'Options without letters',
		why: 'Lines without letters or numbers were read as options.'
	},
	'guessed-tolerance': {
		title: 'Tolerance that was guessed',
		why: 'How far off an answer may be was read out of the words.'
	},
	'rough-number': {
		title: 'Number that is not exact',
		why: 'The source gives a number only roughly.'
	},
	'guessed-pairs': {
		title: 'Pairs that were guessed',
		why: 'What belongs together was read out of the order of lines.'
	},
	'guessed-blanks': {
		title: 'Blanks that were guessed',
		why: 'Which answer belongs to which blank was read out of their order.'
	},
	'too-few-columns': {
		title: 'Row with too few columns',
		why: 'The row has fewer cells than the table has headings.'
	},
	'hidden-text': {
		title: 'Hidden text',
		why: 'Nobody sees it in the document who does not ask for it.'
	},
	'hidden-row': {
		title: 'Hidden row',
		why: 'A row that nobody sees in the workbook was read as well.'
	},
	'points-each': {
		title: 'Points for each',
		why: 'One line gives the points of the questions that follow it.'
	},
	'points-of-section': {
		title: 'Points of a section',
		why: 'A number stands for a whole section, and was kept for none of its questions.'
	},
	'odd-number': {
		title: 'Number out of line',
		why: 'The numbers of the questions do not follow one another.'
	},
	'no-number': {
		title: 'Question without a number',
		why: 'A question was read where no number stands.'
	},
	'zip-bomb': {
		title: 'Package that grows without end',
		why: 'It is made to grow far beyond its size. It was not opened.'
	},
	'unknown-compression': {
		title: 'Packed in an unknown way',
		why: 'A file of the package is packed in a way that is not known here.'
	},
	'empty-recipe': {
		title: 'Recipe that finds nothing',
		why: 'Nothing in the file stands where the recipe says that questions are.'
	},
	'bad-recipe': {
		title: 'Recipe that cannot be used',
		why: 'The recipe is not written as recipes are.'
	},
	'text-box': {
		title: 'Text in a box',
		why: 'Text in boxes lies beside the document and was left out.'
	},
	comment: {
		title: 'Comment in the document',
		why: 'What readers have written beside the document was left out.'
	},
	'unknown-sign': {
		title: 'Sign of a font of its own',
		why: 'A sign is known to one font only; what it means cannot be told.'
	},
	'tracked-changes': {
		title: 'Changes that were not accepted',
		why: 'The document holds changes that nobody has accepted yet; they were read as if they were.'
	},
	footnote: {
		title: 'Footnote',
		why: 'A note at the foot of the page was left out.'
	}
} satisfies Record<string, RuleCard>;

/** A rule that readers speak by. */
export type ReaderRule = keyof typeof readerRules;

declare const ofCheck: unique symbol;

/** The id of a check, as a report carries it. */
export type CheckRule = string & { readonly [ofCheck]: true };

/** The id of a check as the rule of a report. */
export const ruleOf = ({ id }: { id: string }): CheckRule => id as CheckRule;

/** What a reader's rule says of itself, by its id; undefined where there is none. */
export function readerRule(id: string): RuleCard | undefined {
	return Object.hasOwn(readerRules, id) ? readerRules[id as ReaderRule] : undefined;
}
