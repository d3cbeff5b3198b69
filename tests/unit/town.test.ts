import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findBy, findNear, searchable } from '$core/text/search';
import {
	distanceKm,
	nearestTown,
	townOfZone,
	townsCalled,
	type ListedTown,
	type Town
} from '$core/vocabulary/town';
import { groupNames } from '$core/vocabulary/kind';
import { kindSaid } from '$core/vocabulary/kind-names';
import { shippedKinds } from '$core/vocabulary/shipped';
import { defaultValues } from '$core/values/values';
import { PlacePosition, townLabel } from '$views/yard/place-position.svelte';

const town = (name: string, latitudeDeg: number, longitudeDeg: number, change: Partial<Town> = {}): Town => ({
	name,
	country: 'DE',
	latitudeDeg,
	longitudeDeg,
	elevationM: 40,
	people: 20_000,
	zone: 'Europe/Berlin',
	...change
});
const listed = (one: Town, ...others: string[]): ListedTown => ({
	town: one,
	names: `|${[one.name, ...others].map(searchable).join('|')}`
});
const muenster = town('Münster', 51.96, 7.63, { people: 270_000, elevationM: 60 });
const munster = town('Munster', 52.98, 10.09, { people: 16_000 });
const munsterlingen = town('Munsterlingen', 47.6, 9.2, { people: 400_000 });
const list = [
	listed(munster),
	listed(munsterlingen),
	listed(muenster, 'Monasterium'),
	listed(town('Bad Neu', 50, 8))
];

describe('the way between two towns', () => {
	it('is that of the sphere: a degree of latitude 111.195 km, Berlin to Paris about 878 km', () => {
		// 6371.0088 km × π / 180; city centres from memory, rounded.
		expect(distanceKm(town('a', 0, 0), town('b', 1, 0))).toBeCloseTo(111.195, 2);
		expect(distanceKm(town('a', 52.52, 13.405), town('b', 48.857, 2.352))).toBeGreaterThan(873);
		expect(distanceKm(town('a', 52.52, 13.405), town('b', 48.857, 2.352))).toBeLessThan(883);
	});
	it('is the same both ways, never more than half the round, and nothing to itself', () => {
		const at = fc.record({
			latitudeDeg: fc.double({ min: -90, max: 90, noNaN: true }),
			longitudeDeg: fc.double({ min: -180, max: 180, noNaN: true })
		});
		fc.assert(
			fc.property(at, at, (a, b) => {
				const km = distanceKm(a, b);
				expect(km).toBeCloseTo(distanceKm(b, a), 6);
				expect(km).toBeGreaterThanOrEqual(0);
				expect(km).toBeLessThanOrEqual(Math.PI * 6371.01);
				expect(distanceKm(a, a)).toBeCloseTo(0, 6);
			})
		);
	});
});

describe('a town', () => {
	it('is found by the beginning of any of its names, accents or none, itself first and then by people', () => {
		expect(townsCalled('munster', list, 5).map((one) => one.name)).toEqual([
			'Münster',
			'Munster',
			'Munsterlingen'
		]);
		expect(townsCalled('MONAST', list, 5)).toEqual([muenster]);
		const called = [listed(town('Far', 1, 1, { people: 9_000_000 }), 'Munsa'), ...list];
		expect(townsCalled('muns', called, 5).at(-1)?.name).toBe('Far');
		expect(townsCalled('Monasterium, Germany', list, 5)).toEqual([muenster]);
		expect(townsCalled('neu', list, 5)).toEqual([]);
		expect(townsCalled('munster', list, 1)).toHaveLength(1);
		expect(townsCalled('  ', list, 5)).toEqual([]);
	});
	it('is the nearest of a position, and the largest of its zone', () => {
		expect(nearestTown({ latitudeDeg: 52.9, longitudeDeg: 10 }, list)?.town).toBe(munster);
		expect(nearestTown({ latitudeDeg: 0, longitudeDeg: 0 }, [])).toBeNull();
		expect(townOfZone('Europe/Berlin', list)).toBe(munsterlingen);
		expect(townOfZone('Pacific/Auckland', list)).toBeNull();
	});
});

