import { z } from 'zod';
import { wordsOf } from '../../vocabulary/words-of';
import type { Values } from '../../values/values';

export const ballSchoolNames = {
	field: 'field: by the trunk’s base',
	nursery: 'nursery table: by caliper'
};
export type BallSchool = keyof typeof ballSchoolNames;
export const ballSchools = wordsOf(ballSchoolNames);
/** What "five to six trunks" is read as. */
export const ballReadings = ['across', 'each-side'] as const;
export type BallReading = (typeof ballReadings)[number];

export const ballSizeOutput = z.object({
	leastDiameterMm: z.number(),
	mostDiameterMm: z.number(),
	depthMm: z.number().describe('Least depth for the middle of the two'),
	secondRingMm: z
		.number()
		.describe('Outside diameter of the second ring, dug for room to cut under and lever'),
	inTable: z.boolean().describe('False where the table ends and its line was drawn on')
});
export type BallSize = z.infer<typeof ballSizeOutput>;

/** Caliper and ball in inches. @see ANSI Z60.1 (from memory) */
const nurseryRows = [
	[1, 16],
	[2, 24],
	[3, 32],
	[4, 42]
] as const;
const INCH_MM = 25.4;

/**
 * Least depth of a ball of a diameter: three quarters under 20 in, two thirds to 30 in, three fifths above.
 * @see ANSI Z60.1 (from memory)
 */
export function ballDepthMm(diameterMm: number): number {
	const inches = diameterMm / INCH_MM;
	return diameterMm * (inches < 20 ? 0.75 : inches <= 30 ? 2 / 3 : 0.6);
}

/**
 * Ball to dig. Field collectors: five to six times the base of the trunk [common practice, no source], read as across the
 * ball or as clear of the trunk on each side. Nursery: table of caliper and ball, with straight lines between its rows.
 * @param trunkDiameterMm base of the trunk for the field, caliper for the table
 * @example caliper 2 in → ball 24 in
 */
export function ballSize(
	trunkDiameterMm: number,
	school: BallSchool,
	reading: BallReading,
	values: Values
): BallSize {
	const ring = 2 * values['lifting.second-ring-mm'];
	if (school === 'field') {
		const across = (times: number): number =>
			reading === 'across' ? times * trunkDiameterMm : trunkDiameterMm * (1 + 2 * times);
		const [least, most] = [across(values['lifting.trunks-least']), across(values['lifting.trunks-most'])];
		return {
			leastDiameterMm: least,
			mostDiameterMm: most,
			depthMm: ballDepthMm((least + most) / 2),
			secondRingMm: most + ring,
			inTable: true
		};
	}
	const caliper = trunkDiameterMm / INCH_MM;
	const upper = Math.max(
		1,
		nurseryRows.findIndex(([inches]) => inches >= caliper)
	);
	const at = caliper > 4 ? nurseryRows.length - 1 : upper;
	const [low, high] = [nurseryRows[at - 1] ?? [1, 16], nurseryRows[at] ?? [4, 42]];
	const inches = low[1] + ((caliper - low[0]) / (high[0] - low[0])) * (high[1] - low[1]);
	const diameterMm = Math.max(inches, caliper < 1 ? 8 : 16) * INCH_MM;
	return {
		leastDiameterMm: diameterMm,
		mostDiameterMm: diameterMm,
		depthMm: ballDepthMm(diameterMm),
		secondRingMm: diameterMm + ring,
		inTable: caliper >= 1 && caliper <= 4
	};
}
