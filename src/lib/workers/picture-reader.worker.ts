import { findCard } from '$core/examine/pictures/find-card';
import {
	backOf,
	flatColours,
	laidOut,
	laidOver,
	showsPlace,
	turnedTo,
	type Flat
} from '$core/examine/pictures/flat';
import {
	balanceOf,
	crownLoop,
	leafCover,
	type Balance,
	type LeafCover
} from '$core/examine/pictures/leaf-cover';
import { linedUp, type LinedUp, type ViewFault } from '$core/examine/pictures/lined-up';
import { offeredRoots, type OfferedRoot } from '$core/examine/pictures/offered';
import { seenAt, type Plane, type Point2 } from '$core/examine/pictures/plane';
import { greyOf, type Rgba } from '$core/examine/pictures/raster';
import { readyPicture } from '$core/examine/pictures/ready';
import {
	measuredAlong,
	standOf,
	tracedBetween,
	type ReadyPicture,
	type Stand,
	type TracedRoot
} from '$core/examine/pictures/traced';
import { wallDrawn, wallRead, type WallRead } from '$core/examine/pictures/wall';
import type { WallTold } from '$core/examine/pictures/wall-words';
import type { Values } from '$core/values/values';
import { expose } from 'comlink';

/** What is told of a picture of roots, as it crosses over to this thread. */
export interface RootsTold {
	plane: Plane;
	/** Where the middle of the trunk meets the plane, and a place towards the front, px. */
	middle: Point2;
	front: Point2;
	/** How far the bark lies from the middle in each whole degree, mm. */
	barkMm: readonly number[];
	trunkDiameterMm: number;
	reachMm: number;
	/** Where roots were touched to show their colour, px. */
	shown: readonly Point2[];
}

/** Leaf in a crown on two days, and whether the light of both was made true by the card. */
export interface LeavesRead {
	then: LeafCover;
	now: LeafCover;
	balanced: boolean;
}

/** A root that was read, and whether it ends only where the picture does. */
export type ReadRoot<T extends TracedRoot = TracedRoot> = T & { runsOut: boolean };

/** A picture turned to its plane, and the roots that come out in it. */
export interface RootsRead {
	flat: Flat;
	/** The turned picture, PNG, clear where it shows nothing. */
	picture: Blob;
	toPlan: readonly number[];
	stand: Stand;
	offers: ReadRoot<OfferedRoot>[];
}

/** Roots on a wall, and a picture of what each place was read as. */
export interface WallShown extends Omit<WallRead, 'places'> {
	drawn: Blob;
}

/** The pictures that were read last, by where they lie: two are held beside each other. */
const held = new Map<string, Promise<Rgba>>();
let ready: ReadyPicture | null = null;

/** A picture as it is decoded here, turned as it is looked at. @throws Error when it cannot be read */
function decoded(url: string): Promise<Rgba> {
	const known = held.get(url) ?? read(url);
	held.delete(url);
	held.set(url, known);
	const [oldest] = held.keys();
	if (held.size > 2 && oldest !== undefined) held.delete(oldest);
	// What could not be read is asked for again.
	known.catch(() => held.delete(url));
	return known;
}

async function read(url: string): Promise<Rgba> {
	const answer = await fetch(url);
	if (!answer.ok) throw new Error('The picture could not be read.');
	const bitmap = await createImageBitmap(await answer.blob());
	const { width, height } = bitmap;
	const drawing = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
	if (!drawing) throw new Error('The picture could not be read.');
	drawing.drawImage(bitmap, 0, 0);
	bitmap.close();
	return { width, height, data: drawing.getImageData(0, 0, width, height).data };
}

/** What makes grey grey in a picture, by the card if it shows one; looked for once. */
function balanceIn(url: string, values: Values): Promise<Balance | null> {
	const known = balances.get(url) ?? decoded(url).then((picture) => balanceOf(picture, values));
	balances.set(url, known);
	known.catch(() => balances.delete(url));
	return known;
}
const balances = new Map<string, Promise<Balance | null>>();

async function pngOf({ width, height, data }: Rgba): Promise<Blob> {
	const canvas = new OffscreenCanvas(width, height);
	const drawing = canvas.getContext('2d');
	if (!drawing) throw new Error('The picture could not be turned.');
	drawing.putImageData(new ImageData(new Uint8ClampedArray(data), width, height), 0, 0);
	return canvas.convertToBlob({ type: 'image/png' });
}

