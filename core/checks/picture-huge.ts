import type { Attachment } from '../model/question';
import type { Question } from '../kinds';
import type { FileWish, OneCheck } from './check';
import { withGranted } from './file-wishes';

/** More than this is more than any screen shows: bytes, and pixels of the longer side. */
const mostBytes = 1024 * 1024;
const mostPixels = 2500;

/** Whether a picture is larger than any screen needs it. */
export const isHuge = ({ mediaType, bytes = 0, width = 0, height = 0 }: Attachment): boolean =>
	mediaType.startsWith('image/') &&
	(bytes > mostBytes || (mediaType !== 'image/svg+xml' && Math.max(width, height) > mostPixels));

const sizeOf = ({ bytes = 0, width, height }: Attachment) =>
	[
		...(bytes >= mostBytes / 10 ? [`${(bytes / mostBytes).toFixed(1)} MB`] : []),
		...(width && height ? [`${width} by ${height} pixels`] : [])
	].join(', ');

/** Types of pictures that are made of pixels, and of which a smaller one can be made. */
const ofPixels = new Set(['image/png', 'image/jpeg', 'image/bmp']);

/** The huge pictures of which smaller ones can be made; one on which places are marked by its pixels stays as it is. */
function wishes(question: Question): FileWish[] {
	const marked = 'picture' in question ? question.picture.name : null;
	return question.attachments
		.filter((file) => isHuge(file) && !file.missing && ofPixels.has(file.mediaType) && file.name !== marked)
		.map((attachment) => ({ wants: 'smaller', attachment }));
}

/** A picture is far larger than a screen shows it. */
export const pictureHuge: OneCheck = {
	id: 'picture-huge',
	version: 2,
	scope: 'one',
	title: 'Picture that is very large',
	short: 'huge picture',
	severity: 'untidy',
	why: 'Every student waits for it, on a slow connection for minutes, and none sees more of it than of a smaller one.',
	find(question) {
		const huge = question.attachments.filter(isHuge);
		return huge.length
			? [
					{
						message: `${huge.map((file) => `“${file.name}” has ${sizeOf(file)}`).join('; ')}. Put a smaller one in its place.`,
						words: huge.map(({ name }) => name)
					}
				]
			: [];
	},
	mend: {
		title: 'Put a smaller picture in its place, of at most 2,000 pixels and 1 MB',
		fits: (question) => wishes(question).length > 0,
		wishes,
		apply: (question, tools) => withGranted(question, wishes(question), tools)
	}
};
