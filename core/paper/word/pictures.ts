import type { Picture, Shape } from '../../model/pieces';
import type { Attachment } from '../../model/question';
import { escapeAttribute } from '../../xml/serialise';
import { drawnPlace, timesOnPaper } from '../places';
import { textRun, type PictureRun } from './text';

/** A picture's bytes by its hash; undefined where it is not there. */
export type PictureBytes = (hash: string) => Uint8Array | undefined;

/** A drawing of lines (SVG) as points, for programs that show no such drawings: a PNG, and the drawing's own size in pixels. */
export interface DrawnPicture {
	png: Uint8Array;
	width: number;
	height: number;
}

/** The drawings by their hashes as points; undefined for what is no drawing, or cannot be drawn. */
export type DrawnPictures = (hash: string) => DrawnPicture | undefined;

const endings: ReadonlyMap<string, string> = new Map([
	['image/png', 'png'],
	['image/jpeg', 'jpeg'],
	['image/gif', 'gif'],
	['image/bmp', 'bmp'],
	['image/svg+xml', 'svg']
]);
/** English metric units: 914,400 to the inch, 9,525 to the pixel. */
const perPixel = 9525;
const widest = 560 * perPixel;
const stroke = '<a:ln w="9525"><a:solidFill><a:srgbClr val="000000"/></a:solidFill></a:ln>';
/** Higher than that, in pixels, a picture stands below words and not among them. */
const high = 60;
const bareUri = 'http://schemas.openxmlformats.org/drawingml/2006/picture';
/** How large the round mark is in which the number of a place stands, in pixels of paper. */
const mark = 20;

/** A picture as it stands in the document: its part, its text, its size on paper, how much smaller it is there than it was. */
interface Placed {
	embed: string;
	drawing: string;
	alt: string;
	width: number;
	height: number;
	scale: number;
}

const picturePart = ({ embed, drawing, alt, width, height }: Placed, id: number) =>
	`<pic:pic><pic:nvPicPr><pic:cNvPr id="${id}" name="Picture ${id}" descr="${escapeAttribute(alt)}"/><pic:cNvPicPr/></pic:nvPicPr><pic:blipFill><a:blip r:embed="${embed}">${drawing}</a:blip><a:stretch><a:fillRect/></a:stretch></pic:blipFill><pic:spPr><a:xfrm><a:off x="0" y="0"/><a:ext cx="${width}" cy="${height}"/></a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom></pic:spPr></pic:pic>`;

const inLine = ({ alt, width, height }: Placed, id: number, uri: string, inner: string) =>
	`<w:drawing><wp:inline distT="0" distB="0" distL="0" distR="0"><wp:extent cx="${width}" cy="${height}"/><wp:docPr id="${id}" name="Picture ${id}" descr="${escapeAttribute(alt)}"/><a:graphic><a:graphicData uri="${uri}">${inner}</a:graphicData></a:graphic></wp:inline></w:drawing>`;

/** The outline of a place, and its number in a round mark at the corner of that. */
function placeParts(place: Shape, at: number, id: number, { scale, width, height }: Placed): string {
	const { outline, corner } = drawnPlace(place);
	const [size, per] = [mark * perPixel, perPixel * scale];
	const within = (middle: number, most: number) =>
		Math.round(Math.max(0, Math.min(most - size, middle * per - size / 2)));
	const point = ([x, y]: readonly number[]) => `<a:pt x="${Math.round(x! * per)}" y="${Math.round(y! * per)}"/>`;
	const drawn = outline.length
		? `<wps:wsp><wps:cNvPr id="${id}" name="Outline ${at + 1}"/><wps:cNvSpPr/><wps:spPr><a:xfrm><a:off x="0" y="0"/><a:ext cx="${width}" cy="${height}"/></a:xfrm><a:custGeom><a:avLst/><a:gdLst/><a:ahLst/><a:cxnLst/><a:rect l="0" t="0" r="r" b="b"/><a:pathLst><a:path w="${width}" h="${height}"><a:moveTo>${point(outline[0]!)}</a:moveTo>${outline
				.slice(1)
				.map((next) => `<a:lnTo>${point(next)}</a:lnTo>`)
				.join('')}<a:close/></a:path></a:pathLst></a:custGeom><a:noFill/>${stroke}</wps:spPr><wps:bodyPr/></wps:wsp>`
		: '';
	return `${drawn}<wps:wsp><wps:cNvPr id="${id + 1}" name="Place ${at + 1}"/><wps:cNvSpPr/><wps:spPr><a:xfrm><a:off x="${within(corner[0], width)}" y="${within(corner[1], height)}"/><a:ext cx="${size}" cy="${size}"/></a:xfrm><a:prstGeom prst="ellipse"><a:avLst/></a:prstGeom><a:solidFill><a:srgbClr val="FFFFFF"/></a:solidFill>${stroke}</wps:spPr><wps:txbx><w:txbxContent><w:p><w:pPr><w:spacing w:before="0" w:after="0"/><w:jc w:val="center"/></w:pPr><w:r><w:rPr><w:b/><w:color w:val="000000"/><w:sz w:val="16"/></w:rPr><w:t>${at + 1}</w:t></w:r></w:p></w:txbxContent></wps:txbx><wps:bodyPr lIns="0" tIns="0" rIns="0" bIns="0" anchor="ctr"/></wps:wsp>`;
}

