import type { Point2 } from './plane';

/*
 * The card that is printed and laid beside what is measured: four markers that a camera finds by itself, a ruler that proves the print,
 * and a grey patch.
 */

/** Modules along one side of a marker: six of its code, and a black one on each side. */
export const MARKER_MODULES = 8;

/** Sizes of the card, mm. */
export const card = {
	widthMm: 180,
	heightMm: 128,
	markerMm: 40,
	/** White round a marker, to the edge of the card: it is found by the step from white to black. */
	marginMm: 6,
	rulerMm: 150,
	grey: { widthMm: 60, heightMm: 24 }
} as const;

/**
 * Codes of the four markers, in the order of their names: six rows of six bits, the upper left first, 1 white.
 * @see Garrido-Jurado et al. 2016, Pattern Recognition 51, 481–491: the dictionary ARUCO_MIP_36h12, its first four
 */
export const markerCodes: readonly bigint[] = [0xd2b63a09dn, 0x6001134e5n, 0x1206fbe72n, 0xff8ad6cb4n];

/** Upper left corner of each marker on the card, mm: upper left, upper right, lower right, lower left. */
const markerAt: readonly Point2[] = ((): Point2[] => {
	const [left, top] = [card.marginMm, card.marginMm];
	const [right, bottom] = [
		card.widthMm - card.marginMm - card.markerMm,
		card.heightMm - card.marginMm - card.markerMm
	];
	return [
		{ x: left, y: top },
		{ x: right, y: top },
		{ x: right, y: bottom },
		{ x: left, y: bottom }
	];
})();

/** Corners of a square or rectangle, clockwise from its upper left. */
const cornersOf = ({ x, y }: Point2, widthMm: number, heightMm: number): Point2[] => [
	{ x, y },
	{ x: x + widthMm, y },
	{ x: x + widthMm, y: y + heightMm },
	{ x, y: y + heightMm }
];

/**
 * Corners of a marker on the card, clockwise from the upper left of its code, mm.
 * @param id 0 … 3
 * @returns four points, none where there is no such marker
 */
export function markerCorners(id: number): Point2[] {
	const at = markerAt[id];
	return at ? cornersOf(at, card.markerMm, card.markerMm) : [];
}

/** The four corners of the card, mm. */
export const cardCorners = (): Point2[] => cornersOf({ x: 0, y: 0 }, card.widthMm, card.heightMm);

/**
 * Whether a module of a marker is white.
 * @param id which of the four, 0 … 3
 * @param column from the left, 0 … 7
 * @param row from above, 0 … 7
 */
export function moduleIsWhite(id: number, column: number, row: number): boolean {
	const [x, y] = [column - 1, row - 1];
	const bits = MARKER_MODULES - 2;
	if (x < 0 || y < 0 || x >= bits || y >= bits) return false;
	return (((markerCodes[id] ?? 0n) >> BigInt(bits * bits - 1 - (y * bits + x))) & 1n) === 1n;
}

/** Where the ruler lies between the upper and the lower markers, and the grey patch between the upper two, mm from above. */
const rulerY = 64;
const greyY = 12;
export const greyPatch = {
	x: (card.widthMm - card.grey.widthMm) / 2,
	y: greyY,
	...card.grey
};

/**
 * How light a point of the card is, as it is printed, without its writing.
 * @param at from its upper left corner, mm
 * @returns 0 black … 1 white, or null beside the card
 */
export function cardLightness({ x, y }: Point2): number | null {
	if (x < 0 || y < 0 || x > card.widthMm || y > card.heightMm) return null;
	for (const [id, from] of markerAt.entries()) {
		const [u, v] = [x - from.x, y - from.y];
		if (u < 0 || v < 0 || u >= card.markerMm || v >= card.markerMm) continue;
		const module = card.markerMm / MARKER_MODULES;
		return moduleIsWhite(id, Math.floor(u / module), Math.floor(v / module)) ? 1 : 0;
	}
	const { x: left, y: top, widthMm, heightMm } = greyPatch;
	return x >= left && x < left + widthMm && y >= top && y < top + heightMm ? GREY : 1;
}
const GREY = 0.5;

/** The card as a drawing, a millimetre to a unit: what is printed, and what the page shows of it. */
export function cardSvg(): string {
	const rect = (x: number, y: number, width: number, height: number, fill: string): string =>
		`<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="${fill}"/>`;
	const module = card.markerMm / MARKER_MODULES;
	const modules = Array.from({ length: MARKER_MODULES }, (_, i) => i);
	// White modules as runs along and down, so that no seam shows between two of them.
	const runs = (isWhite: (i: number) => boolean): { from: number; length: number }[] =>
		modules
			.filter((i) => isWhite(i) && !isWhite(i - 1))
			.map((from) => ({
				from,
				length: modules.filter((i) => i >= from && modules.slice(from, i + 1).every(isWhite)).length
			}));
	const markers = markerAt.flatMap(({ x, y }, id) => [
		rect(x, y, card.markerMm, card.markerMm, '#000000'),
		...modules.flatMap((row) =>
			runs((i) => moduleIsWhite(id, i, row)).map(({ from, length }) =>
				rect(x + from * module, y + row * module, length * module, module, '#ffffff')
			)
		),
		...modules.flatMap((column) =>
			runs((i) => moduleIsWhite(id, column, i)).map(({ from, length }) =>
				rect(x + column * module, y + from * module, module, length * module, '#ffffff')
			)
		)
	]);
	const rulerX = (card.widthMm - card.rulerMm) / 2;
	const line = (x1: number, y1: number, x2: number, y2: number): string =>
		`<line x1="${x1}" y1="${y1}" x2="${x2}" y2="${y2}" stroke="#000000" stroke-width="0.2"/>`;
	const text = (x: number, y: number, words: string, size: number): string =>
		`<text x="${x}" y="${y}" font-size="${size}" text-anchor="middle" fill="#000000">${words}</text>`;
	const ticks = Array.from({ length: card.rulerMm + 1 }, (_, mm) =>
		line(rulerX + mm, rulerY, rulerX + mm, rulerY - (mm % 10 === 0 ? 4 : mm % 5 === 0 ? 3 : 2))
	);
	const labels = Array.from({ length: card.rulerMm / 10 + 1 }, (_, i) => i * 10).map((mm) =>
		text(rulerX + mm, rulerY + 4, String(mm), 3)
	);
	const { x, y, widthMm, heightMm } = greyPatch;
	return [
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${card.widthMm} ${card.heightMm}" width="${card.widthMm}mm" height="${card.heightMm}mm">`,
		rect(0, 0, card.widthMm, card.heightMm, '#ffffff'),
		...markers,
		line(rulerX, rulerY, rulerX + card.rulerMm, rulerY),
		...ticks,
		...labels,
		rect(x, y, widthMm, heightMm, '#808080'),
		`<rect x="0.1" y="0.1" width="${card.widthMm - 0.2}" height="${card.heightMm - 0.2}" fill="none" stroke="#000000" stroke-width="0.2" stroke-dasharray="2 2"/>`,
		'</svg>'
	].join('');
}
