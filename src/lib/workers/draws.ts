import { drawSitting, type Sitting } from '$core/draws/sitting';
import type { DrawPart } from '$core/draws/part';
import { feasibility, type Feasibility } from '$core/draws/feasibility';

/** What the worker is asked, and under which number it answers. */
export interface DrawRequest {
	id: number;
	parts: DrawPart[];
	/** The seed of the sitting that is wanted, or null for the feasibility alone. */
	seed: string | null;
}

/** What it answers. */
export interface DrawAnswer {
	id: number;
	refusals: Feasibility['refusals'];
	sitting: Sitting | null;
}

self.onmessage = ({ data }: MessageEvent<DrawRequest>) => {
	const { refusals } = feasibility(data.parts);
	const answer: DrawAnswer = {
		id: data.id,
		refusals,
		sitting: data.seed === null ? null : drawSitting(data.parts, data.seed)
	};
	self.postMessage(answer);
};
