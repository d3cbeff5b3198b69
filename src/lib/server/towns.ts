import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { searchable } from '../core/text/search';
import { townSchema, type ListedTown } from '../core/vocabulary/town';

/** Columns of the list of GeoNames. */
const column = {
	name: 1,
	plain: 2,
	others: 3,
	latitude: 4,
	longitude: 5,
	country: 8,
	people: 14,
	height: 16,
	zone: 17
};

let read: Promise<ListedTown[]> | undefined;

/**
 * Some 23,000 towns of more than 15,000 people with position, height and time zone, read once when they are first asked for.
 * Those beyond the circles, where the climate of the app ends, are left out.
 * @see GeoNames, geonames.org, CC BY 3.0
 */
export function towns(): Promise<ListedTown[]> {
	read ??= readFile(createRequire(import.meta.url).resolve('cities15000/cities15000.txt'), 'utf8')
		.then((text) =>
			text.split('\n').flatMap((line): ListedTown[] => {
				const cells = line.split('\t');
				const cell = (of: keyof typeof column): string => cells[column[of]] ?? '';
				const town = townSchema.safeParse({
					name: cell('name'),
					country: cell('country'),
					latitudeDeg: Number(cell('latitude') || NaN),
					longitudeDeg: Number(cell('longitude') || NaN),
					elevationM: Number(cell('height')),
					people: Number(cell('people')),
					zone: cell('zone')
				});
				if (!town.success) return [];
				const names = [cell('name'), cell('plain'), ...cell('others').split(',')].map(searchable);
				return [{ town: town.data, names: `|${[...new Set(names)].join('|')}` }];
			})
		)
		.catch((cause: unknown) => {
			// To be read again by who asks next.
			read = undefined;
			throw cause;
		});
	return read;
}
