/** An answer of several in one question: what is right for it, and whether a person marks it. */
export interface WeighedPart {
	identifier: string;
	/** What it belongs to, where several answers stand in one response. */
	group?: string;
	open: boolean;
	right: string[] | null;
}

/** What each of several answers is worth. */
export interface Weighed {
	/** The score of all right answers together. */
	top: number;
	/** Only all of them together earn anything. */
	all: boolean;
	/** The share of the points of each answer. */
	shares: number[];
	/** The credit of a value of one answer, a share of that answer's own. */
	credit: (identifier: string, value: string[] | null) => number;
	/** Does each answer add its own to the score, whatever the others are. */
	exact: boolean;
}

const round = (value: number) => Math.round(value * 1e6) / 1e6;
const clamp = (value: number) => Math.max(-1, Math.min(1, round(value)));
const close = (a: number, b: number) => Math.abs(a - b) < 1e-6;

/**
 * Finds what each of several answers of one question adds to its score, by leaving each out in turn while all others
 * are right. `full` is the score that stands for all the points, null where it is that of all right answers.
 */
export function weigh(
	parts: WeighedPart[],
	score: (responses: Map<string, string[] | null>) => number,
	full: number | null
): Weighed {
	const right = new Map(parts.map((part) => [part.identifier, part.right]));
	const scoreWith = (identifier?: string, value: string[] | null = null) => {
		const responses = new Map(right);
		if (identifier !== undefined) responses.set(identifier, value);
		return score(responses);
	};
	const machine = parts.filter((part) => !part.open);
	const top = scoreWith();
	const alone = parts.map((part) => (part.open ? 0 : top - scoreWith(part.identifier)));
	// where the answers of one response earn only together, each is given its part of that
	const ofGroup = new Map<string, { worth: number; members: number; apart: boolean }>();
	for (const name of new Set(parts.flatMap((part) => part.group ?? []))) {
		const members = parts.filter((part) => part.group === name);
		if (members.length < 2) continue;
		const worth =
			top -
			score(
				new Map([...right].map(([id, value]) => [id, members.some((one) => one.identifier === id) ? null : value]))
			);
		const single = parts.reduce((total, part, at) => total + (part.group === name ? alone[at]! : 0), 0);
		ofGroup.set(name, { worth, members: members.length, apart: close(single, worth) });
	}
	const joined = (part: WeighedPart) => {
		const found = part.group === undefined ? undefined : ofGroup.get(part.group);
		return found && !found.apart ? found : null;
	};
	// an answer for which nothing is right has no say in whether the others earn only together
	const keyed = machine.filter((part) => part.right?.length);
	const all =
		keyed.length > 1 &&
		top > 0 &&
		alone.every((one, at) => close(one, keyed.includes(parts[at]!) ? top : 0) || parts[at]!.open);
	const worths = parts.map((part, at) => {
		const found = all ? null : joined(part);
		return found ? found.worth / found.members : alone[at]!;
	});
	const sum = worths.reduce((a, b) => a + b, 0);
	const whole = full || top || 1;
	const opens = parts.length - machine.length;
	const left = opens ? Math.max(0, 1 - sum / whole) / opens : 0;
	const shares = parts.map((part, at) =>
		part.open
			? left
			: all
				? keyed.includes(part)
					? 1 / keyed.length
					: 0
				: top > 0
					? worths[at]! / whole
					: 1 / parts.length
	);
	return {
		top,
		all,
		shares: shares.map((one) => round(Math.min(1, Math.max(0, one)))),
		exact: top <= 0 || all || (close(sum, top) && !parts.some(joined)),
		credit(identifier, value) {
			const at = parts.findIndex((part) => part.identifier === identifier);
			const worth = worths[at] ?? 0;
			if (top <= 0 || (all && !keyed.includes(parts[at]!))) return 0;
			const reached = scoreWith(identifier, value);
			if (all || (parts[at] && joined(parts[at]))) return reached >= top - 1e-6 ? 1 : 0;
			return worth ? clamp((reached - (top - worth)) / worth) : 0;
		}
	};
}
