import { inverse, Matrix, solve } from 'ml-matrix';
import type { Values } from '../../values/values';
import type { Laid } from './flat';
import { seenAt, type Point2 } from './plane';
import type { Grey, Rgba } from './raster';

/** So dark that the grain of a camera drowns what it sees, of 255. */
const DARK = 16;
/** Light on a scale on which half the light is as many steps down wherever it begins: a shadow then takes alike from all colours. */
const stepsOf = Float32Array.from(
	{ length: 256 },
	(_, v) => (255 * Math.log((v + DARK) / DARK)) / Math.log((255 + DARK) / DARK)
);

/** Means and spread of some colours, on the scale of `colourAt`. */
export interface Colours {
	mean: number[];
	/** Covariance, three rows of three. */
	spread: number[][];
}

const stepAt = (value = 0): number => stepsOf[value] ?? 0;
export type Rgb = [number, number, number];

/**
 * The colour of a place on a scale on which shade takes alike from all colours.
 * @param x, y px of the picture
 * @returns red, green and blue, 0 to 255; null beyond the picture
 */
export function colourAt({ width, height, data }: Rgba, x: number, y: number): Rgb | null {
	const [u, v] = [Math.floor(x), Math.floor(y)];
	if (!(u >= 0 && v >= 0 && u < width && v < height)) return null;
	const at = 4 * (v * width + u);
	return [stepAt(data[at]), stepAt(data[at + 1]), stepAt(data[at + 2])];
}

/** Colours at some places, the few that are quite others left out: crumbs of another thing among the soil, soil beside a root. */
function coloursAt(picture: Rgba, places: readonly Point2[]): Colours | null {
	let seen = places.flatMap(({ x, y }): Rgb[] => {
		const rgb = colourAt(picture, x, y);
		return rgb ? [rgb] : [];
	});
	for (let turn = 0; ; turn++) {
		if (seen.length < 8) return null;
		const colours = coloursOf(seen);
		if (turn === 2) return colours;
		const back = inverse(
			new Matrix(colours.spread.map((row, i) => row.map((value, j) => value + (i === j ? 1 : 0))))
		).to2DArray();
		seen = seen.filter((rgb) => {
			let far = 0;
			for (let i = 0; i < 3; i++)
				for (let j = 0; j < 3; j++)
					far +=
						(back[i]?.[j] ?? 0) *
						((rgb[i] ?? 0) - (colours.mean[i] ?? 0)) *
						((rgb[j] ?? 0) - (colours.mean[j] ?? 0));
			return far < OTHER;
		});
	}
}
/** So far from the middle, squared and in deviations, a colour is another's: 5 of 100 of three normal ones. @see tables of χ², 3 degrees */
const OTHER = 7.81;

/** Mean and covariance of some colours. */
export function coloursOf(seen: readonly Rgb[]): Colours {
	const mean = [0, 0, 0];
	for (const rgb of seen) for (let i = 0; i < 3; i++) mean[i] = (mean[i] ?? 0) + (rgb[i] ?? 0) / seen.length;
	const spread = [0, 1, 2].map((i) =>
		[0, 1, 2].map(
			(j) =>
				seen.reduce(
					(sum, rgb) => sum + ((rgb[i] ?? 0) - (mean[i] ?? 0)) * ((rgb[j] ?? 0) - (mean[j] ?? 0)),
					0
				) / seen.length
		)
	);
	return { mean, spread };
}

/** Places over a ring about the middle of the trunk, px of the picture. */
export function ring({ toPx }: Pick<Laid, 'toPx'>, fromMm: number, toMm: number, count: number): Point2[] {
	// Along a spiral by the golden angle they lie evenly.
	return Array.from({ length: count }, (_, i) => {
		const far = Math.sqrt(fromMm ** 2 + ((toMm ** 2 - fromMm ** 2) * (i + 0.5)) / count);
		const turn = i * GOLDEN;
		return seenAt(toPx, { x: far * Math.cos(turn), y: far * Math.sin(turn) });
	});
}
const GOLDEN = Math.PI * (3 - Math.sqrt(5));

/** How red, green and blue make one shade, and what shade becomes the middle one. */
export interface Shading {
	weights: readonly [number, number, number];
	middle: number;
	/** How much lighter roots are than soil in it, of 255. */
	contrast: number;
}

/** Ways of colours to begin with while nobody showed a root: roots lighter or darker than soil, warmer or colder. */
const usualWays: readonly (readonly [number, number, number])[] = [
	[1, 1, 1],
	[-1, -1, -1],
	[1, 0, -1],
	[-1, 0, 1]
];

/** A way of colours as a shading in which soil varies by the same number of shades in every picture. */
function shadingAlong(way: readonly number[], soil: Colours, root: Colours | null, values: Values): Shading {
	const spread = way.reduce(
		(sum, a, i) => sum + way.reduce((more, b, j) => more + a * b * (soil.spread[i]?.[j] ?? 0), 0),
		0
	);
	const grain = values['picture.colourGrain'] * Math.hypot(...way);
	const by = values['picture.soilSpread'] / Math.hypot(Math.sqrt(Math.max(0, spread)), grain);
	const weights: Shading['weights'] = [(way[0] ?? 0) * by, (way[1] ?? 0) * by, (way[2] ?? 0) * by];
	const shadeOf = ({ mean }: Colours): number =>
		mean.reduce((sum, value, i) => sum + value * (weights[i] ?? 0), 0);
	const middle = shadeOf(soil);
	const least = values['picture.contrastLeast'] * values['picture.soilSpread'];
	return { weights, middle, contrast: Math.max(least, root ? shadeOf(root) - middle : 0) };
}

/**
 * Shadings to begin with.
 * @param soil places of the picture, px
 */
export function usualShadings(picture: Rgba, soil: readonly Point2[], values: Values): Shading[] {
	const colours = coloursAt(picture, soil);
	return colours ? usualWays.map((way) => shadingAlong(way, colours, null, values)) : [];
}

/**
 * The direction of colours in which roots and soil lie farthest apart for their spread, roots the lighter.
 * @param root, soil places of the picture, px
 * @returns null where too few of them lie in the picture
 * @see Fisher 1936, Annals of Eugenics 7, 179–188, the linear discriminant
 */
export function shadingBetween(
	picture: Rgba,
	root: readonly Point2[],
	soil: readonly Point2[],
	values: Values
): Shading | null {
	const [one, other] = [coloursAt(picture, root), coloursAt(picture, soil)];
	if (!one || !other) return null;
	const grain = values['picture.colourGrain'] ** 2;
	const spread = new Matrix(
		one.spread.map((row, i) =>
			row.map((value, j) => (value + (other.spread[i]?.[j] ?? 0)) / 2 + (i === j ? grain : 0))
		)
	);
	const between = one.mean.map((value, i) => value - (other.mean[i] ?? 0));
	return shadingAlong(solve(spread, Matrix.columnVector(between)).to1DArray(), other, one, values);
}

/** A picture in one shade, 128 the middle one. What is clear has that. */
export function shadesOf({ width, height, data }: Rgba, { weights: [r, g, b], middle }: Shading): Grey {
	const shades = new Float32Array(width * height);
	for (let i = 0; i < shades.length; i++)
		shades[i] =
			data[4 * i + 3] === 0
				? 128
				: 128 - middle + r * stepAt(data[4 * i]) + g * stepAt(data[4 * i + 1]) + b * stepAt(data[4 * i + 2]);
	return { width, height, data: shades };
}
