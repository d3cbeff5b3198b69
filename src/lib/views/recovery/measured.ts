import type { Format, StoredUnit } from '$core/text/format';
import { readingsOf, type MeasureKey, type Observation } from '$core/examine/looks/observation';

/** Something that is measured again and again, as it is drawn. */
export interface Measured {
	key: MeasureKey;
	label: string;
	/** A share between nothing and all. */
	share?: boolean;
	show: (value: number) => string;
	/** The unit it is told in, and how many of what is kept make one. */
	unit?: { name: StoredUnit; per: number };
}

/** What is charted of a tree, most telling first. */
export const measuredOf = (format: Format): Measured[] => [
	{ key: 'leafCover', label: 'Leaf cover', share: true, show: (value) => format.percent(value) },
	{
		key: 'shootExtensionMm',
		label: 'Shoots',
		show: (value) => format.measure(value, 'mm'),
		unit: { name: 'mm', per: 1 }
	},
	{
		key: 'diebackLimitMm',
		label: 'Dieback limit',
		show: (value) => format.measure(value / 1000, 'm'),
		unit: { name: 'm', per: 1000 }
	},
	{
		key: 'weightKg',
		label: 'Weight',
		show: (value) => format.measure(value, 'kg', 1),
		unit: { name: 'kg', per: 1 }
	},
	{
		key: 'woundwoodMm',
		label: 'Woundwood',
		show: (value) => format.measure(value, 'mm'),
		unit: { name: 'mm', per: 1 }
	},
	{ key: 'suckers', label: 'Suckers', show: (value) => format.number(value) }
];

/** A healthy tree to compare with. */
export interface Twin {
	name: string;
	observations: readonly Observation[];
}

/**
 * What was measured of a twin in the time that is drawn; null where there is nothing. Its weight is left out: that of another
 * pot says nothing of this one.
 */
export function twinReadings(
	twin: Twin | null,
	key: MeasureKey,
	from: string
): { name: string; readings: { on: string; value: number }[] } | null {
	if (!twin || key === 'weightKg') return null;
	const readings = readingsOf(twin.observations, key).filter((reading) => reading.on >= from);
	return readings.length > 0 ? { name: twin.name, readings } : null;
}
