import type { Place, Report } from '../reports/report';

/**
 * Says that answers of other kinds, which stand beside each other in one question, became lists to choose from:
 * `pictures` where one of them is a place in a picture.
 */
export function reshapedReport(pictures: boolean, place: Place): Report {
	return pictures
		? {
				rule: 'reshaped',
				severity: 'doubtful',
				message:
					'It asks to point at places of a picture among other things. Here the picture stands in the stem, and its places are named by how many pixels they lie across and down; what is right stays the same. Name each place by what is to be seen there.',
				place
			}
		: {
				rule: 'reshaped',
				severity: 'untidy',
				message:
					'It asks to match, to order, to fill gaps or to select words among other things. Here each place is a blank with a list to choose from; what is right stays the same.',
				place
			};
}
