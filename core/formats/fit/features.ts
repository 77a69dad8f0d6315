import { markupOfText } from '../../markup/clean';
import { isTrueFalse } from '../choices';
import { bestNumber } from '../../kinds/answers';
import { labelsAsMatching } from './nearest';
import { conform } from '../../markup/conform';
import { serialise } from '../../xml/serialise';
import { parseXml } from '../../xml/stream';
import { blankMarker, blanksIn, replaceBlanks } from '../../markup/markers';
import { plainText } from '../../markup/text';
import { isChoice, mapMarkup, type Blank, type Question } from '../../kinds';
import type { AcceptedNumber, AcceptedText } from '../../model/pieces';
import type { Markup } from '../../model/question';

/** Something that a question can have and that not every format can hold. */
export interface Feature {
	name: string;
	/** A few words for tables. */
	title: string;
	/** What becomes of it where it cannot be held, for people. */
	otherwise: string;
	/** The question without it; the same object where it has none of it. */
	without: (question: Question) => Question;
}

const round = (value: number) => Math.round(value * 1e6) / 1e6;
const languageTag = /^[A-Za-z]{1,8}(-[A-Za-z0-9]{1,8})*$/;
const byMachine = (question: Question) =>
	!['essay', 'information', 'unreadable', 'file-upload'].includes(question.kind);

function withoutFeedback(part: 'general' | 'correct' | 'incorrect' | 'partly') {
	return (question: Question): Question => {
		if (question.feedback[part] === undefined) return question;
		const { [part]: _, ...feedback } = question.feedback;
		return { ...question, feedback };
	};
}

/** Changes every list of accepted texts in a question; the same object where nothing changes. */
function onTexts(question: Question, change: (texts: AcceptedText[]) => AcceptedText[]): Question {
	if (question.kind === 'short-answer') {
		const accepted = change(question.accepted);
		return accepted === question.accepted ? question : { ...question, accepted };
	}
	if (question.kind !== 'fill-blanks') return question;
	return onBlanks(question, (blank) => {
		if (blank.form !== 'text') return blank;
		const accepted = change(blank.accepted);
		return accepted === blank.accepted ? blank : { ...blank, accepted };
	});
}

function onBlanks(question: Question, change: (blank: Blank) => Blank): Question {
	if (question.kind !== 'fill-blanks') return question;
	const blanks = question.blanks.map(change);
	return blanks.some((blank, at) => blank !== question.blanks[at]) ? { ...question, blanks } : question;
}

const changed = <T>(list: T[], change: (one: T) => T): T[] => {
	const out = list.map(change);
	return out.some((one, at) => one !== list[at]) ? out : list;
};

const shown = /<(img|object)\b([^>]*?)(?:\/>|>[\s\S]*?<\/object>)/g;

/** What a picture or a sound is called, for people: what it shows, and its file. */
function nameOfShown(attributes: string): Markup {
	const said = (name: string) => new RegExp(`\\b${name}="([^"]*)"`).exec(attributes)?.[1]?.trim() ?? '';
	const file = (said('src') || said('data'))
		.split('/')
		.pop()!
		.replace(/^media:/, '');
	// an attribute escapes more than a text does
	return markupOfText(plainText(said('alt') ? `${said('alt')} (${file})` : file));
}

/** Rich text without its pictures, in the form of rich text again; where nothing else is in it, it says what was shown. */
function withoutPictures(markup: Markup): Markup {
	if (!/<(img|object)\b/.test(markup)) return markup;
	const bare = serialise(conform(parseXml(`<x>${markup.replace(shown, '')}</x>`).root?.children ?? [])).trim();
	return plainText(bare) || /<(math|span|div|var)\b/.test(bare)
		? bare
		: [...markup.matchAll(shown)].map((found) => nameOfShown(found[2]!)).join(', ');
}

/** Rich text as plain text that is escaped again. */
const plain = (markup: Markup) => (/[<&]/.test(markup) ? markupOfText(plainText(markup)) : markup);

function onNumbers(question: Question, change: (numbers: AcceptedNumber[]) => AcceptedNumber[]): Question {
	if (question.kind !== 'numeric') return question;
	const accepted = change(question.accepted);
	return accepted === question.accepted ? question : { ...question, accepted };
}

