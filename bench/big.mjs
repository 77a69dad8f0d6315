#!/usr/bin/env node
// node big.mjs N OUT.zip KIND      KIND = qti12 | qti21 | qti30
// Writes a package with N made-up questions. The same N and KIND give the same bytes (with the same version of node).
// Mixed kinds, a small picture in about one question of ten, 200 categories three levels deep,
// stems of 60 to 600 characters. One item a file for qti21 and qti30 (Zip64 where it is needed);
// eight object banks with nested sections for qti12. Prints a summary as JSON.
import fs from 'node:fs';
import zlib from 'node:zlib';

const [, , nArg, outPath, KIND] = process.argv;
const N = Number(nArg);
if (!Number.isInteger(N) || N < 1 || !outPath || !['qti12', 'qti21', 'qti30'].includes(KIND)) {
	console.error('usage: node big.mjs N OUT.zip qti12|qti21|qti30');
	process.exit(2);
}

// ---------- zip ----------
const TABLE = Array.from({ length: 256 }, (_, n) => {
	for (let k = 0; k < 8; k++) n = n & 1 ? 0xedb88320 ^ (n >>> 1) : n >>> 1;
	return n >>> 0;
});
const crc32 =
	zlib.crc32 ??
	((b) => {
		let c = 0xffffffff;
		for (let i = 0; i < b.length; i++) c = TABLE[(c ^ b[i]) & 255] ^ (c >>> 8);
		return (c ^ 0xffffffff) >>> 0;
	});
const DATE = ((2024 - 1980) << 9) | (3 << 5) | 1,
	TIME = 8 << 11;
const fd = fs.openSync(outPath, 'w');
let offset = 0,
	entries = 0,
	pending = [],
	pendingSize = 0;
const central = [];
function write(b) {
	pending.push(b);
	pendingSize += b.length;
	offset += b.length;
	if (pendingSize > 1 << 22) flush();
}
function flush() {
	for (let b = Buffer.concat(pending), at = 0; at < b.length;) at += fs.writeSync(fd, b, at, b.length - at);
	pending = [];
	pendingSize = 0;
}
function add(name, data, store = false) {
	const raw = Buffer.isBuffer(data) ? data : Buffer.from(data, 'utf8');
	const body = store ? raw : zlib.deflateRawSync(raw, { level: 6 });
	const nm = Buffer.from(name, 'utf8'),
		crc = crc32(raw) >>> 0,
		method = store ? 0 : 8;
	const h = Buffer.alloc(30);
	h.writeUInt32LE(0x04034b50, 0);
	h.writeUInt16LE(20, 4);
	h.writeUInt16LE(0x800, 6);
	h.writeUInt16LE(method, 8);
	h.writeUInt16LE(TIME, 10);
	h.writeUInt16LE(DATE, 12);
	h.writeUInt32LE(crc, 14);
	h.writeUInt32LE(body.length, 18);
	h.writeUInt32LE(raw.length, 22);
	h.writeUInt16LE(nm.length, 26);
	const at = offset;
	write(h);
	write(nm);
	write(body);
	const far = at >= 0xffffffff;
	const c = Buffer.alloc(46 + nm.length + (far ? 12 : 0));
	c.writeUInt32LE(0x02014b50, 0);
	c.writeUInt16LE(far ? 45 : 20, 4);
	c.writeUInt16LE(far ? 45 : 20, 6);
	c.writeUInt16LE(0x800, 8);
	c.writeUInt16LE(method, 10);
	c.writeUInt16LE(TIME, 12);
	c.writeUInt16LE(DATE, 14);
	c.writeUInt32LE(crc, 16);
	c.writeUInt32LE(body.length, 20);
	c.writeUInt32LE(raw.length, 24);
	c.writeUInt16LE(nm.length, 28);
	c.writeUInt16LE(far ? 12 : 0, 30);
	c.writeUInt32LE(far ? 0xffffffff : at, 42);
	nm.copy(c, 46);
	if (far) {
		c.writeUInt16LE(1, 46 + nm.length);
		c.writeUInt16LE(8, 48 + nm.length);
		c.writeBigUInt64LE(BigInt(at), 50 + nm.length);
	}
	central.push(c);
	entries++;
}
function finish() {
	const start = offset;
	for (const c of central) write(c);
	const size = offset - start;
	if (entries > 0xfffe || start >= 0xffffffff || size >= 0xffffffff) {
		const z = Buffer.alloc(56),
			at = offset;
		z.writeUInt32LE(0x06064b50, 0);
		z.writeBigUInt64LE(44n, 4);
		z.writeUInt16LE(45, 12);
		z.writeUInt16LE(45, 14);
		z.writeBigUInt64LE(BigInt(entries), 24);
		z.writeBigUInt64LE(BigInt(entries), 32);
		z.writeBigUInt64LE(BigInt(size), 40);
		z.writeBigUInt64LE(BigInt(start), 48);
		const l = Buffer.alloc(20);
		l.writeUInt32LE(0x07064b50, 0);
		l.writeBigUInt64LE(BigInt(at), 8);
		l.writeUInt32LE(1, 16);
		write(z);
		write(l);
	}
	const e = Buffer.alloc(22),
		n = Math.min(entries, 0xffff);
	e.writeUInt32LE(0x06054b50, 0);
	e.writeUInt16LE(n, 8);
	e.writeUInt16LE(n, 10);
	e.writeUInt32LE(Math.min(size, 0xffffffff), 12);
	e.writeUInt32LE(Math.min(start, 0xffffffff), 16);
	write(e);
	flush();
	fs.closeSync(fd);
}