describe('one of a long list', () => {
	const kinds = ['Beech (Fagus)', 'Southern beech (Nothofagus)', 'Pine (Pinus)', 'Épicéa'];
	const found = (typed: string) => findBy(typed, kinds, (one) => one);
	it('finds a word of two parts by its whole and by either part', () => {
		const tags = ['H-03 Hornbeam', 'H-00 Reference', 'P-09 Pine'];
		const of = (typed: string) => findBy(typed, tags, (one) => one);
		expect(of('h-03')).toEqual(['H-03 Hornbeam']);
		expect(of('03')).toEqual(['H-03 Hornbeam']);
		expect(of('p-09 pi')).toEqual(['P-09 Pine']);
		expect(of('h-')).toEqual(['H-03 Hornbeam', 'H-00 Reference']);
		expect(of('-03')).toEqual([]);
	});
	it('is found by the beginning of each word; what begins with all of it stands first', () => {
		expect(found('beech')).toEqual(['Beech (Fagus)', 'Southern beech (Nothofagus)']);
		expect(found('beech south')).toEqual(['Southern beech (Nothofagus)']);
		expect(found('fagus')).toEqual(['Beech (Fagus)']);
		expect(found('epi')).toEqual(['Épicéa']);
		expect(found('agus')).toEqual([]);
		expect(found('')).toEqual(kinds);
	});
});

describe('a kind as a practitioner types it', () => {
	const said = (kind: (typeof shippedKinds)[number]): string => kindSaid(kind, groupNames[kind.group]);
	it.each([
		['Chinese elm', 'Ulmus'],
		['Japanese maple', 'Acer'],
		['linden', 'Tilia'],
		['scots pine', 'Pinus'],
		['mountain ash', 'Sorbus'],
		['satsuki', 'Rhododendron'],
		['crab apple', 'Malus']
	])('%s is %s', (typed, genus) => {
		expect(findBy(typed, shippedKinds, said)[0]?.genus).toBe(genus);
	});
	it.each([
		['Ulmus parvifolia', 'Ulmus'],
		['Pinus thunbergii', 'Pinus'],
		['hornbeem', 'Carpinus'],
		['Acer palmatum Deshojo', 'Acer'],
		['rododendron', 'Rhododendron'],
		['wild privet', 'Ligustrum']
	])('%s is not there by that name, and %s is near', (typed, genus) => {
		expect(findBy(typed, shippedKinds, said)).toEqual([]);
		expect(findNear(typed, shippedKinds, said)[0]?.genus).toBe(genus);
	});
	it('what is near nothing finds nothing; a short word is not read for another', () => {
		expect(findNear('xylophone', shippedKinds, said)).toEqual([]);
		expect(findNear('bax', ['Box', 'Bay'], (one) => one)).toEqual([]);
		expect(findNear('of', ['Tree of heaven'], (one) => one)).toEqual([]);
		// Six letters may have one wrong, eight two.
		expect(findNear('willou', ['Willow'], (one) => one)).toEqual(['Willow']);
		expect(findNear('wilaou', ['Willow'], (one) => one)).toEqual([]);
		expect(findNear('hirnbaem', ['Hornbeam'], (one) => one)).toEqual([]);
		expect(findNear('hornbaam', ['Hornbeam'], (one) => one)).toEqual(['Hornbeam']);
		expect(findNear('hornbium', ['Hornbeam'], (one) => one)).toEqual(['Hornbeam']);
	});
	it('the more of the words it has, the higher it stands', () => {
		const list = ['Ash', 'Mountain pine', 'Mountain ash tree'];
		expect(findNear('common mountain ash', list, (one) => one)).toEqual([
			'Mountain ash tree',
			'Ash',
			'Mountain pine'
		]);
	});
});