/** Rich text in the one form of rich text, after something was taken out of it. */
const tidyMarkup = (markup: Markup): Markup =>
	serialise(conform(parseXml(`<x>${markup}</x>`).root?.children ?? [])).trim();

const hasPositive = (credits: number[]) => credits.some((credit) => credit > 0);

/** Every feature, in the order in which a question is made to fit. A new one is an entry here. */
export const features: Feature[] = [
	{
		name: 'stimulus',
		title: 'a text that several questions share',
		otherwise: 'the shared text is put in front of the stem',
		without: (question) => {
			if (!question.stimulus) return question;
			const { stimulus, ...rest } = question;
			const paragraph = (markup: Markup) =>
				/^<(p|div|table|ul|ol|h\d|blockquote|pre|dl)\b/.test(markup) ? markup : `<p>${markup}</p>`;
			const stem = rest.stem ? `${paragraph(stimulus.content)}${paragraph(rest.stem)}` : stimulus.content;
			return { ...rest, stem };
		}
	},
	{
		name: 'hints',
		title: 'hints',
		otherwise: 'hints are left out',
		without: (question) => (question.hints.length ? { ...question, hints: [] } : question)
	},
	{
		name: 'metadata',
		title: 'extra metadata',
		otherwise: 'extra metadata is left out',
		without: (question) => (question.metadata.length ? { ...question, metadata: [] } : question)
	},
	{
		name: 'difficulty',
		title: 'difficulty',
		otherwise: 'the difficulty is left out',
		without: (question) => {
			if (question.difficulty === undefined) return question;
			const { difficulty: _, ...rest } = question;
			return rest;
		}
	},
	{
		name: 'tags',
		title: 'tags',
		otherwise: 'tags are left out',
		without: (question) => (question.tags.length ? { ...question, tags: [] } : question)
	},
	{
		name: 'odd-language',
		title: 'a language that is no language tag',
		otherwise: 'the language is left out: its name is no language tag',
		without: (question) =>
			question.language === null || languageTag.test(question.language) ? question : { ...question, language: null }
	},
	{
		name: 'language',
		title: 'language',
		otherwise: 'the language is left out',
		without: (question) => (question.language === null ? question : { ...question, language: null })
	},
	{
		name: 'category',
		title: 'category',
		otherwise: 'the category is left out',
		without: (question) => (question.category.length ? { ...question, category: [] } : question)
	},
	{
		name: 'title',
		title: 'title',
		otherwise: 'the title is left out',
		without: (question) => (question.title ? { ...question, title: '' } : question)
	},
	{
		name: 'unset-points',
		title: 'points that are not given',
		otherwise: 'points that are not given become 1',
		without: (question) => (question.points === null && byMachine(question) ? { ...question, points: 1 } : question)
	},
	{
		name: 'points-by-person',
		title: 'points of what a person marks',
		otherwise: 'points of what a person marks, or nobody, are left out',
		without: (question) => (question.points !== null && !byMachine(question) ? { ...question, points: null } : question)
	},
	{
		name: 'no-points',
		title: 'points of nothing',
		otherwise: 'points of 0 become 1',
		without: (question) => (question.points === 0 && byMachine(question) ? { ...question, points: 1 } : question)
	},
	{
		name: 'general-feedback',
		title: 'general feedback',
		otherwise: 'general feedback is left out',
		without: withoutFeedback('general')
	},
	{
		name: 'correct-feedback',
		title: 'feedback to a right answer',
		otherwise: 'feedback to a right answer is left out',
		without: withoutFeedback('correct')
	},
	{
		name: 'incorrect-feedback',
		title: 'feedback to a wrong answer',
		otherwise: 'feedback to a wrong answer is left out',
		without: withoutFeedback('incorrect')
	},
	{
		name: 'partly-feedback',
		title: 'feedback to a partly right answer',
		otherwise: 'feedback to a partly right answer is left out',
		without: withoutFeedback('partly')
	},
	{
		name: 'option-feedback',
		title: 'feedback of single options',
		otherwise: 'feedback of single options is left out',
		without: (question) =>
			isChoice(question) && question.options.some((option) => option.feedback !== undefined)
				? { ...question, options: question.options.map(({ feedback: _, ...option }) => option) }
				: question
	},
	{
		name: 'unset-shuffle',
		title: 'shuffling that is not said',
		otherwise: 'shuffling that is not said becomes no shuffling',
		without: (question) => {
			if ('shuffle' in question && question.shuffle === null)
				return onBlanks({ ...question, shuffle: false }, (blank) =>
					blank.form === 'list' && blank.shuffle === null ? { ...blank, shuffle: false } : blank
				);
			return onBlanks(question, (blank) =>
				blank.form === 'list' && blank.shuffle === null ? { ...blank, shuffle: false } : blank
			);
		}
	},
	{
		name: 'shuffle',
		title: 'whether options are shuffled',
		otherwise: 'whether options are shuffled is left out',
		without: (question) => {
			const blanks = onBlanks(question, (blank) =>
				blank.form === 'list' && blank.shuffle !== null ? { ...blank, shuffle: null } : blank
			);
			return 'shuffle' in blanks && blanks.shuffle !== null ? { ...blanks, shuffle: null } : blanks;
		}
	},
	{
		name: 'odd-truth',
		title: 'the kind of a choice between true and false',
		otherwise: 'whether it is true or false is told from the words of its options',
		without: (question) => {
			if (question.kind !== 'true-false' && question.kind !== 'multiple-choice') return question;
			const kind = isTrueFalse(question.options.map((option) => plainText(option.text)))
				? 'true-false'
				: 'multiple-choice';
			return kind === question.kind ? question : { ...question, kind };
		}
	},
	{
		name: 'pinned',
		title: 'options that keep their place',
		otherwise: 'options no longer keep their place when they are shuffled',
		without: (question) =>
			isChoice(question) && question.options.some((option) => option.pinned)
				? { ...question, options: question.options.map((option) => ({ ...option, pinned: false })) }
				: question
	},
	{
		name: 'lost-keys',
		title: 'keys that point at nothing',
		otherwise: 'keys that point at nothing are left out',
		without: (question) => (isChoice(question) && question.lostKeys.length ? { ...question, lostKeys: [] } : question)
	},
	{
		name: 'negative-credit',
		title: 'credit that is taken off',
		otherwise: 'credit that is taken off becomes none',
		without: (question) => {
			if (isChoice(question) && question.options.some((option) => option.credit < 0))
				return {
					...question,
					options: question.options.map((option) => ({ ...option, credit: Math.max(0, option.credit) }))
				};
			if ('pairs' in question && question.pairs.some((pair) => pair.credit < 0))
				return { ...question, pairs: question.pairs.filter((pair) => pair.credit > 0) };
			return onTexts(question, (texts) =>
				texts.some((one) => one.credit < 0) ? texts.filter((one) => one.credit >= 0) : texts
			);
		}
	},
	{
		name: 'partial-credit',
		title: 'options that earn a part',
		otherwise: 'of options of which one may be chosen, only those with the most credit stay right',
		without: (question) => {
			if (!isChoice(question) || question.kind === 'multiple-response') return question;
			const best = Math.max(...question.options.map((option) => option.credit));
			const options = changed(question.options, (option) => {
				const credit = best > 0 && option.credit === best ? 1 : 0;
				return option.credit === credit ? option : { ...option, credit };
			});
			return options === question.options ? question : { ...question, options };
		}
	},
	{
		name: 'one-key',
		title: 'several options that earn everything where one may be chosen',
		otherwise: 'of several right options the first stays right',
		without: (question) => {
			if (!isChoice(question) || question.kind === 'multiple-response') return question;
			const first = question.options.findIndex((option) => option.credit > 0);
			const options = changed(question.options, (option) =>
				option.credit > 0 && question.options.indexOf(option) !== first ? { ...option, credit: 0 } : option
			);
			return options === question.options ? question : { ...question, options };
		}
	},
	{
		name: 'credit-by-option',
		title: 'credit for each option that is ticked',
		otherwise: 'credit by option becomes all or nothing',
		without: (question) => {
			if (question.kind !== 'multiple-response' || question.combination === 'all') return question;
			const right = question.options.filter((option) => option.credit > 0).length;
			return {
				...question,
				combination: 'all',
				bounds: { lower: null, upper: null },
				options: question.options.map((option) => ({ ...option, credit: option.credit > 0 ? round(1 / right) : 0 }))
			};
		}
	},
	{
		name: 'keyless-all',
		title: 'all or nothing without a key',
		otherwise: 'all or nothing without a key becomes credit by option',
		without: (question) => {
			if (!('combination' in question) || question.combination !== 'all') return question;
			if (question.kind === 'fill-blanks') return question;
			const credits = (
				isChoice(question) ? question.options : question.kind === 'hotspot' ? question.shapes : question.pairs
			).map((one) => one.credit);
			return hasPositive(credits) ? question : { ...question, combination: 'sum' };
		}
	},
	{
		name: 'unequal-all',
		title: 'unequal credit of what earns only together',
		otherwise: 'credit of what earns only together becomes equal shares',
		without: (question) => {
			if (!('combination' in question) || question.combination !== 'all') return question;
			const equal = <T extends { credit: number }>(list: T[]): T[] => {
				const share = round(1 / list.filter((one) => one.credit > 0).length);
				return changed(list, (one) => {
					const credit = one.credit > 0 ? share : 0;
					return Math.abs(one.credit - credit) > 2e-6 ? { ...one, credit } : one;
				});
			};
			if (isChoice(question)) {
				const options = equal(question.options);
				return options === question.options ? question : { ...question, options };
			}
			if (question.kind === 'hotspot') {
				const shapes = equal(question.shapes);
				return shapes === question.shapes ? question : { ...question, shapes };
			}
			return question;
		}
	},
	{
		name: 'bounds',
		title: 'bounds of a sum',
		otherwise: 'the least and the greatest credit of a sum are left out',
		without: (question) =>
			'bounds' in question && (question.bounds.lower !== null || question.bounds.upper !== null)
				? { ...question, bounds: { lower: null, upper: null } }
				: question
	},
	{
		name: 'capitals',
		title: 'capitals that matter',
		otherwise: 'capitals no longer matter',
		without: (question) =>
			onTexts(question, (texts) =>
				changed(texts, (one) => (one.caseSensitive && one.match !== 'pattern' ? { ...one, caseSensitive: false } : one))
			)
	},
	{
		name: 'loose-patterns',
		title: 'patterns in which capitals do not matter',
		otherwise: 'capitals matter in patterns',
		without: (question) =>
			onTexts(question, (texts) =>
				changed(texts, (one) => (one.match === 'pattern' && !one.caseSensitive ? { ...one, caseSensitive: true } : one))
			)
	},
	{
		name: 'contains',
		title: 'answers that only have to contain a text',
		otherwise: 'answers that only have to contain a text have to be that text',
		without: (question) =>
			onTexts(question, (texts) =>
				changed(texts, (one) => {
					if (one.match !== 'contains') return one;
					const { match: _, ...rest } = one;
					return rest;
				})
			)
	},
	{
		name: 'patterns',
		title: 'patterns',
		otherwise: 'patterns are left out',
		without: (question) =>
			onTexts(question, (texts) =>
				texts.some((one) => one.match === 'pattern') ? texts.filter((one) => one.match !== 'pattern') : texts
			)
	},
	{
		name: 'text-credit',
		title: 'texts that earn a part',
		otherwise: 'texts that earn a part are no longer accepted',
		without: (question) =>
			onTexts(question, (texts) => {
				const best = Math.max(...texts.map((one) => one.credit));
				if (!texts.length || texts.every((one) => one.credit === 1)) return texts;
				return texts.filter((one) => one.credit === best && best > 0).map((one) => ({ ...one, credit: 1 }));
			})
	},
	{
		name: 'number-credit',
		title: 'numbers that earn a part',
		otherwise: 'numbers that earn a part are no longer accepted',
		without: (question) =>
			onNumbers(question, (numbers) => {
				const best = Math.max(...numbers.map((one) => one.credit));
				if (!numbers.length || numbers.every((one) => one.credit === 1)) return numbers;
				return numbers.filter((one) => one.credit === best && best > 0).map((one) => ({ ...one, credit: 1 }));
			})
	},
	{
		name: 'open-ranges',
		title: 'ranges without an end, or that leave their end out',
		otherwise: 'ends of ranges are taken in, and ranges without an end are no longer accepted',
		without: (question) =>
			onNumbers(question, (numbers) => {
				const odd = (one: AcceptedNumber) =>
					!('value' in one) && (one.min === null || one.max === null || !one.includesMin || !one.includesMax);
				if (!numbers.some(odd)) return numbers;
				return numbers
					.filter((one) => 'value' in one || (one.min !== null && one.max !== null))
					.map((one) => ('value' in one ? one : { ...one, includesMin: true, includesMax: true }));
			})
	},
	{
		name: 'whole',
		title: 'whole numbers only',
		otherwise: 'any number may be entered, not only whole ones',
		without: (question) => (question.kind === 'numeric' && question.whole ? { ...question, whole: false } : question)
	},
	{
		name: 'odd-whole',
		title: 'whole numbers only, where no whole number is accepted',
		otherwise: 'any number may be entered where no whole number is accepted',
		without: (question) => {
			const odd = (accepted: AcceptedNumber[], whole: boolean) => whole && bestNumber(accepted, true) === null;
			if (question.kind === 'numeric' && odd(question.accepted, question.whole)) return { ...question, whole: false };
			return onBlanks(question, (blank) =>
				blank.form === 'number' && odd(blank.accepted, blank.whole) ? { ...blank, whole: false } : blank
			);
		}
	},
	{
		name: 'slider',
		title: 'a number chosen on a scale',
		otherwise: 'the number is typed instead of chosen on a scale',
		without: (question) => {
			if (question.kind !== 'numeric' || !question.slider) return question;
			const { slider: _, ...rest } = question;
			return rest;
		}
	},
	{
		name: 'unit',
		title: 'units',
		otherwise: 'the unit is left out',
		without: (question) => {
			if ((question.kind !== 'numeric' && question.kind !== 'calculated') || question.unit === undefined)
				return question;
			const { unit: _, ...rest } = question;
			return rest;
		}
	},
	{
		name: 'slider-unit',
		title: 'units of a scale',
		otherwise: 'the unit of the scale is left out',
		without: (question) => {
			if (question.kind !== 'numeric' || !question.slider || question.unit === undefined) return question;
			const { unit: _, ...rest } = question;
			return rest;
		}
	},
	{
		name: 'mixed-bank',
		title: 'a word bank beside blanks of other forms',
		otherwise: 'blanks with a shared word bank become lists of their own',
		without: (question) =>
			question.kind === 'fill-blanks' &&
			question.blanks.some((blank) => blank.form === 'word') &&
			question.blanks.some((blank) => blank.form !== 'word')
				? withoutBank(question)
				: question
	},
	{
		name: 'word-bank',
		title: 'a word bank that blanks share',
		otherwise: 'blanks with a shared word bank become lists of their own',
		without: (question) =>
			question.kind === 'fill-blanks' &&
			(question.bank.length || question.blanks.some((blank) => blank.form === 'word'))
				? withoutBank(question)
				: question
	},
	{
		name: 'rich-bank',
		title: 'rich text in a word bank',
		otherwise: 'rich text of a word bank becomes plain text',
		without: (question) => {
			if (question.kind !== 'fill-blanks') return question;
			const bank = changed(question.bank, (word) =>
				plain(word.text) === word.text ? word : { ...word, text: plain(word.text) }
			);
			return bank === question.bank ? question : { ...question, bank };
		}
	},
	{
		name: 'rich-lists',
		title: 'rich text in the lists of blanks within a line',
		otherwise: 'rich text in the lists of blanks becomes plain text',
		without: (question) => {
			if (question.kind !== 'fill-blanks') return question;
			const blocks = new Set<string>();
			replaceBlanks(question.stem, (identifier, block) => {
				if (block) blocks.add(identifier);
				return '';
			});
			return onBlanks(question, (blank) => {
				if (blank.form !== 'list' || blocks.has(blank.identifier)) return blank;
				const entries = changed(blank.entries, (entry) =>
					plain(entry.text) === entry.text ? entry : { ...entry, text: plain(entry.text) }
				);
				return entries === blank.entries ? blank : { ...blank, entries };
			});
		}
	},
	{
		name: 'list-shuffle',
		title: 'shuffling within a list of a blank',
		otherwise: 'the entries of lists in blanks are no longer shuffled',
		without: (question) =>
			onBlanks(question, (blank) => (blank.form === 'list' && blank.shuffle ? { ...blank, shuffle: false } : blank))
	},
	{
		name: 'lone-open-blank',
		title: 'a single blank that is filled at length',
		otherwise: 'a text whose only blank is filled at length becomes an essay',
		without: (question) => {
			if (question.kind !== 'fill-blanks' || question.blanks.length !== 1 || question.blanks[0]!.form !== 'open')
				return question;
			const { blanks: _1, bank: _2, combination: _3, shuffle: _4, kind: _5, ...rest } = question;
			return { ...rest, stem: tidyMarkup(replaceBlanks(rest.stem, (_, block) => (block ? '' : '…'))), kind: 'essay' };
		}
	},
	{
		name: 'inline-open-blanks',
		title: 'long answers within a line',
		otherwise: 'blanks that are filled at length stand in lines of their own',
		without: (question) => {
			if (question.kind !== 'fill-blanks') return question;
			const open = new Set(question.blanks.flatMap((blank) => (blank.form === 'open' ? [blank.identifier] : [])));
			let any = false;
			const stem = replaceBlanks(question.stem, (identifier, block) => {
				const moved = open.has(identifier) && !block;
				any ||= moved;
				return serialise([blankMarker(identifier, block || moved)]);
			});
			return any ? { ...question, stem: tidyMarkup(stem) } : question;
		}
	},
	{
		name: 'open-all',
		title: 'long answers among blanks that earn only together',
		otherwise: 'blanks that earn only together, a long answer among them, earn each its share',
		without: (question) =>
			question.kind === 'fill-blanks' &&
			question.combination === 'all' &&
			question.blanks.some((blank) => blank.form === 'open')
				? { ...question, combination: 'sum' }
				: question
	},
	{
		name: 'distractors',
		title: 'things to be matched that belong to nothing',
		otherwise: 'things to be matched that belong to nothing are left out',
		without: (question) => {
			if (question.kind !== 'matching') return question;
			const used = (side: 'left' | 'right') =>
				new Set(question.pairs.filter((pair) => pair.credit > 0).map((pair) => pair[side]));
			const [lefts, rights] = [used('left'), used('right')];
			const left = question.left.filter((one) => lefts.has(one.identifier));
			const right = question.right.filter((one) => rights.has(one.identifier));
			return left.length === question.left.length && right.length === question.right.length
				? question
				: {
						...question,
						left,
						right,
						pairs: question.pairs.filter((pair) => lefts.has(pair.left) && rights.has(pair.right))
					};
		}
	},
	{
		name: 'uses',
		title: 'how often something may be matched',
		otherwise: 'each on the left is matched once, those on the right as often as one likes',
		without: (question) => {
			if (question.kind !== 'matching') return question;
			const many = (identifier: string) =>
				question.pairs.filter((pair) => pair.left === identifier && pair.credit > 0).length > 1;
			const left = changed(question.left, (one) => {
				const uses = many(one.identifier) ? null : 1;
				return one.uses === uses ? one : { ...one, uses };
			});
			const right = changed(question.right, (one) => (one.uses === null ? one : { ...one, uses: null }));
			return left === question.left && right === question.right ? question : { ...question, left, right };
		}
	},
	{
		name: 'text-labels',
		title: 'labels of words that are laid on a picture',
		otherwise: 'labels of words are matched with the places of the picture, which are numbered',
		without: (question) =>
			question.kind === 'label-image' && question.labels.some((label) => !/^<img [^>]*\/>$/.test(label.text))
				? labelsAsMatching(question)[0]!
				: question
	},
	{
		name: 'rich-labels',
		title: 'rich text in labels',
		otherwise: 'rich text in labels becomes plain text',
		without: (question) => {
			if (question.kind !== 'label-image') return question;
			const labels = changed(question.labels, (label) =>
				/^<img [^>]*\/>$/.test(label.text) || plain(label.text) === label.text
					? label
					: { ...label, text: plain(label.text) }
			);
			return labels === question.labels ? question : { ...question, labels };
		}
	},
	{
		name: 'unreachable-all',
		title: 'places that earn only together, and more of them than may be pointed at',
		otherwise: 'as many places may be pointed at as are right, where they earn only together',
		without: (question) => {
			if (question.kind !== 'hotspot' || question.combination !== 'all' || question.picks < 2) return question;
			const right = question.shapes.filter((shape) => shape.credit > 0).length;
			return question.picks < right ? { ...question, picks: right } : question;
		}
	},
	{
		name: 'outside',
		title: 'credit for points outside of every place',
		otherwise: 'points outside of every place earn nothing',
		without: (question) =>
			question.kind === 'hotspot' && question.outside !== 0 ? { ...question, outside: 0 } : question
	},
	{
		name: 'float-steps',
		title: 'decimal variables that go in steps',
		otherwise: 'variables that go in steps of decimals take one of the values that the steps give',
		without: (question) => {
			if (question.kind !== 'calculated') return question;
			const variables = changed(question.variables, (one) => {
				const { values } = one;
				if (values.form !== 'range' || values.step === null || one.whole) return one;
				const count = Math.floor((values.max - values.min) / values.step + 1e-9) + 1;
				if (count > 500 || count < 1) return { ...one, values: { ...values, step: null } };
				const list = Array.from({ length: count }, (_, at) => Number((values.min + at * values.step!).toPrecision(12)));
				return { ...one, values: { form: 'set' as const, values: list } };
			});
			return variables === question.variables ? question : { ...question, variables };
		}
	},
	{
		name: 'hidden-decimals',
		title: 'decimals of variables that are not shown',
		otherwise: 'how many decimals a variable has is left out where it is not shown',
		without: (question) => {
			if (question.kind !== 'calculated') return question;
			const variables = changed(question.variables, (one) =>
				one.decimals !== null && !question.stem.includes(`>${one.name}</var>`) ? { ...one, decimals: null } : one
			);
			return variables === question.variables ? question : { ...question, variables };
		}
	},
	{
		name: 'pictures',
		title: 'pictures, sound and files',
		otherwise: 'pictures, sound and files are left out; where nothing else stood there, their names stand in for them',
		without: (question) => {
			const bare = mapMarkup(question, withoutPictures);
			return question.attachments.length || JSON.stringify(bare) !== JSON.stringify(question)
				? { ...bare, attachments: [] }
				: question;
		}
	},
	{
		name: 'rich-text',
		title: 'rich text',
		otherwise: 'rich text becomes plain text',
		without: (question) => {
			let same = true;
			const blanks = new Set(blanksIn(question.stem));
			const bare = mapMarkup(question, (markup, field) => {
				const text = field === 'stem' && blanks.size ? markup : plain(markup);
				if (text !== markup) same = false;
				return text;
			});
			return same ? question : bare;
		}
	},
	{
		name: 'line-breaks',
		title: 'several lines',
		otherwise: 'white space is folded',
		without: (question) => {
			let same = true;
			const folded = mapMarkup(question, (markup) => {
				const text = markup.replace(/\s+/g, ' ').trim();
				if (text !== markup) same = false;
				return text;
			});
			const title = question.title.replace(/\s+/g, ' ').trim();
			return same && title === question.title ? question : { ...folded, title };
		}
	}
];

/** The words of a shared bank as a list of each blank's own. */
function withoutBank(question: Extract<Question, { kind: 'fill-blanks' }>): Question {
	return {
		...question,
		bank: [],
		shuffle: null,
		blanks: question.blanks.map((blank): Blank => {
			if (blank.form !== 'word') return blank;
			return {
				identifier: blank.identifier,
				share: blank.share,
				form: 'list',
				several: false,
				shuffle: question.shuffle,
				entries: question.bank.map(({ identifier, text }) => ({
					identifier,
					text,
					credit: blank.words.find((one) => one.word === identifier)?.credit ?? 0
				}))
			};
		})
	};
}
