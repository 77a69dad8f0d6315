import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { DrawnPicture, DrawnPictures } from '$core/paper/word/pictures';

/** The media type of drawings of lines. */
export const drawingType = 'image/svg+xml';

/** A drawing is made this wide at the most, in points: as sharp as paper shows it. */
const widest = 1400;
/** What is longer than that is not drawn, in bytes. */
const mostBytes = 2 * 1024 * 1024;
const font = '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next';

/** What draws, loaded where something is drawn, which is seldom. */
async function load() {
	const find = createRequire(import.meta.url);
	const [{ initWasm, Resvg }, { default: decompress }] = await Promise.all([
		import('@resvg/resvg-wasm'),
		import('woff2-encoder/decompress')
	]);
	await initWasm(readFile(find.resolve('@resvg/resvg-wasm/index_bg.wasm')));
	const fontBuffers = await Promise.all(
		['latin', 'latin-ext'].map(async (letters) =>
			Uint8Array.from(await decompress(await readFile(find.resolve(`${font}-${letters}-wght-normal.woff2`))))
		)
	);
	return { Resvg, fontBuffers };
}
let loaded: ReturnType<typeof load> | undefined;

/** A drawing as points, in its own size and on white; null where it is none, or too long. Nothing outside of it is fetched. */
async function drawn(bytes: Uint8Array): Promise<DrawnPicture | null> {
	if (bytes.length > mostBytes) return null;
	loaded ??= load();
	const { Resvg, fontBuffers } = await loaded;
	const family = 'Atkinson Hyperlegible Next';
	try {
		const text = new TextDecoder().decode(bytes);
		const options = { font: { fontBuffers, defaultFontFamily: family, sansSerifFamily: family }, background: 'white' };
		const own = new Resvg(text, options);
		const { width, height } = own;
		if (!(width > 0 && height > 0 && width < 20_000 && height < 20_000)) return null;
		const wide = Math.round(Math.min(widest, width * 2, (widest * width) / height));
		const picture = new Resvg(text, { ...options, fitTo: { mode: 'width', value: Math.max(1, wide) } });
		return { png: picture.render().asPng(), width, height };
	} catch {
		return null;
	}
}

/** Those of the pictures, by their hashes, that are drawings, as points. */
export async function drawnPictures(
	pictures: ReadonlyMap<string, Uint8Array>,
	drawings: Iterable<string>
): Promise<DrawnPictures> {
	const found = new Map<string, DrawnPicture>();
	for (const hash of drawings) {
		const bytes = pictures.get(hash);
		const picture = bytes ? await drawn(bytes) : null;
		if (picture) found.set(hash, picture);
	}
	return (hash) => found.get(hash);
}
