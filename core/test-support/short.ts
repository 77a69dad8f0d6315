import { plainText } from '../markup/text';
import { isChoice, type Question } from '../kinds';

/** A question in short: its kind, stem, options with a star before each that is right, or what is accepted. */
export function short(question: Question): string[] {
	const answers = isChoice(question)
		? question.options.map((option) => `${option.credit > 0 ? '*' : ''}${plainText(option.text)}`)
		: question.kind === 'short-answer'
			? question.accepted.map((accepted) => accepted.text)
			: question.kind === 'numeric'
				? question.accepted.map((accepted) =>
						'value' in accepted ? `${accepted.value}±${accepted.tolerance}` : `${accepted.min}–${accepted.max}`
					)
				: question.kind === 'matching'
					? question.pairs.map(({ left, right }) =>
							[left, right]
								.map((id) =>
									plainText([...question.left, ...question.right].find((side) => side.identifier === id)!.text)
								)
								.join('=')
						)
					: question.kind === 'ordering'
						? question.items.map((item) => plainText(item.text))
						: question.kind === 'fill-blanks'
							? question.blanks.map((blank) =>
									blank.form === 'text'
										? blank.accepted.map((accepted) => accepted.text).join('/')
										: blank.form === 'number'
											? blank.accepted.map((accepted) => ('value' in accepted ? accepted.value : '')).join('/')
											: blank.form
								)
							: [];
	return [question.kind, plainText(question.stem), ...answers];
}