// ---------- chance ----------
function rng(seed) {
	let a = seed >>> 0;
	return () => {
		a = (a + 0x6d2b79f5) >>> 0;
		let t = Math.imul(a ^ (a >>> 15), 1 | a);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
	};
}
const int = (r, lo, hi) => lo + Math.floor(r() * (hi - lo + 1));
const pick = (r, a) => a[Math.floor(r() * a.length)];
function shuffled(r, a) {
	const b = [...a];
	for (let i = b.length - 1; i > 0; i--) {
		const j = Math.floor(r() * (i + 1));
		[b[i], b[j]] = [b[j], b[i]];
	}
	return b;
}
const esc = (s) => String(s).replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

// ---------- what the questions are made of ----------
const TOP = [
	'Tides',
	'Charts',
	'Knots and rigging',
	'Radio procedure',
	'Marine weather',
	'Vessel stability',
	'Buoyage',
	'Rules of the road'
];
const MID = ['First year', 'Second year', 'Third year', 'Refresher', 'Instructors'];
const LOW = ['Words', 'Rules', 'Sums', 'Practice', 'Mixed & other'];
const CATS = [];
for (const a of TOP) for (const b of MID) for (const c of LOW) CATS.push([a, b, c]); // 200
const MC = [
	[
		'Which knot makes a fixed loop in the end of a rope?',
		'The bowline',
		'The clove hitch',
		'The reef knot',
		'The rolling hitch'
	],
	[
		'Which knot joins two ropes of unequal thickness?',
		'The sheet bend',
		'The bowline',
		'The figure of eight',
		'The clove hitch'
	],
	[
		'Which colours does a north cardinal mark show, from the top down?',
		'Black above yellow',
		'Yellow above black',
		'Red above white',
		'Green above red'
	],
	[
		'Which top mark does an isolated danger mark carry?',
		'Two black balls',
		'One red ball',
		'A yellow cross',
		'Two black cones'
	],
	['On which VHF channel is a distress call by voice made?', 'Channel 16', 'Channel 6', 'Channel 13', 'Channel 77'],
	['Which word opens an urgency call?', 'PAN-PAN', 'MAYDAY', 'SECURITE', 'ROGER'],
	[
		'What does one short blast mean between power-driven vessels in sight of one another?',
		'I am altering my course to starboard',
		'I am altering my course to port',
		'My engines are going astern',
		'I am in doubt'
	],
	[
		'From which level are charted depths measured?',
		'Chart datum',
		'Mean sea level',
		'Mean high water springs',
		'The height of the mole'
	],
	[
		'On which scale of a Mercator chart is distance measured?',
		'The latitude scale',
		'The longitude scale',
		'The compass rose',
		'The title block'
	],
	[
		'What does a slack tank do to the effective metacentric height?',
		'It makes it smaller',
		'It makes it larger',
		'It changes nothing',
		'It makes it infinite'
	],
	['What does the Beaufort scale call force 8?', 'Gale', 'Fresh breeze', 'Storm', 'Light air'],
	[
		'Which instrument measures the pressure of the air?',
		'The barometer',
		'The hygrometer',
		'The anemometer',
		'The sextant'
	],
	['Which rope material floats?', 'Polypropylene', 'Nylon', 'Polyester', 'Steel wire'],
	['What is the compass error from iron on board called?', 'Deviation', 'Variation', 'Leeway', 'Drift']
];
const TF = [
	['Spring tides occur around the new moon and the full moon.', true],
	['Neap tides have a larger range than spring tides.', false],
	['A safe water mark has red and white vertical stripes.', true],
	['A special mark is painted blue.', false],
	['One minute of latitude is about one nautical mile.', true],
	['A bowline slips when it is loaded.', false],
	['The word OVER says that the speaker waits for a reply.', true],
	['A wind that backs changes its direction clockwise.', false],
	['Weight stowed high raises the centre of gravity.', true],
	['A sternlight shows over 225 degrees.', false]
];
const MR = [
	[
		'Which of these are sidelights or a sternlight?',
		['The red light to port', 'The green light to starboard'],
		['The flare in the locker', 'The lamp at the chart table']
	],
	[
		'Which of these measure the state of the atmosphere?',
		['The barometer', 'The hygrometer'],
		['The lead line', 'The parallel rule']
	],
	[
		'Which of these are cardinal marks?',
		['The north mark', 'The west mark'],
		['The safe water mark', 'The special mark']
	],
	['Which of these ropes stretch little?', ['High-modulus polyethylene', 'Steel wire'], ['Nylon', 'Elastic cord']],
	['Which of these open a message with priority?', ['MAYDAY', 'PAN-PAN'], ['ROGER', 'WILCO']]
];
const SA = [
	[
		'What is the difference in height between high water and the next low water called?',
		['tidal range', 'range of the tide']
	],
	['Which single word ends a radio exchange when no reply is expected?', ['out']],
	['What is the horizontal movement of water caused by the tide called?', ['tidal stream', 'stream']],
	['Which word stands for the letter K in the spelling alphabet?', ['kilo']],
	['What is the height of the deck at side above the waterline called?', ['freeboard']]
];
const PAIRS = [
	[
		'Match each letter to its spelling word.',
		[
			['A', 'Alfa'],
			['D', 'Delta'],
			['G', 'Golf'],
			['M', 'Mike'],
			['S', 'Sierra'],
			['T', 'Tango']
		]
	],
	[
		'Match each cardinal mark to the way in which its cones point.',
		[
			['North', 'Both up'],
			['South', 'Both down'],
			['East', 'Away from each other'],
			['West', 'Towards each other']
		]
	],
	[
		'Match each force to its name on the Beaufort scale.',
		[
			['0', 'Calm'],
			['4', 'Moderate breeze'],
			['6', 'Strong breeze'],
			['8', 'Gale'],
			['10', 'Storm']
		]
	]
];
const WINDS = [
	'Calm',
	'Light air',
	'Light breeze',
	'Gentle breeze',
	'Moderate breeze',
	'Fresh breeze',
	'Strong breeze',
	'Near gale',
	'Gale',
	'Strong gale',
	'Storm',
	'Violent storm'
];
const ESSAY = [
	'Describe how you would take a fix from three bearings, and what you would do with a large cocked hat.',
	'Explain the difference between list and heel, with an example of each.',
	'Describe how you would prepare a small vessel for a gale at anchor.'
];
const BOATS = ['Tern', 'Plover', 'Curlew', 'Fulmar', 'Gannet', 'Dunlin', 'Petrel'];
const SCENE = [
	(r) =>
		`At ${String(int(r, 0, 23)).padStart(2, '0')}${String(int(r, 0, 59)).padStart(2, '0')} the school launch ${pick(r, BOATS)} lies at berth ${int(r, 1, 40)} in Gullhaven.`,
	(r) => `The log shows a wind of ${int(r, 2, 30)} knots and a swell of ${int(r, 1, 4)} m outside the mole.`,
	(r) =>
		`The class of ${int(r, 6, 24)} learners has read chapter ${int(r, 1, 30)} & the notes on card ${int(r, 1, 900)}.`,
	(r) =>
		`Your crew on board the ${pick(r, BOATS)} numbers ${int(r, 2, 9)}, and the passage plan has ${int(r, 3, 12)} legs.`,
	(r) => `The instructor asks you to answer without the almanac; you have ${int(r, 2, 15)} minutes.`,
	(r) => `Visibility is ${int(r, 1, 10)} nautical miles and the pressure stands at ${int(r, 985, 1030)} hPa.`,
	(r) =>
		`The harbour office has given notice number ${int(r, 100, 999)} of works < ${int(r, 50, 400)} m from the fairway.`
];
const SHARES = [
	['mc', 40],
	['tf', 15],
	['mr', 15],
	['num', 10],
	['sa', 8],
	['match', 5],
	['order', 4],
	['essay', 3]
];

