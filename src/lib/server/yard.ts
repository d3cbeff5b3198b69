import { eq } from 'drizzle-orm';
import { climateTyped } from '../core/climate/normals';
import type { Place, PlaceInput } from '../core/vocabulary/place';
import type { Kind, KindInput } from '../core/vocabulary/kind';
import type { Store } from './db/database';
import * as tables from './db/schema';
import { invalid, Refusal } from './errors';
import { kinds, places } from './records/records';
import { doWork, type Work } from './records/work';

/** Places and kinds: what trees share. */

const climateKeys = ['coldestMonthC', 'warmestMonthC'] as const;
const positionKeys = ['latitudeDeg', 'longitudeDeg', 'elevationM'] as const;

/** The other places that lie where a place does. */
const placesThere = async (work: Work, place: PlaceInput & { id?: string }): Promise<Place[]> =>
	(await places.list(work.tx)).filter(
		(one) => one.id !== place.id && positionKeys.every((key) => one[key] === place[key])
	);

/** A place that comes to a position without months has those that were typed for another there. */
async function withClimateThere<T extends PlaceInput & { id?: string }>(work: Work, place: T): Promise<T> {
	if (climateTyped(place)) return place;
	const known = (await placesThere(work, place)).find(climateTyped);
	return known ? { ...place, coldestMonthC: known.coldestMonthC, warmestMonthC: known.warmestMonthC } : place;
}

/**
 * Places that lie where one does have its climate: what is typed or cleared for one counts at all of them.
 * @returns the names of those that were changed
 */
async function shareClimate(work: Work, place: Place): Promise<string[]> {
	const others = (await placesThere(work, place)).filter((one) =>
		climateKeys.some((key) => one[key] !== place[key])
	);
	for (const one of others)
		await work.change(places, one.id, one.version, (before) => ({
			...before,
			coldestMonthC: place.coldestMonthC,
			warmestMonthC: place.warmestMonthC
		}));
	return others.map((one) => one.name);
}

/**
 * Adds a place. A climate typed for it counts at the others that lie there, and theirs for it.
 * @returns its id, the entry, and the names of the places whose climate changed with it
 */
export async function addPlace(
	store: Store,
	input: PlaceInput
): Promise<{ id: string; entryId: string; sharedWith: string[] }> {
	const { result, entryId } = await doWork(
		store,
		{ treeId: null, stage: 'take-in', what: `New place: ${input.name}` },
		async (work) => {
			const place = await work.add(places, await withClimateThere(work, input));
			return { id: place.id, sharedWith: climateTyped(place) ? await shareClimate(work, place) : [] };
		}
	);
	return { ...result, entryId };
}

/**
 * Changes a place; its climate is changed at all that lie there.
 * @returns the entry, and the names of the places whose climate changed with it
 */
export async function changePlace(
	store: Store,
	id: string,
	version: number,
	input: PlaceInput
): Promise<{ entryId: string; sharedWith: string[] }> {
	const { result, entryId } = await doWork(
		store,
		{ treeId: null, stage: 'take-in', what: `Changed place: ${input.name}` },
		async (work) => {
			let shares = false;
			const there = await withClimateThere(work, { ...input, id });
			const place = await work.change(places, id, version, (before) => {
				const moved = positionKeys.some((key) => before[key] !== input[key]);
				// A place that moves and is left empty takes on what is known where it comes to, and clears nothing there.
				shares = climateKeys.some((key) => before[key] !== input[key]) && (climateTyped(input) || !moved);
				return { ...before, ...(moved ? there : input) };
			});
			return shares ? shareClimate(work, place) : [];
		}
	);
	return { entryId, sharedWith: result };
}

/** Removes an empty place. @throws Refusal 409 while trees stand there */
export async function removePlace(store: Store, id: string, version: number): Promise<string> {
	const { entryId } = await doWork(
		store,
		{ treeId: null, stage: 'take-in', what: 'Removed a place' },
		async (work) => {
			const standing = await work.tx
				.select({ id: tables.tree.id })
				.from(tables.tree)
				.where(eq(tables.tree.placeId, id));
			const planted = await work.tx
				.select({ id: tables.planting.id })
				.from(tables.planting)
				.where(eq(tables.planting.placeId, id));
			const dug = await work.tx
				.select({ id: tables.groundPlan.id })
				.from(tables.groundPlan)
				.where(eq(tables.groundPlan.placeId, id));
			if (standing.length + planted.length + dug.length > 0)
				throw new Refusal(
					409,
					'Trees stand or stood at this place.',
					'Move them first; places with a history stay.'
				);
			return work.remove(places, id, version);
		}
	);
	return entryId;
}

const slug = (text: string): string =>
	text
		.toLowerCase()
		.normalize('NFKD')
		.replace(/[^a-z0-9]+/g, '-')
		.replace(/^-+|-+$/g, '')
		.slice(0, 50);

/** Adds a kind of the owner's own. @throws Refusal 422 when that genus and name stand already */
export async function addKind(store: Store, input: KindInput): Promise<{ kind: Kind; entryId: string }> {
	const { result, entryId } = await doWork(
		store,
		{ treeId: null, stage: 'take-in', what: `New kind: ${input.commonName}` },
		async (work) => {
			const known = await kinds.list(work.tx);
			const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();
			if (known.some((kind) => same(kind.genus, input.genus) && same(kind.commonName, input.commonName)))
				throw invalid([
					{ field: 'commonName', message: 'is known already for this genus; change that kind instead' }
				]);
			const base = slug(`${input.genus} ${input.commonName}`) || 'kind';
			const id = known.some((kind) => kind.id === base) ? `${base}-${known.length}` : base;
			return work.add(kinds, { ...input, origin: 'own' as const }, id);
		}
	);
	return { kind: result, entryId };
}

/** Changes a kind; a shipped one becomes the owner's own and is no longer brought up to date. */
export async function changeKind(
	store: Store,
	id: string,
	version: number,
	input: KindInput
): Promise<string> {
	const { entryId } = await doWork(
		store,
		{ treeId: null, stage: 'take-in', what: `Changed kind: ${input.commonName}` },
		(work) => work.change(kinds, id, version, (before) => ({ ...before, ...input, origin: 'own' as const }))
	);
	return entryId;
}