describe('where a place lies', () => {
	const begun = (
		answers: Record<string, Town[]>,
		begin: ConstructorParameters<typeof PlacePosition>[0] = null
	) => new PlacePosition(begin, (query) => Promise.resolve(answers[query.split('=')[0] ?? ''] ?? []), 30);
	it('is first guessed from the time zone, and called a guess', async () => {
		const position = begun({ zone: [muenster] });
		await position.guess('Europe/Berlin');
		expect([position.latitude, position.longitude, position.elevationM]).toEqual(['51.96', '7.63', 60]);
		expect(position.said).toMatch(/^Only guessed .*Münster, Germany/);
	});
	it('what was typed or kept is never overwritten by a guess', async () => {
		const typed = begun({ zone: [muenster] });
		typed.type({ latitude: '12' });
		await typed.guess('Europe/Berlin');
		expect(typed.latitude).toBe('12');
		expect(typed.said).toBe('');
		const kept = begun(
			{ zone: [muenster] },
			{ position: { latitudeDeg: 50.123, longitudeDeg: null, elevationM: 120 }, from: 'kept' }
		);
		await kept.guess('Europe/Berlin');
		expect([kept.latitude, kept.longitude, kept.elevationM]).toEqual(['50.12', '', 120]);
	});
	it('is that of a town that was chosen', async () => {
		const position = begun({ name: [munster, muenster] });
		await position.search('m');
		expect(position.found).toEqual([]);
		await position.search('mun');
		position.take(townLabel(muenster));
		expect([position.latitude, position.elevationM, position.from]).toEqual(['51.96', 60, 'town']);
		position.take('no such town');
		expect(position.latitude).toBe('51.96');
	});
	it('is where the machine is, its height from the town only where one is near', async () => {
		const near = begun({ latitude: [muenster] });
		await near.here(51.9, 7.6, null);
		expect([near.latitude, near.elevationM]).toEqual(['51.9', 60]);
		expect(near.said).toMatch(/height of Münster, Germany, the nearest town/);
		await near.here(51.9, 7.6, 83.4);
		expect(near.elevationM).toBe(83);
		expect(near.said).toBe('Position and height of this machine.');
		const far = begun({ latitude: [muenster] });
		await far.here(54, 7.6, null);
		expect(far.elevationM).toBeNull();
		expect(far.said).toMatch(/does not know its height/);
	});
	it('an answer that comes late does not overtake one asked since', async () => {
		const waiting: ((towns: Town[]) => void)[] = [];
		const position = new PlacePosition(null, () => new Promise((answer) => waiting.push(answer)), 30);
		const first = position.search('mun');
		const second = position.search('munster');
		waiting[1]?.([munster]);
		waiting[0]?.([munsterlingen]);
		await Promise.all([first, second]);
		expect(position.found).toEqual([munster]);
	});
});

describe('the months of a position', () => {
	const bench = {
		latitudeDeg: 40,
		longitudeDeg: -105,
		elevationM: 1600,
		coldestMonthC: 1,
		warmestMonthC: 23
	};
	const beside = () =>
		new PlacePosition({ position: bench, from: 'yard' }, () => Promise.resolve([muenster]), 30);
	it('come along from a place beside it, and go with the position', async () => {
		const position = beside();
		expect([position.coldestMonthC, position.warmestMonthC]).toEqual([1, 23]);
		await position.search('munster');
		position.take(townLabel(muenster));
		expect([position.coldestMonthC, position.warmestMonthC]).toEqual([null, null]);
		const here = beside();
		await here.here(52, 7.6, null);
		expect(here.warmestMonthC).toBeNull();
	});
	it('are guessed as long as a latitude is known, colder the higher', () => {
		const position = beside();
		const high = position.guessed(defaultValues);
		position.type({ elevationM: 600 });
		const low = position.guessed(defaultValues);
		expect((low?.warmestC ?? 0) - (high?.warmestC ?? 0)).toBeCloseTo(6.5, 9);
		position.type({ elevationM: null, latitude: '0' });
		expect(position.guessed(defaultValues)).toEqual({ coldestC: 27, warmestC: 27 });
		for (const latitude of ['', 'north', '91']) {
			position.type({ latitude });
			expect(position.guessed(defaultValues)).toBeNull();
		}
	});
});