function question(i) {
	const r = rng((Math.imul(i + 1, 2654435761) ^ Math.imul(N, 40503)) >>> 0);
	let roll = r() * 100,
		kind = 'mc';
	for (const [k, s] of SHARES) {
		if (roll < s) {
			kind = k;
			break;
		}
		roll -= s;
	}
	const q = {
		i,
		kind,
		image: r() < 0.1,
		cat: Math.floor((i * 200) / N),
		id: `GB${String(i + 1).padStart(6, '0')}`,
		points: pick(r, [1, 1, 1, 2, 4])
	};
	let ask;
	if (kind === 'mc') {
		const f = pick(r, MC);
		ask = f[0];
		q.options = shuffled(
			r,
			f.slice(1).map((t, k) => ({ t, ok: k === 0 }))
		);
	}
	if (kind === 'tf') {
		const f = pick(r, TF);
		ask = f[0];
		q.options = [
			{ t: 'True', ok: f[1] },
			{ t: 'False', ok: !f[1] }
		];
	}
	if (kind === 'mr') {
		const f = pick(r, MR);
		ask = f[0];
		q.options = shuffled(r, [...f[1].map((t) => ({ t, ok: true })), ...f[2].map((t) => ({ t, ok: false }))]);
		q.points = 2;
	}
	if (kind === 'sa') {
		const f = pick(r, SA);
		ask = f[0];
		q.accepted = f[1];
	}
	if (kind === 'num') {
		const t = int(r, 0, 2);
		if (t === 0) {
			const v = int(r, 4, 14),
				h = int(r, 2, 9);
			ask = `A vessel makes ${v} knots for ${h} hours. How many nautical miles does she run?`;
			q.value = v * h;
		}
		if (t === 1) {
			const d = int(r, 5, 90),
				h = int(r, 5, 55);
			ask = `The charted depth is ${(d / 10).toFixed(1)} m and the height of tide ${(h / 10).toFixed(1)} m. What is the depth of water in metres?`;
			q.value = (d + h) / 10;
		}
		if (t === 2) {
			const a = int(r, 40, 90),
				b = int(r, 2, 19);
			ask = `High water stands at ${(a / 10).toFixed(1)} m and low water at ${(b / 10).toFixed(1)} m. What is the range in metres?`;
			q.value = (a - b) / 10;
		}
		q.tol = 0.05;
	}
	if (kind === 'match') {
		const f = pick(r, PAIRS);
		ask = f[0];
		q.pairs = shuffled(r, f[1]).slice(0, 4);
		q.points = 4;
		q.right = shuffled(r, [0, 1, 2, 3]);
	}
	if (kind === 'order') {
		const from = int(r, 0, WINDS.length - 4);
		ask = 'Put these winds in order, the weakest first.';
		q.order = WINDS.slice(from, from + 4);
		q.shown = shuffled(r, [0, 1, 2, 3]);
		q.points = 1;
	}
	if (kind === 'essay') {
		ask = pick(r, ESSAY);
		q.points = 10;
	}
	const aim = 60 + Math.floor(Math.pow(r(), 1.6) * 540);
	const before = [];
	let len = ask.length;
	for (let guard = 0; guard < 40 && (len < aim || len < 60); guard++) {
		const s = pick(r, SCENE)(r);
		if (len + s.length + 1 > 600) break;
		before.push(s);
		len += s.length + 1;
	}
	q.before = before;
	q.ask = ask;
	q.title = `${CATS[q.cat][0]} ${String(i + 1).padStart(6, '0')}`;
	if (q.image) q.png = `card${String(i + 1).padStart(6, '0')}.png`;
	q.rand = r;
	return q;
}
function png(r) {
	const w = 24,
		h = 16,
		c = [int(r, 60, 250), int(r, 60, 250), int(r, 60, 250)],
		cx = int(r, 4, 20),
		cy = int(r, 4, 12),
		raw = Buffer.alloc(h * (1 + w * 3));
	for (let y = 0; y < h; y++)
		for (let x = 0; x < w; x++) {
			const p = y * (1 + w * 3) + 1 + x * 3,
				in_ = (x - cx) ** 2 + (y - cy) ** 2 < 9;
			for (let k = 0; k < 3; k++) raw[p + k] = in_ ? 20 : c[k];
		}
	const chunk = (t, d) => {
		const b = Buffer.alloc(12 + d.length);
		b.writeUInt32BE(d.length, 0);
		b.write(t, 4, 'latin1');
		d.copy(b, 8);
		b.writeUInt32BE(crc32(b.subarray(4, 8 + d.length)) >>> 0, 8 + d.length);
		return b;
	};
	const head = Buffer.alloc(13);
	head.writeUInt32BE(w, 0);
	head.writeUInt32BE(h, 4);
	head[8] = 8;
	head[9] = 2;
	return Buffer.concat([
		Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]),
		chunk('IHDR', head),
		chunk('IDAT', zlib.deflateSync(raw)),
		chunk('IEND', Buffer.alloc(0))
	]);
}

