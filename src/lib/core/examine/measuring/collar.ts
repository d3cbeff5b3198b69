import { z } from 'zod';
import { arcCover } from '../../maths/circular';
import { measure, oneOf } from '../../vocabulary/fields';
import { girdlerGrade, girdlingSeverity, severities } from './girdling';
import type { Values } from '../../values/values';

export const flares = ['all-round', 'one-side', 'none'] as const;
export const flareNames: Record<(typeof flares)[number], string> = {
	'all-round': 'all round',
	'one-side': 'on one side',
	none: 'none'
};

export const collarData = z.strictObject({
	flare: oneOf(flares),
	buriedMm: measure(0, 1500, 'mm')
		.nullable()
		.default(null)
		.describe('Depth of soil or mulch above the flare; null where it was not measured'),
	heaped: z
		.boolean()
		.nullable()
		.default(null)
		.describe('Soil, turf or mulch against the bark; null where nobody looked'),
	rootsAboveFlare: z
		.boolean()
		.nullable()
		.default(null)
		.describe('Roots come from the trunk above the flare; null where nobody looked'),
	across: z
		.array(
			z.strictObject({
				fromDeg: measure(0, 360, '°'),
				toDeg: measure(0, 360, '°').describe('Clockwise from the first; the smaller may come last'),
				diameterMm: measure(1, 1500, 'mm')
			})
		)
		.max(20, { error: 'must be at most 20 roots' })
		.nullable()
		.default(null)
		.describe(
			'Roots that lie across the trunk, as rough arcs; empty where there is none, null where nobody looked'
		)
});
export type CollarData = z.infer<typeof collarData>;

export const collarOutput = z.object({
	arcShare: z
		.number()
		.nullable()
		.describe(
			"Share of the trunk's circumference that roots lie across, overlaps counted once; null where nobody looked"
		),
	severity: z.enum(severities).nullable().describe('Null where nobody looked for roots across'),
	girdlerGrade: z.number().nullable().describe('Null where nobody looked for roots across'),
	flareGrade: z.number()
});
export type CollarResult = z.infer<typeof collarOutput>;

/**
 * What the collar shows before any mapping: flare, burial, and how much of the trunk is lain across.
 * @param trunkDiameterMm for the severity of thick girdlers
 */
export function judgeCollar(collar: CollarData, trunkDiameterMm: number, values: Values): CollarResult {
	return {
		...judgeAcross(collar.across, trunkDiameterMm, values),
		flareGrade:
			collar.flare === 'one-side'
				? 1
				: // A flare that was dug for was not seen before.
					collar.flare === 'none' || (collar.buriedMm ?? 0) >= values['measuring.buried']
					? 2
					: 0
	};
}

function judgeAcross(
	across: CollarData['across'],
	trunkDiameterMm: number,
	values: Values
): Omit<CollarResult, 'flareGrade'> {
	if (across === null) return { arcShare: null, severity: null, girdlerGrade: null };
	if (across.length === 0) return { arcShare: 0, severity: severities[0], girdlerGrade: 0 };
	const arcShare = arcCover(across);
	const thickest = Math.max(...across.map((root) => root.diameterMm));
	return {
		arcShare,
		severity: girdlingSeverity(arcShare, thickest, trunkDiameterMm, values),
		girdlerGrade: girdlerGrade(arcShare)
	};
}
