import { Jimp } from 'jimp';
import { describe, expect, it } from 'vitest';
import { drawnPictures } from './drawings';

const svg = (inner: string, size = 'width="40" height="20"') =>
	new TextEncoder().encode(`<svg xmlns="http://www.w3.org/2000/svg" ${size}>${inner}</svg>`);
const pointsOf = async (bytes: Uint8Array) => {
	const drawn = (await drawnPictures(new Map([['a', bytes]]), ['a']))('a');
	if (!drawn) return null;
	const picture = await Jimp.read(Buffer.from(drawn.png));
	const at = (x: number, y: number) => picture.getPixelColor(x, y).toString(16).padStart(8, '0');
	return { ...drawn, at, wide: picture.width };
};

describe('a drawing of lines', () => {
	it('is made points on white, twice as fine as its own size', async () => {
		const drawn = (await pointsOf(svg('<rect width="20" height="20" fill="#ff0000"/>')))!;
		expect(drawn).toMatchObject({ width: 40, height: 20, wide: 80 });
		expect([drawn.at(10, 20), drawn.at(70, 20)]).toEqual(['ff0000ff', 'ffffffff']);
	});
	it('shows its words by a font that comes with the application', async () => {
		const drawn = (await pointsOf(svg('<text x="2" y="16" font-family="sans-serif" font-size="16">HHHH</text>')))!;
		const dark = Array.from({ length: drawn.wide }, (_, x) => drawn.at(x, 24)).filter((colour) => colour < '80000000');
		expect(dark.length).toBeGreaterThan(10);
	});
	it('is left out where it is none, or has no end', async () => {
		expect(await pointsOf(new TextEncoder().encode('no drawing'))).toBeNull();
		expect(await pointsOf(svg('', 'width="900000" height="900000"'))).toBeNull();
	});
	it('fetches nothing from outside', async () => {
		const drawn = (await pointsOf(svg('<image href="file:///etc/hostname" width="40" height="20"/>')))!;
		expect(drawn.at(40, 20)).toBe('ffffffff');
	});
});