// ---------- QTI 2.1 and 3.0 ----------
const V3 = KIND === 'qti30';
const kebab = (s) => s.replace(/[A-Z]/g, (m) => '-' + m.toLowerCase());
const el = (name, attrs, inner) => {
	// a name and attributes in the 2.1 form; turned into the 3.0 form when asked
	const n = V3 ? 'qti-' + kebab(name) : name;
	let a = '';
	for (const k in attrs) if (attrs[k] !== undefined) a += ` ${V3 ? kebab(k) : k}="${esc(attrs[k])}"`;
	return inner === undefined ? `<${n}${a}/>` : `<${n}${a}>${inner}</${n}>`;
};
const TPL = (n) =>
	V3
		? `https://purl.imsglobal.org/spec/qti/v3p0/rptemplates/${n}.xml`
		: `http://www.imsglobal.org/question/qti_v2p1/rptemplates/${n}`;
const NS = V3 ? 'http://www.imsglobal.org/xsd/imsqtiasi_v3p0' : 'http://www.imsglobal.org/xsd/imsqti_v2p1';
const L = 'abcdefgh';
function item2(q) {
	const val = (v) => el('value', {}, esc(v));
	const corr = (vs) => (vs.length ? el('correctResponse', {}, vs.map(val).join('')) : '');
	const map = (es, at = { defaultValue: 0 }) =>
		'\n    ' +
		el(
			'mapping',
			at,
			es.map(([k, v, cs]) => el('mapEntry', { mapKey: k, mappedValue: v, caseSensitive: cs })).join('')
		);
	const decl = (card, bt, inner) =>
		'  ' + el('responseDeclaration', { identifier: 'RESPONSE', cardinality: card, baseType: bt }, inner) + '\n';
	const pre =
		q.before.map((s) => `    <p>${esc(s)}</p>\n`).join('') +
		(q.image ? `    <p><img src="../../images/${q.png}" alt="" width="24" height="16"/></p>\n` : '');
	const prompt = el('prompt', {}, esc(q.ask)),
		R = { responseIdentifier: 'RESPONSE' };
	let d, body, rp;
	const scored = (cond) =>
		el(
			'responseProcessing',
			{},
			el(
				'responseCondition',
				{},
				el(
					'responseIf',
					{},
					cond + el('setOutcomeValue', { identifier: 'SCORE' }, el('baseValue', { baseType: 'float' }, q.points))
				)
			)
		);
	const exact = () =>
		q.points === 1
			? el('responseProcessing', { template: TPL('match_correct') })
			: scored(el('match', {}, el('variable', { identifier: 'RESPONSE' }) + el('correct', { identifier: 'RESPONSE' })));
	const mapped = () => el('responseProcessing', { template: TPL('map_response') });
	if (q.options) {
		const good = q.options.flatMap((o, k) => (o.ok ? [L[k]] : []));
		const multi = q.kind === 'mr';
		d = decl(
			multi ? 'multiple' : 'single',
			'identifier',
			corr(good) +
				(multi
					? map(
							q.options.map((o, k) => [L[k], o.ok ? 1 : -1]),
							{ lowerBound: 0, upperBound: 2, defaultValue: 0 }
						)
					: '')
		);
		body =
			pre +
			'    ' +
			el(
				'choiceInteraction',
				{ ...R, shuffle: q.kind !== 'tf', maxChoices: multi ? 0 : 1 },
				prompt +
					q.options.map((o, k) => '\n      ' + el('simpleChoice', { identifier: L[k] }, esc(o.t))).join('') +
					'\n    '
			);
		rp = multi ? mapped() : exact();
	} else if (q.accepted) {
		d = decl('single', 'string', corr([q.accepted[0]]) + map(q.accepted.map((t) => [t, q.points, 'false'])));
		body = pre + `    <p>${esc(q.ask)}</p>\n    <p>${el('textEntryInteraction', { ...R, expectedLength: 30 })}</p>`;
		rp = mapped();
	} else if (q.kind === 'num') {
		d = decl('single', 'float', corr([q.value]));
		body = pre + `    <p>${esc(q.ask)}</p>\n    <p>${el('textEntryInteraction', { ...R, expectedLength: 8 })}</p>`;
		rp = scored(
			el(
				'equal',
				{ toleranceMode: 'absolute', tolerance: `${q.tol} ${q.tol}` },
				el('variable', { identifier: 'RESPONSE' }) + el('correct', { identifier: 'RESPONSE' })
			)
		);
	} else if (q.pairs) {
		const ps = q.pairs.map((_, k) => `L${k} R${k}`);
		d = decl('multiple', 'directedPair', corr(ps) + map(ps.map((p) => [p, 1])));
		const ch = (id, t) => el('simpleAssociableChoice', { identifier: id, matchMax: 1 }, esc(t));
		body =
			pre +
			'    ' +
			el(
				'matchInteraction',
				{ ...R, shuffle: true, maxAssociations: q.pairs.length },
				prompt +
					el('simpleMatchSet', {}, q.pairs.map((p, k) => ch('L' + k, p[0])).join('')) +
					el('simpleMatchSet', {}, q.right.map((k) => ch('R' + k, q.pairs[k][1])).join(''))
			);
		rp = mapped();
	} else if (q.order) {
		d = decl('ordered', 'identifier', corr(q.order.map((_, k) => 'o' + k)));
		body =
			pre +
			'    ' +
			el(
				'orderInteraction',
				{ ...R, shuffle: true },
				prompt + q.shown.map((k) => el('simpleChoice', { identifier: 'o' + k }, esc(q.order[k]))).join('')
			);
		rp = exact();
	} else {
		d = decl('single', 'string', '');
		body = pre + '    ' + el('extendedTextInteraction', { ...R, expectedLines: 10 }, prompt);
		rp = '';
	}
	const out = (id, v) =>
		'  ' +
		el(
			'outcomeDeclaration',
			{ identifier: id, cardinality: 'single', baseType: 'float' },
			el('defaultValue', {}, val(v))
		) +
		'\n';
	return (
		'<?xml version="1.0" encoding="UTF-8"?>\n' +
		el(
			'assessmentItem',
			{ identifier: q.id, title: q.title, adaptive: false, timeDependent: false },
			'\n' +
				d +
				out('SCORE', 0) +
				out('MAXSCORE', q.points) +
				'  ' +
				el('itemBody', {}, '\n' + body + '\n  ') +
				'\n' +
				(rp ? '  ' + rp + '\n' : '')
		).replace(' identifier=', ` xmlns="${NS}" identifier=`) +
		'\n'
	);
}
const itemPath = (q) => `items/${String(Math.floor(q.i / 1000)).padStart(3, '0')}/${q.id}.xml`;

