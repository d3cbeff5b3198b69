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
	buriedMm: measure(0, 1500, 'mm').default(0).describe('Depth of soil or mulch above the flare'),
	heaped: z.boolean().default(false),
	rootsAboveFlare: z.boolean().default(false),
	across: z
		.array(
			z.strictObject({
				fromDeg: measure(0, 360, '°'),
				toDeg: measure(0, 360, '°').describe('Clockwise from the first; the smaller may come last'),
				diameterMm: measure(1, 1500, 'mm')
			})
		)
		.max(20, { error: 'must be at most 20 roots' })
		.default([])
		.describe('Roots that lie across the trunk, as rough arcs')
});
export type CollarData = z.infer<typeof collarData>;

export const collarOutput = z.object({
	arcShare: z
		.number()
		.describe("Share of the trunk's circumference that roots lie across, overlaps counted once"),
	severity: z.enum(severities),
	girdlerGrade: z.number(),
	flareGrade: z.number()
});
export type CollarResult = z.infer<typeof collarOutput>;

/**
 * What the collar shows before any mapping: flare, burial, and how much of the trunk is lain across.
 * @param trunkDiameterMm for the severity of thick girdlers
 */
export function judgeCollar(collar: CollarData, trunkDiameterMm: number, values: Values): CollarResult {
	const arcShare = arcCover(collar.across);
	const thickest = collar.across.reduce((most, root) => Math.max(most, root.diameterMm), 0);
	const severity =
		collar.across.length > 0 ? girdlingSeverity(arcShare, thickest, trunkDiameterMm, values) : severities[0];
	return {
		arcShare,
		severity,
		girdlerGrade: collar.across.length === 0 ? 0 : girdlerGrade(arcShare),
		flareGrade:
			collar.flare === 'one-side'
				? 1
				: // A flare that was dug for was not seen before.
					collar.flare === 'none' || collar.buriedMm >= values['measuring.buried']
					? 2
					: 0
	};
}
