/** The least and the most that a column beside the middle is wide, in pixels. */
export const leastWidth = 180;
/** The most that it is wide. */
export const mostWidth = 640;

const cookieName = 'columns';
const yearInSeconds = 365 * 86_400;
const mostNames = 20;

/** The widths that somebody has set, by the name of the frame, out of the text of the cookie that keeps them; what does not fit is left out. */
export function widthsCookie(text: string | undefined): Map<string, [number, number]> {
	const found = new Map<string, [number, number]>();
	for (const part of (text ?? '').split('|').slice(0, mostNames)) {
		const [, name, first, last] = /^([a-z]{1,20})\.(\d{1,4})\.(\d{1,4})$/.exec(part) ?? [];
		if (name === undefined) continue;
		const widths = [Number(first), Number(last)] as [number, number];
		if (widths.every((width) => width >= leastWidth && width <= mostWidth)) found.set(name, widths);
	}
	return found;
}

/** Keeps the widths of a frame in this browser, so that the server draws it so the next time. */
export function keepWidths(name: string, widths: readonly [number, number]): void {
	const text = new RegExp(`(?:^|; )${cookieName}=([^;]*)`).exec(document.cookie)?.[1];
	const all = widthsCookie(text);
	all.set(name, [Math.round(widths[0]), Math.round(widths[1])]);
	const value = [...all].map(([frame, [first, last]]) => `${frame}.${first}.${last}`).join('|');
	document.cookie = `${cookieName}=${value}; path=/; max-age=${yearInSeconds}; samesite=lax`;
}
