import { number } from 'yup';
import { takesPoints } from '../take-in/adjust';
import type { Edit } from './edit';

/** The same points for each; what earns none (information, unreadable) is left alone. */
export const points: Edit<{ points: number }> = {
	fields: {
		points: number()
			.typeError('Points are a number.')
			.min(0, 'Points are 0 or more.')
			.max(1e6, 'A question has 1,000,000 points at the most.')
			.required('Write how many points.')
	},
	deed: 'set the points of',
	says: ({ points: each }) => `${each} ${each === 1 ? 'point' : 'points'} each`,
	apply: (question, { points: each }) =>
		question.points === each || !takesPoints(question.kind) ? question : { ...question, points: each },
	keepsKey: true
};
