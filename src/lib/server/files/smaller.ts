/** A picture is made so small, in pixels of its longer side and in bytes: as much as a screen shows of it. */
const mostPixels = 2000;
const mostBytes = 1024 * 1024;
/** How good a JPEG is, tried one after the other until it is small enough. */
const qualities = [85, 75, 65];
/** More pixels than that are not unpacked, since they would fill the memory. */
const mostUnpacked = 50_000_000;

const jpeg = 'image/jpeg';
type Maker = 'image/png' | typeof jpeg | 'image/bmp';
const makers = new Map<string, Maker>((['image/png', jpeg, 'image/bmp'] as const).map((type) => [type, type]));

/** A picture that was made smaller: its bytes, of the same type as before, and its size in pixels. */
export interface SmallerPicture {
	bytes: Uint8Array;
	width: number;
	height: number;
}

/** What is asked of a picture before it is made smaller. */
export interface PictureSize {
	mediaType: string;
	width?: number | undefined;
	height?: number | undefined;
}

/** The size in pixels that a picture would have at most; null for what cannot be made smaller here: drawings, films, what is too large to be unpacked. */
export function smallerSize({ mediaType, width, height }: PictureSize): { width: number; height: number } | null {
	if (!makers.has(mediaType) || !width || !height || width * height > mostUnpacked) return null;
	const share = Math.min(1, mostPixels / Math.max(width, height));
	return { width: Math.max(1, Math.round(width * share)), height: Math.max(1, Math.round(height * share)) };
}

/** A picture with at most 2,000 pixels on its longer side and at most 1 MB, of the same type; null where it cannot be read, or would not get smaller. */
export async function smallerPicture(bytes: Uint8Array, size: PictureSize): Promise<SmallerPicture | null> {
	const maker = makers.get(size.mediaType);
	if (!maker || !smallerSize(size)) return null;
	// loaded where a picture is made smaller, which is seldom
	const { Jimp } = await import('jimp');
	let picture: Awaited<ReturnType<typeof Jimp.read>>;
	try {
		picture = await Jimp.read(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
	} catch {
		// it is no picture, or one that is damaged
		return null;
	}
	for (let most = mostPixels; most >= 64; most = Math.round(most * 0.7)) {
		if (Math.max(picture.width, picture.height) > most) picture.scaleToFit({ w: most, h: most });
		for (const quality of maker === jpeg ? qualities : [100]) {
			const made = maker === jpeg ? await picture.getBuffer(maker, { quality }) : await picture.getBuffer(maker);
			if (made.length <= mostBytes && made.length < bytes.length)
				return { bytes: made, width: picture.width, height: picture.height };
		}
	}
	return null;
}
