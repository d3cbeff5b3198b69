import { type Values } from '../../values/values';

export const severities = ['none', 'watch', 'moderate', 'serious', 'critical'] as const;
export type Severity = (typeof severities)[number];

/**
 * Grade of the sign of a root across the trunk.
 * @param arcShare share of the circumference that is lain across, 0 … 1
 * @returns 1 under a third, 2 a third to a half, 3 over half
 */
export const girdlerGrade = (arcShare: number): number => (arcShare > 0.5 ? 3 : arcShare >= 1 / 3 ? 2 : 1);

/** How bad a girdler is, from its contact with the trunk; a thick one goes up one class. */
export function girdlingSeverity(
	contactShare: number,
	diameterMm: number,
	trunkDiameterMm: number,
	values: Values
): Severity {
	if (contactShare <= values['girdling.touches']) return 'none';
	const base =
		contactShare > values['girdling.criticalFrom']
			? 4
			: contactShare >= values['girdling.seriousFrom']
				? 3
				: contactShare >= values['girdling.watchBelow']
					? 2
					: 1;
	const thick = diameterMm > values['girdling.thickShareOfTrunk'] * trunkDiameterMm ? 1 : 0;
	return severities[Math.min(4, base + thick)] ?? 'critical';
}
