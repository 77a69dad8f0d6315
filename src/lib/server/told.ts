/** A number with what is counted, for words that people read: “1 question”, “2,300 questions”. */
export function told(number: number, one = 'question', many = `${one}s`): string {
	return `${number.toLocaleString('en')} ${number === 1 ? one : many}`;
}
