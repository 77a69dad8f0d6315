/** A number of bytes for people. */
export function bytes(size: number): string {
	if (size < 1000) return `${size} B`;
	if (size < 1_000_000) return `${Math.round(size / 1000)} kB`;
	if (size < 1_000_000_000) return `${(size / 1_000_000).toFixed(size < 10_000_000 ? 1 : 0)} MB`;
	return `${(size / 1_000_000_000).toFixed(1)} GB`;
}

/** A number as it stands in a table: "1,050". */
export function figure(number: number): string {
	return number.toLocaleString('en');
}

/** A count with its noun: "1 question", "2 questions". */
export function count(number: number, one: string, many = `${one}s`): string {
	return `${figure(number)} ${number === 1 ? one : many}`;
}

const relative = new Intl.RelativeTimeFormat('en', { numeric: 'auto' });
const weekday = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

/** A moment for people: "3 minutes ago" today, then "yesterday", then the day, with its year where that is another. */
export function ago(moment: Date | string, now = Date.now()): string {
	const seconds = (new Date(moment).getTime() - now) / 1000;
	if (seconds > -60) return 'just now';
	if (seconds > -3600) return relative.format(Math.round(seconds / 60), 'minute');
	if (seconds > -86_400) return relative.format(Math.round(seconds / 3600), 'hour');
	if (seconds > -172_800) return 'yesterday';
	const then = new Date(moment);
	return (then.getFullYear() === new Date(now).getFullYear() ? weekday : day).format(then);
}

const moment = new Intl.DateTimeFormat('en-GB', {
	day: 'numeric',
	month: 'short',
	year: 'numeric',
	hour: '2-digit',
	minute: '2-digit'
});

/** The date and the time of a moment: "28 Nov 2026, 14:05". */
export function dateTime(when: Date | string): string {
	return moment.format(new Date(when));
}

/** A path of categories for people. */
export function pathText(path: string[]): string {
	return path.length ? path.join(' › ') : 'no category';
}

/** The name of a course; with its code and intake where another of those that one belongs to has the same name. */
export function courseWords(
	course: { id: number; name: string; code: string; intake: string },
	all: readonly { id: number; name: string }[]
): string {
	const twins = all.some(({ id, name }) => id !== course.id && name.toLowerCase() === course.name.toLowerCase());
	return twins ? `${course.name} (${[course.code, course.intake].filter(Boolean).join(', ')})` : course.name;
}
