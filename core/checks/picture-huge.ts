import type { Attachment } from '../model/question';
import type { OneCheck } from './check';

/** More than this is more than any screen shows: bytes, and pixels of the longer side. */
const mostBytes = 1024 * 1024;
const mostPixels = 2500;

/** Whether a picture is larger than any screen needs it. */
export const isHuge = ({ mediaType, bytes = 0, width = 0, height = 0 }: Attachment): boolean =>
	mediaType.startsWith('image/') &&
	(bytes > mostBytes || (mediaType !== 'image/svg+xml' && Math.max(width, height) > mostPixels));

const sizeOf = ({ bytes = 0, width, height }: Attachment) =>
	[
		...(bytes ? [`${(bytes / mostBytes).toFixed(1)} MB`] : []),
		...(width && height ? [`${width} by ${height} pixels`] : [])
	].join(', ');

/** A picture is far larger than a screen shows it. */
export const pictureHuge: OneCheck = {
	id: 'picture-huge',
	version: 1,
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
	}
};
