import { expect, it } from 'vitest';
import { placeInput, type Place, type PlaceInput } from '$core/vocabulary/place';
import type { Store } from '$lib/server/db/database';
import { places } from '$lib/server/records/records';
import { undo } from '$lib/server/records/work';
import { addPlace, changePlace } from '$lib/server/yard';
import { freshStore } from './helpers';

const months = { coldestMonthC: -2, warmestMonthC: 21 };
const none = { coldestMonthC: null, warmestMonthC: null };
const bench = (name: string, change: Partial<PlaceInput> = {}): PlaceInput =>
	placeInput.parse({ name, kind: 'open', latitudeDeg: 48, longitudeDeg: 9, elevationM: 700, ...change });
const monthsIn = async (store: Store): Promise<Record<string, (number | null)[]>> =>
	Object.fromEntries(
		(await places.list(store.db)).map((one) => [one.name, [one.coldestMonthC, one.warmestMonthC]])
	);
const called = async (store: Store, name: string): Promise<Place> => {
	const place = (await places.list(store.db)).find((one) => one.name === name);
	if (!place) throw new Error(`no place ${name}`);
	return place;
};
const change = async (store: Store, name: string, to: Partial<PlaceInput>) => {
	const { id, version, ...before } = await called(store, name);
	return changePlace(store, id, version, { ...before, ...to });
};

it('one position has one climate: typed or cleared at one place, it is so at all that lie there', async () => {
	const store = await freshStore();
	await addPlace(store, bench('Bench'));
	await addPlace(store, bench('Frame', { kind: 'cold-frame' }));
	await addPlace(store, bench('Quarry', { elevationM: 900 }));
	const { entryId, sharedWith } = await change(store, 'Bench', months);
	expect(sharedWith).toEqual(['Frame']);
	expect(await monthsIn(store)).toEqual({ Bench: [-2, 21], Frame: [-2, 21], Quarry: [null, null] });
	expect((await called(store, 'Frame')).kind).toBe('cold-frame');
	// What has nothing to do with the climate leaves the others alone.
	expect((await change(store, 'Bench', { name: 'East bench' })).sharedWith).toEqual([]);
	expect((await change(store, 'Frame', none)).sharedWith).toEqual(['East bench']);
	expect(await monthsIn(store)).toEqual({
		'East bench': [null, null],
		Frame: [null, null],
		Quarry: [null, null]
	});
	expect((await addPlace(store, bench('House', months))).sharedWith.sort()).toEqual(['East bench', 'Frame']);
	expect(entryId).not.toBe('');
});

it('is taken back at all of them together', async () => {
	const store = await freshStore();
	await addPlace(store, bench('Bench'));
	await addPlace(store, bench('Frame'));
	const { entryId } = await change(store, 'Bench', months);
	await undo(store, entryId);
	expect(await monthsIn(store)).toEqual({ Bench: [null, null], Frame: [null, null] });
});

it('a place that moves away, or begins empty, clears nothing where it comes to, and has the months that are known there', async () => {
	const store = await freshStore();
	await addPlace(store, bench('Bench', months));
	await addPlace(store, bench('Quarry', { elevationM: 900, ...months }));
	expect((await change(store, 'Quarry', { elevationM: 700, ...none })).sharedWith).toEqual([]);
	expect((await addPlace(store, bench('Frame'))).sharedWith).toEqual([]);
	expect(await monthsIn(store)).toEqual({ Bench: [-2, 21], Quarry: [-2, 21], Frame: [-2, 21] });
	// Where nobody typed any it has none.
	await change(store, 'Quarry', { elevationM: 900, ...none });
	expect((await monthsIn(store)).Quarry).toEqual([null, null]);
	// One that brings its own does give them.
	const warmer = { coldestMonthC: 1, warmestMonthC: 24 };
	await addPlace(store, bench('Hill', { elevationM: 1200 }));
	expect((await change(store, 'Hill', { elevationM: 700, ...warmer })).sharedWith.sort()).toEqual([
		'Bench',
		'Frame'
	]);
});
