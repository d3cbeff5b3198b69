import { z } from 'zod';
import { searchable } from '../text/search';
import { measure, shortText } from './fields';

/** A town from whose position the seasons of a place are reckoned. */
export const townSchema = z.strictObject({
	name: shortText(120),
	/** Two letters of its country, ISO 3166-1. */
	country: z.string().regex(/^[A-Z]{2}$/),
	latitudeDeg: measure(-66, 66, '°'),
	longitudeDeg: measure(-180, 180, '°'),
	elevationM: measure(-400, 5000, 'm'),
	people: z.number().int().nonnegative(),
	/** Time zone by its IANA name. */
	zone: z.string()
});
export type Town = z.infer<typeof townSchema>;

/** Degrees as they stand in an address; nothing is no number. */
const degrees = (most: number) =>
	z
		.string()
		.trim()
		.min(1)
		.pipe(z.coerce.number())
		.pipe(measure(-most, most, '°'));

/** Towns are asked for by a beginning of their name, by a position, or by a time zone. */
export const townQuery = z.union(
	[
		z.strictObject({ name: shortText(120) }),
		z.strictObject({
			latitude: degrees(90),
			longitude: degrees(180)
		}),
		z.strictObject({ zone: shortText(60) })
	],
	{ error: 'must give a name, a latitude and longitude, or a time zone' }
);

const EARTH_RADIUS_KM = 6371.0088;

/** Way over the ground between two positions in degrees, km. @see the haversine formula, Sinnott 1984, Sky and Telescope 68 */
export function distanceKm(
	a: { latitudeDeg: number; longitudeDeg: number },
	b: { latitudeDeg: number; longitudeDeg: number }
): number {
	const rad = Math.PI / 180;
	const north = ((b.latitudeDeg - a.latitudeDeg) * rad) / 2;
	const east = ((b.longitudeDeg - a.longitudeDeg) * rad) / 2;
	const chord =
		Math.sin(north) ** 2 +
		Math.cos(a.latitudeDeg * rad) * Math.cos(b.latitudeDeg * rad) * Math.sin(east) ** 2;
	return 2 * EARTH_RADIUS_KM * Math.asin(Math.min(1, Math.sqrt(chord)));
}

/** A town with all it is called by, as it is searched. */
export interface ListedTown {
	town: Town;
	/** Its names, searchable, each begun by `|`. */
	names: string;
}

/**
 * Towns one of whose names begins like that, those called just so first, then the larger.
 * @param most how many at most
 */
export function townsCalled(typed: string, list: readonly ListedTown[], most: number): Town[] {
	// What follows a comma is a country or county, which the list shows itself.
	const wanted = searchable(typed.split(',')[0] ?? '').trim();
	if (wanted === '') return [];
	return list
		.filter(({ names }) => names.includes(`|${wanted}`))
		.sort((a, b) => {
			const whole = (one: ListedTown): number => Number(`${one.names}|`.includes(`|${wanted}|`));
			// What people there call it themselves goes before what others call it.
			const own = ({ town }: ListedTown): number => Number(searchable(town.name).startsWith(wanted));
			return whole(b) - whole(a) || own(b) - own(a) || b.town.people - a.town.people;
		})
		.slice(0, most)
		.map(({ town }) => town);
}

/** The town nearest to a position, and how far it is; null from an empty list. */
export function nearestTown(
	at: { latitudeDeg: number; longitudeDeg: number },
	list: readonly ListedTown[]
): { town: Town; km: number } | null {
	let nearest: { town: Town; km: number } | null = null;
	for (const { town } of list) {
		const km = distanceKm(at, town);
		if (!nearest || km < nearest.km) nearest = { town, km };
	}
	return nearest;
}

/** The largest town of a time zone: a first guess of where somebody is; null for a zone without one. */
export function townOfZone(zone: string, list: readonly ListedTown[]): Town | null {
	let largest: Town | null = null;
	for (const { town } of list)
		if (town.zone === zone && town.people > (largest?.people ?? -1)) largest = town;
	return largest;
}
