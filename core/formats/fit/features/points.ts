import { byMachine } from './changing';
import type { Feature } from './feature';

/** Points that are not given. */
export const unsetPoints: Feature = {
	name: 'unset-points',
	title: 'points that are not given',
	otherwise: 'points that are not given become 1',
	without: (question) => (question.points === null && byMachine(question) ? { ...question, points: 1 } : question)
};

/** Points of what a person marks. */
export const pointsByPerson: Feature = {
	name: 'points-by-person',
	title: 'points of what a person marks',
	otherwise: 'points of what a person marks, or nobody, are left out',
	without: (question) => (question.points !== null && !byMachine(question) ? { ...question, points: null } : question)
};

/** Points of nothing. */
export const noPoints: Feature = {
	name: 'no-points',
	title: 'points of nothing',
	otherwise: 'points of 0 become 1',
	without: (question) => (question.points === 0 && byMachine(question) ? { ...question, points: 1 } : question)
};