/** The pictures of a document: each file once, with what a run says of it. */
export class Pictures {
	readonly files = new Map<string, Uint8Array>();
	readonly relations: string[] = [];
	readonly #known = new Map<string, string>();
	#count = 0;

	constructor(
		readonly bytesOf: PictureBytes,
		readonly drawnOf: DrawnPictures
	) {}

	/** The id of the part that holds a file; one file is one part. */
	#part(name: string, bytes: Uint8Array): string {
		let id = this.#known.get(name);
		if (id === undefined) {
			id = `pic${this.relations.length + 1}`;
			this.#known.set(name, id);
			this.files.set(`word/media/${name}`, bytes);
			this.relations.push(
				`<Relationship Id="${id}" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/image" Target="media/${name}"/>`
			);
		}
		return id;
	}

	/** A file as it is placed in the document; null where it is not there, or of a sort that no document shows. */
	#place(file: Attachment | undefined, alt: string, times: (width: number) => number = () => 1): Placed | null {
		const ending = file && endings.get(file.mediaType);
		const bytes = file?.hash ? this.bytesOf(file.hash) : undefined;
		if (!file?.hash || !ending || !bytes) return null;
		const drawn = ending === 'svg' ? this.drawnOf(file.hash) : undefined;
		if (ending === 'svg' && !drawn) return null;
		const own = this.#part(`${file.hash.slice(0, 32)}.${ending}`, bytes);
		const width = file.width ?? drawn?.width ?? 320;
		const height = file.height ?? drawn?.height ?? 200;
		const scale = Math.min(times(width), widest / (width * perPixel));
		return {
			embed: drawn ? this.#part(`${file.hash.slice(0, 32)}.png`, drawn.png) : own,
			drawing: drawn
				? `<a:extLst><a:ext uri="{96DAC541-7B7A-43D3-8B79-37D633B846F1}"><asvg:svgBlip xmlns:asvg="http://schemas.microsoft.com/office/drawing/2016/SVG/main" r:embed="${own}"/></a:ext></a:extLst>`
				: '',
			alt,
			width: Math.round(width * perPixel * scale),
			height: Math.round(height * perPixel * scale),
			scale
		};
	}

	/** What finds the pictures of a question by their names. */
	of(attachments: readonly Attachment[]): PictureRun {
		return (name, alt) => {
			const placed = this.#place(
				attachments.find((file) => file.name === name),
				alt || name
			);
			if (!placed) return { run: textRun(`[picture: ${alt || name}]`, { italic: true }), isHigh: false };
			const id = (this.#count += 1);
			return {
				run: `<w:r>${inLine(placed, id, bareUri, picturePart(placed, id))}</w:r>`,
				isHigh: placed.height > high * perPixel
			};
		};
	}

	/** A picture with the numbers of places on it: a group of shapes, or the bare picture where a program knows no groups. */
	withPlaces({ name, alt, width }: Picture, places: readonly Shape[], attachments: readonly Attachment[]): string {
		const placed = this.#place(
			attachments.find((file) => file.name === name),
			alt || name,
			timesOnPaper
		);
		if (!placed) return this.of(attachments)(name, alt).run;
		if (!places.length) {
			this.#count += 1;
			return `<w:r>${inLine(placed, this.#count, bareUri, picturePart(placed, this.#count))}</w:r>`;
		}
		const [group, own, bare] = [this.#count + 1, this.#count + 2, this.#count + 3];
		this.#count += 3 + places.length * 2;
		// places count in the picture's size as the question gives it
		const scale = width ? placed.width / perPixel / width : placed.scale;
		const marks = places.map((place, at) => placeParts(place, at, bare + 1 + at * 2, { ...placed, scale })).join('');
		const size = `<a:off x="0" y="0"/><a:ext cx="${placed.width}" cy="${placed.height}"/><a:chOff x="0" y="0"/><a:chExt cx="${placed.width}" cy="${placed.height}"/>`;
		const grouped = inLine(
			placed,
			group,
			'http://schemas.microsoft.com/office/word/2010/wordprocessingGroup',
			`<wpg:wgp><wpg:cNvGrpSpPr/><wpg:grpSpPr><a:xfrm>${size}</a:xfrm></wpg:grpSpPr>${picturePart(placed, own)}${marks}</wpg:wgp>`
		);
		const plain = inLine(placed, bare, bareUri, picturePart(placed, bare));
		return `<w:r><mc:AlternateContent><mc:Choice Requires="wpg">${grouped}</mc:Choice><mc:Fallback>${plain}</mc:Fallback></mc:AlternateContent></w:r>`;
	}
}