// ---------- QTI 1.2 ----------
function item1(q) {
	const mat = (t) => `<material><mattext texttype="text/plain">${esc(t)}</mattext></material>`;
	const head = [...q.before, q.ask].join(' ');
	const top = `<material><mattext texttype="text/plain">${esc(head)}</mattext>${q.image ? `<matimage imagtype="image/png" uri="images/${q.png}"/>` : ''}</material>`;
	const label = (id, t, extra = '') => `<response_label ident="${id}"${extra}>${mat(t)}</response_label>`;
	const set = (v, act = 'Set') => `<setvar varname="SCORE" action="${act}">${v}</setvar>`;
	const cond = (test, v, act) =>
		`<respcondition${act === 'Add' ? ' continue="Yes"' : ''}><conditionvar>${test}</conditionvar>${set(v, act)}</respcondition>`;
	let resp = '',
		rules = '';
	if (q.options) {
		const multi = q.kind === 'mr';
		resp = `<response_lid ident="R" rcardinality="${multi ? 'Multiple' : 'Single'}"><render_choice shuffle="${q.kind === 'tf' ? 'No' : 'Yes'}">${q.options.map((o, k) => label(L[k], o.t)).join('')}</render_choice></response_lid>`;
		rules = multi
			? q.options.map((o, k) => cond(`<varequal respident="R">${L[k]}</varequal>`, o.ok ? 1 : -1, 'Add')).join('')
			: cond(`<varequal respident="R">${L[q.options.findIndex((o) => o.ok)]}</varequal>`, q.points);
	} else if (q.accepted) {
		resp =
			'<response_str ident="R" rcardinality="Single"><render_fib fibtype="String" rows="1" columns="30"><response_label ident="A"/></render_fib></response_str>';
		rules = q.accepted.map((t) => cond(`<varequal respident="R" case="No">${esc(t)}</varequal>`, q.points)).join('');
	} else if (q.kind === 'num') {
		resp =
			'<response_num ident="R" rcardinality="Single" numtype="Decimal"><render_fib fibtype="Decimal" rows="1" columns="8"><response_label ident="A"/></render_fib></response_num>';
		rules = cond(
			`<vargte respident="R">${(q.value - q.tol).toFixed(2)}</vargte><varlte respident="R">${(q.value + q.tol).toFixed(2)}</varlte>`,
			q.points
		);
	} else if (q.pairs) {
		const all = q.pairs.map((_, k) => 'R' + k).join(',');
		resp = `<response_grp ident="R" rcardinality="Multiple"><render_choice shuffle="Yes">${q.pairs.map((p, k) => label('L' + k, p[0], ` match_group="${all}" match_max="1"`)).join('')}${q.right.map((k) => label('R' + k, q.pairs[k][1])).join('')}</render_choice></response_grp>`;
		rules = q.pairs.map((_, k) => cond(`<varsubset respident="R">L${k},R${k}</varsubset>`, 1, 'Add')).join('');
	} else if (q.order) {
		resp = `<response_lid ident="R" rcardinality="Ordered"><render_choice shuffle="Yes">${q.shown.map((k) => label('o' + k, q.order[k])).join('')}</render_choice></response_lid>`;
		rules = cond(q.order.map((_, k) => `<varequal respident="R" index="${k + 1}">o${k}</varequal>`).join(''), q.points);
	} else
		resp =
			'<response_str ident="R" rcardinality="Single"><render_fib fibtype="String" rows="10" columns="60"><response_label ident="A"/></render_fib></response_str>';
	return `<item ident="${q.id}" title="${esc(q.title)}"><presentation>${top}${resp}</presentation><resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal" defaultval="0" minvalue="0" maxvalue="${q.points}"/></outcomes>${rules}</resprocessing></item>\n`;
}

