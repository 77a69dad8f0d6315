import type { Plan } from './plan';

/** The units that the parts of a plan are given, those of a part beside one another; one hand is filled again and again. */
export class Hand {
	readonly units: Int32Array;
	/** Where the units of each part begin, and where they end so far. */
	readonly begins: Int32Array;
	readonly ends: Int32Array;

	/** `most` is how many units each part can be given. */
	constructor(most: readonly number[]) {
		this.begins = new Int32Array(most.length);
		let all = 0;
		most.forEach((size, part) => {
			this.begins[part] = all;
			all += size;
		});
		this.ends = Int32Array.from(this.begins);
		this.units = new Int32Array(all);
	}

	/** Puts a unit behind those of a part. */
	put(unit: number, part: number): void {
		this.units[this.ends[part]!] = unit;
		this.ends[part]! += 1;
	}

	/** Takes everything away. */
	clear(): void {
		this.ends.set(this.begins);
	}

	/** The units of a part. */
	of(part: number): Int32Array {
		return this.units.subarray(this.begins[part], this.ends[part]);
	}
}

/** An empty hand that has room for every sitting of a plan. */
export const handFor = ({ parts, units }: Plan): Hand =>
	new Hand(
		parts.map((part) => {
			const uncounted = part.units.reduce((sum, unit) => sum + (units[unit]!.counted.length ? 0 : 1), 0);
			return Math.min(part.units.length, part.draw + uncounted);
		})
	);