/** Whether a root ends where the picture does: a little farther on nothing is shown any more. */
function runsOut<T extends TracedRoot>(root: T, { laid, grey }: ReadyPicture): boolean {
	const [before, end] = root.course.slice(-2);
	if (!before || !end) return false;
	const far = Math.hypot(end.x - before.x, end.y - before.y) || 1;
	const on = Math.max(10, root.diameterEndMm);
	return !showsPlace(
		laid,
		{ x: end.x + ((end.x - before.x) / far) * on, y: end.y + ((end.y - before.y) / far) * on },
		grey
	);
}

/** Reads pictures in a thread of its own, so that the page stays at hand. */
const reader = {
	card: async (url: string, focalShare: number | null, values: Values) =>
		findCard(await decoded(url), values, focalShare),
	/** Turns a picture to its plane and reads the roots in it; null where the two touches tell no direction. */
	roots: async (url: string, told: RootsTold, values: Values): Promise<RootsRead | null> => {
		const picture = await decoded(url);
		const laid = laidOut(told.plane, told.middle, told.front);
		if (!laid) return null;
		const barkMm = (azimuthDeg: number): number =>
			told.barkMm[((Math.round(azimuthDeg) % 360) + 360) % 360] ?? told.trunkDiameterMm / 2;
		const made = readyPicture(picture, told.plane, laid, { ...told, barkMm }, values);
		ready = made;
		return {
			flat: made.flat,
			toPlan: laid.toPlan,
			stand: standOf(made),
			picture: await pngOf(flatColours(picture, laid, made.flat)),
			offers: offeredRoots(made, barkMm, values).map((root) => ({ ...root, runsOut: runsOut(root, made) }))
		};
	},
	/** The root between two touches on the map, mm; null where none shows. */
	trace: (base: Point2, end: Point2, values: Values): ReadRoot | null => {
		const root = ready && tracedBetween(ready, base, end, values);
		return root && ready && { ...root, runsOut: runsOut(root, ready) };
	},
	/** The root along a line that was mended, mm of the map, about so wide to either side; null where none shows. */
	along: (line: readonly Point2[], halfMm: number, values: Values): ReadRoot | null => {
		const root = ready && measuredAlong(ready, line, () => halfMm, values);
		if (!root || !ready) return null;
		const { stations: _, ...told } = root;
		return { ...told, runsOut: runsOut(told, ready) };
	},
	/** Lays an earlier picture over a later one, and draws it as it lies there; or why it cannot. */
	lineUp: async (
		before: string,
		after: string,
		values: Values
	): Promise<{ how: LinedUp; before: Blob } | ViewFault> => {
		const [was, is] = [await decoded(before), await decoded(after)];
		const how = linedUp(greyOf(was), greyOf(is), values);
		return typeof how === 'string' ? how : { how, before: await pngOf(laidOver(was, is, how.toAfter)) };
	},
	/** A loop round the crown that shows in two pictures, px of the later; null where nothing is green. */
	crown: async (
		before: string,
		after: string,
		toAfter: readonly number[],
		values: Values
	): Promise<Point2[] | null> =>
		crownLoop(
			[
				{ picture: await decoded(before), balance: await balanceIn(before, values), toLast: toAfter },
				{ picture: await decoded(after), balance: await balanceIn(after, values), toLast: null }
			],
			values
		),
	/** Leaf within a loop of the later picture, then and now; null where the loop holds nothing that can be read. */
	leaves: async (
		before: string,
		after: string,
		{ toAfter, offPx }: Pick<LinedUp, 'toAfter' | 'offPx'>,
		loop: readonly Point2[],
		values: Values
	): Promise<LeavesRead | null> => {
		const [was, is] = [await balanceIn(before, values), await balanceIn(after, values)];
		const back = backOf(toAfter);
		const covers = leafCover(
			[
				{ picture: await decoded(before), loop: loop.map((at) => seenAt(back, at)), balance: was },
				{ picture: await decoded(after), loop, balance: is }
			],
			[offPx, 0],
			values
		);
		const [then, now] = covers ?? [];
		return then && now ? { then, now, balanced: was !== null && is !== null } : null;
	},
	/** Roots on a wall by the colours that were touched, and what each place was read as; null where too little was told. */
	wall: async (url: string, told: WallTold, values: Values): Promise<WallShown | null> => {
		const read = wallRead(await decoded(url), told, values);
		if (!read) return null;
		const { places: _, ...rest } = read;
		return { ...rest, drawn: await pngOf(wallDrawn(read)) };
	},
	/** A picture turned to a map, as far from its middle as is wanted. */
	under: async (url: string, toPlan: readonly number[], reachMm: number, sidePx: number): Promise<Blob> => {
		return pngOf(turnedTo(await decoded(url), toPlan, { sidePx, reachMm, mmPerPx: (2 * reachMm) / sidePx }));
	}
};
export type ReaderThread = typeof reader;
expose(reader);