// ---------- the package ----------
const kinds = {};
let images = 0,
	shortest = 1e9,
	longest = 0,
	stemSum = 0;
function count(q) {
	kinds[q.kind] = (kinds[q.kind] ?? 0) + 1;
	if (q.image) images++;
	const n = [...q.before, q.ask].join(' ').length;
	shortest = Math.min(shortest, n);
	longest = Math.max(longest, n);
	stemSum += n;
}
const MAN = V3 ? 'http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1' : 'http://www.imsglobal.org/xsd/imscp_v1p1';
const parts = [];
let run = '';
const put = (s) => {
	run += s;
	if (run.length > 1 << 20) {
		parts.push(Buffer.from(run, 'utf8'));
		run = '';
	}
};
put(
	`<?xml version="1.0" encoding="UTF-8"?>\n<manifest xmlns="${MAN}" xmlns:lom="http://ltsc.ieee.org/xsd/LOM" identifier="BIG-${KIND}-${N}">\n  <metadata><schema>${V3 ? 'QTI Package' : KIND === 'qti21' ? 'QTIv2.1 Package' : 'IMS Content'}</schema><schemaversion>${V3 ? '3.0.0' : KIND === 'qti21' ? '1.0.0' : '1.1.3'}</schemaversion></metadata>\n  <organizations/>\n  <resources>\n`
);
if (KIND === 'qti12') {
	const banks = TOP.map((_, t) => ({ from: Math.ceil((t * 25 * N) / 200), to: Math.ceil(((t + 1) * 25 * N) / 200) }));
	banks.forEach((b, t) => {
		if (b.to > b.from)
			put(
				`    <resource identifier="BANK${t + 1}" type="imsqti_xmlv1p1" href="bank${t + 1}.xml"><file href="bank${t + 1}.xml"/></resource>\n`
			);
	});
	put('  </resources>\n</manifest>\n');
	parts.push(Buffer.from(run, 'utf8'));
	add('imsmanifest.xml', Buffer.concat(parts));
	banks.forEach((b, t) => {
		if (b.to <= b.from) return;
		const bufs = [],
			pics = [];
		let text = `<?xml version="1.0" encoding="UTF-8"?>\n<questestinterop>\n<objectbank ident="OB${t + 1}">\n<section ident="S${t}" title="${esc(TOP[t])}">\n`,
			open = [-1, -1];
		for (let i = b.from; i < b.to; i++) {
			const q = question(i),
				mid = Math.floor(q.cat / 5),
				low = q.cat;
			if (low !== open[1]) {
				if (open[1] >= 0) text += '</section>\n';
				if (mid !== open[0]) {
					if (open[0] >= 0) text += '</section>\n';
					text += `<section ident="M${mid}" title="${esc(CATS[low][1])}">\n`;
				}
				text += `<section ident="C${low}" title="${esc(CATS[low][2])}">\n`;
				open = [mid, low];
			}
			text += item1(q);
			count(q);
			if (q.image) pics.push([`images/${q.png}`, png(q.rand)]);
			if (text.length > 1 << 20) {
				bufs.push(Buffer.from(text, 'utf8'));
				text = '';
			}
		}
		text += '</section>\n</section>\n</section>\n</objectbank>\n</questestinterop>\n';
		bufs.push(Buffer.from(text, 'utf8'));
		add(`bank${t + 1}.xml`, Buffer.concat(bufs));
		for (const [n, d] of pics) add(n, d, true);
	});
} else {
	const type = V3 ? 'imsqti_item_xmlv3p0' : 'imsqti_item_xmlv2p1';
	const lom = CATS.map(
		(c) =>
			`<metadata><lom:lom><lom:classification><lom:purpose><lom:source>LOMv1.0</lom:source><lom:value>discipline</lom:value></lom:purpose><lom:taxonPath><lom:source><lom:string language="en">Gullhaven list</lom:string></lom:source>${c.map((t) => `<lom:taxon><lom:entry><lom:string language="en">${esc(t)}</lom:string></lom:entry></lom:taxon>`).join('')}</lom:taxonPath></lom:classification></lom:lom></metadata>`
	);
	for (let i = 0; i < N; i++) {
		const q = question(i),
			p = itemPath(q);
		put(
			`    <resource identifier="R${i + 1}" type="${type}" href="${p}">${lom[q.cat]}<file href="${p}"/>${q.image ? `<file href="images/${q.png}"/>` : ''}</resource>\n`
		);
	}
	put('  </resources>\n</manifest>\n');
	parts.push(Buffer.from(run, 'utf8'));
	add('imsmanifest.xml', Buffer.concat(parts));
	for (let i = 0; i < N; i++) {
		const q = question(i);
		add(itemPath(q), item2(q));
		count(q);
		if (q.image) add(`images/${q.png}`, png(q.rand), true);
	}
}
finish();
console.log(
	JSON.stringify({
		file: outPath,
		kind: KIND,
		questions: N,
		kinds,
		images,
		categories: Math.min(N, 200),
		entries,
		stem: { shortest, longest, mean: Math.round(stemSum / N) },
		bytes: offset
	})
);
