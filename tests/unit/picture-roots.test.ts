import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { OfferedRoot } from '$core/examine/pictures/offered';
import { seenAt, type Point2 } from '$core/examine/pictures/plane';
import { evenly } from '$core/examine/pictures/strip';
import {
	barkAround,
	measuredSaid,
	segmentsFromPicture,
	standsOnMap,
	stillMeasured,
	type PicturedRoot
} from '$core/roots/map/from-picture';
import { planPoint } from '$core/roots/map/geometry';
import {
	copiesRound,
	rootMapInput,
	segmentSchema,
	turnMap,
	type RootMapInput
} from '$core/roots/map/root-map';
import { sideRoot } from '$core/roots/map/side-root';
import { defaultValues as values } from '$core/values/values';
import type { PictureReader, ReadRoot, RootsRead, RootsTold } from '$lib/workers/picture-reader';
import { PictureRoots, type OnOffer } from '$views/roots/picture-roots.svelte';
import { RootsState } from '$views/roots/roots-state.svelte';
import { freshRoots } from '../records';

/** A root as a picture tells it, outward from the bark of a trunk of 80 mm. */
const told = (deg: number, mm: number, change: Partial<PicturedRoot> = {}): PicturedRoot => {
	const at = (far: number): Point2 => planPoint({ azimuthDeg: deg, radiusMm: far });
	return {
		course: [at(40), at(120), at(200)],
		lengthMm: 160,
		diameterStartMm: mm,
		diameterEndMm: mm / 2,
		thicknessErrorMm: 1.24,
		lengthErrorMm: 9.96,
		parent: null,
		attachMm: 0,
		runsOut: false,
		depthMm: null,
		...change
	};
};
const empty: RootMapInput = rootMapInput.parse({
	mappedOn: '2026-02-10',
	frame: 'container',
	trunkDiameterMm: 80,
	ballRadiusMm: 240,
	segments: []
});
// What would be kept a moment later is not kept here.
beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());
let names = 0;
const newId = (): string => `id-${++names}`;
const from = { pictureId: 'pic', depthMm: null, condition: 'doubtful' as const };
const segmentsOf = (roots: readonly PicturedRoot[], depthMm: number | null = null) =>
	segmentsFromPicture(roots, empty, { ...from, depthMm }, values, newId);
const only = <T>([one]: readonly T[]): T => {
	if (one === undefined) throw new Error('none');
	return one;
};

describe('roots of a map from a picture', () => {
	it('are whole roots of the map, with where they were read and how surely', () => {
		for (const deg of [0, 1, 90, 179, 181, 270, 359]) {
			const segment = only(segmentsOf([told(deg, 12.34)]));
			expect(segmentSchema.parse(segment)).toEqual(segment);
			expect(segment.diameterStartMm).toBe(12.3);
			expect(segment.measuredIn).toEqual({ pictureId: 'pic', thicknessErrorMm: 1.2, lengthErrorMm: 10 });
			expect(segment.course[0]?.radiusMm).toBeCloseTo(40, 6);
			// Its directions stand near each other, over the front too.
			for (const { azimuthDeg } of segment.course)
				expect(Math.abs(azimuthDeg - (segment.course[0]?.azimuthDeg ?? NaN))).toBeLessThan(1);
			// Whether it is sound nobody saw: it reads as doubtful all along, never as good. Its class is a guess.
			expect(segment.condition).toBe('doubtful');
			expect(segment.doubtfulFromMm).toBeNull();
			expect(segment.guessed).toContain('class');
			expect(segment.guessed).not.toContain('length');
		}
	});
	it('a course over the front goes on, it does not turn round the trunk', () => {
		const over = [350, 358, 6, 14].map((azimuthDeg, i) => planPoint({ azimuthDeg, radiusMm: 40 + 40 * i }));
		const { course } = only(segmentsOf([told(0, 10, { course: over })]));
		for (const [i, { azimuthDeg }] of course.entries())
			expect(azimuthDeg - (course[i - 1]?.azimuthDeg ?? azimuthDeg - 8)).toBeCloseTo(8, 6);
	});
	it('depth is a guess until somebody says how deep the card lies', () => {
		const [guessed, said] = [only(segmentsOf([told(30, 15)])), only(segmentsOf([told(30, 15)], 22))];
		expect(guessed.guessed).toContain('depth');
		expect(guessed.course.every(({ depthMm }) => depthMm === 15)).toBe(true);
		expect(said.guessed).not.toContain('depth');
		expect(said.course.every(({ depthMm }) => depthMm === 22)).toBe(true);
	});
	it('a side root leaves its own; one that runs out of the picture is assumed beyond', () => {
		const [main, side] = segmentsOf([
			told(0, 20),
			told(20, 9, { parent: 0, attachMm: 51.26, runsOut: true })
		]);
		expect(side?.parentId).toBe(main?.id);
		expect(side?.attachMm).toBe(51.3);
		expect(side?.rootClass).toBe('secondary');
		expect(main?.seenToMm).toBeNull();
		expect(side?.seenToMm).toBeGreaterThan(150);
	});
	it('is never thicker than the trunk', () => {
		expect(only(segmentsOf([told(0, 95)])).diameterStartMm).toBe(80);
	});
	it('what lies on a root of the map stands there already', () => {
		const map = segmentsOf([told(90, 14)]);
		expect(standsOnMap(told(91, 13).course, map)).toBe(true);
		expect(standsOnMap(told(110, 13).course, map)).toBe(false);
		expect(standsOnMap(told(91, 13).course, [])).toBe(false);
	});
	it('what was typed or drawn since is not the picture’s any more', () => {
		const segment = only(segmentsOf([told(90, 14)]));
		const mm = (value: number): string => String(value);
		expect(measuredSaid(segment, mm)).toBe('measured in a picture, thickness ± 1.2, length ± 10');
		expect(stillMeasured(segment, { ...segment, condition: 'dead', deadFromMm: 20, note: 'soft' })).toEqual(
			segment.measuredIn
		);
		const typed = stillMeasured(segment, { ...segment, diameterStartMm: 15 });
		expect(typed).toEqual({ pictureId: 'pic', thicknessErrorMm: null, lengthErrorMm: 10 });
		// Another depth leaves what was seen from above as it was.
		const deeper = segment.course.map((point) => ({ ...point, depthMm: 60 }));
		expect(stillMeasured(segment, { ...segment, course: deeper })).toEqual(segment.measuredIn);
		const course = segment.course.map((point, i) => (i === 2 ? { ...point, radiusMm: 260 } : point));
		const drawn = { ...segment, course, measuredIn: stillMeasured(segment, { ...segment, course }) };
		expect(measuredSaid(drawn, mm)).toBe('measured in a picture, thickness ± 1.2');
		expect(stillMeasured(drawn, { ...drawn, diameterStartMm: 15 })).toBeNull();
		expect(measuredSaid({ ...segment, measuredIn: null }, mm)).toBe('');
	});
	it('copies and side roots drawn off it were not measured', () => {
		const segment = only(segmentsOf([told(90, 14)]));
		for (const copy of copiesRound([segment], segment.id, 4, newId)) expect(copy.measuredIn).toBeNull();
		expect(sideRoot(segment, null, 's')?.measuredIn).toBeNull();
	});
	it('the picture under a map turns with it', () => {
		const [segment] = segmentsOf([told(90, 14)]);
		if (!segment) throw new Error('none');
		const map = {
			...empty,
			segments: [segment],
			picture: { pictureId: 'pic', toPlan: [0.4, 0.02, -300, -0.03, 0.5, -250, 1e-5, 2e-5, 1] }
		};
		const seen = { x: 1100, y: 700 };
		for (const deg of [10, -75, 180]) {
			const turned = turnMap(map, deg);
			const [before, now] = [seenAt(map.picture.toPlan, seen), seenAt(turned.picture?.toPlan ?? [], seen)];
			const by =
				(((Math.atan2(now.x, -now.y) - Math.atan2(before.x, -before.y)) * 180) / Math.PI + 720) % 360;
			expect(Math.hypot(now.x, now.y)).toBeCloseTo(Math.hypot(before.x, before.y), 6);
			expect(by).toBeCloseTo((deg + 360) % 360, 6);
		}
		expect(turnMap(empty, 30).picture).toBeNull();
	});
	it('a root of the map forgets the picture where it is changed, and goes back with undo', () => {
		const roots = new RootsState({
			...freshRoots,
			makePlanner: () => ({ plan: () => Promise.reject(new Error('none')), stop: () => undefined })
		});
		expect(
			roots.bring(segmentsOf([told(90, 14)]), 'add', {
				picture: { pictureId: 'pic', toPlan: [1, 0, 0, 0, 1, 0, 0, 0, 1] },
				mappedOn: '2026-02-03'
			})
		).toBe('');
		const { id } = only(roots.map.segments);
		expect(roots.map.picture?.pictureId).toBe('pic');
		expect(roots.map.mappedOn).toBe('2026-02-03');
		roots.change(id, { diameterStartMm: 20 });
		expect(only(roots.map.segments).measuredIn?.thicknessErrorMm).toBeNull();
		roots.undo();
		expect(only(roots.map.segments).measuredIn?.thicknessErrorMm).toBe(1.2);
		roots.undo();
		expect(roots.map.picture).toBeNull();
	});
});

describe('taking roots from a picture', () => {
	const flat = { sidePx: 400, reachMm: 200, mmPerPx: 1 };
	const read = (offers: ReadRoot<OfferedRoot>[]): RootsRead => ({
		flat,
		picture: new Blob([]),
		toPlan: [1, 0, 0, 0, 1, 0, 0, 0, 1],
		stand: { under: { x: 0, y: 0 }, cameraMm: 700, distanceMm: 700 },
		offers
	});
	const found = {
		plane: {
			toMm: [1, 0, 0, 0, 1, 0, 0, 0, 1],
			corners: [],
			flat: [],
			tiltDeg: 3,
			distanceMm: 700,
			cornerPx: 0.1,
			nearFar: 0,
			under: { x: 0, y: 0 },
			cameraMm: 700
		},
		markers: 4,
		offPx: 0.1
	};
	const picture = {
		id: 'pic',
		widthPx: 2000,
		heightPx: 1500,
		takenOn: '2026-02-10',
		view: 'roots',
		note: '',
		hash: 'a'.repeat(64),
		greenness: null,
		focalShare: null,
		version: 1
	};
	function begun(offers: ReadRoot<OfferedRoot>[], change: Partial<PictureReader> = {}, map = empty) {
		const asked: RootsTold[] = [];
		const reader: PictureReader = {
			card: () => Promise.reject(new Error('not asked')),
			roots: (_url, told) => {
				asked.push(told);
				return Promise.resolve(read(offers));
			},
			trace: () => Promise.resolve({ ...told(200, 8) }),
			along: () => Promise.resolve({ ...told(10, 21) }),
			under: () => Promise.reject(new Error('not asked')),
			lineUp: () => Promise.reject(new Error('not asked')),
			crown: () => Promise.reject(new Error('not asked')),
			leaves: () => Promise.reject(new Error('not asked')),
			wall: () => Promise.reject(new Error('not asked')),
			stop: () => undefined,
			...change
		};
		const roots = new PictureRoots(picture, 'address', map, values, reader);
		return { roots, asked };
	}
	async function laid(offers: ReadRoot<OfferedRoot>[], change: Partial<PictureReader> = {}, map = empty) {
		const { roots, asked } = begun(offers, change, map);
		roots.measure.searched(found);
		roots.touch({ x: 1000, y: 750 });
		roots.touch({ x: 1000, y: 200 });
		await Promise.resolve();
		await Promise.resolve();
		return { roots, asked };
	}
	const offers = [told(0, 12), told(90, 30), told(45, 7, { parent: 1, attachMm: 60 })];

	it('asks for the plane, the trunk and the front, and touches nothing before', async () => {
		const { roots } = begun([]);
		roots.touch({ x: 5, y: 5 });
		expect(roots.says).toBe('Looking for the printed card …');
		expect(roots.touched).toBe(0);
		roots.measure.searched('no-card');
		expect(roots.says).toBe('Touch the four corners of the bank card: 0 of 4.');
		roots.measure.choose('card');
		roots.measure.searched(found);
		expect(roots.says).toBe('Touch the middle of the trunk, where it meets the ground.');
		roots.touch({ x: 1000, y: 750 });
		expect(roots.says).toBe('Touch a place towards the front, as far from the trunk as you can.');
		roots.back();
		expect(roots.step).toBe('middle');
		const inGround = begun([], {}, { ...empty, frame: 'ground' }).roots;
		inGround.measure.searched(found);
		inGround.touch({ x: 1, y: 1 });
		expect(inGround.says).toContain('towards north');
		await Promise.resolve();
	});
	it('offers them thickest first, and asks of the trunk what the map knows', async () => {
		const { roots, asked } = await laid(offers);
		expect(asked[0]?.trunkDiameterMm).toBe(80);
		expect(asked[0]?.barkMm).toEqual(barkAround(empty));
		expect(asked[0]?.reachMm).toBe(480);
		expect(roots.offers.map(({ root }) => root.diameterStartMm)).toEqual([30, 12, 7]);
		expect(roots.says).toBe(
			'3 are offered, thickest first: take or refuse them. What is missing, trace it: touch its base, then its end.'
		);
	});
	it('a side root brings its own along, and goes with it', async () => {
		const { roots } = await laid(offers);
		const [thick, , side] = roots.offers;
		if (!thick || !side) throw new Error('none');
		roots.say(side.id, 'yes');
		expect(roots.taken.map(({ id }) => id).sort()).toEqual([thick.id, side.id].sort());
		roots.say(thick.id, 'no');
		expect(roots.taken).toEqual([]);
		roots.sayAll('yes');
		expect(roots.taken.map(({ root }) => root.diameterStartMm)).toEqual([12]);
		const { segments, picture: under } = roots.segments();
		expect(segments.map(({ condition }) => condition)).toEqual(['doubtful']);
		roots.condition = 'sound';
		expect(roots.segments().segments.map(({ condition }) => condition)).toEqual(['sound']);
		expect(under?.pictureId).toBe('pic');
	});
	it('hands over each after the one that it leaves, whatever their order on the list', async () => {
		const { roots } = await laid([told(90, 5), told(45, 30, { parent: 0, attachMm: 60 })]);
		roots.sayAll('yes');
		const { segments } = roots.segments();
		expect(segments.map(({ diameterStartMm }) => diameterStartMm)).toEqual([5, 30]);
		expect(segments[1]?.parentId).toBe(segments[0]?.id);
	});
	it('a root that lies deeper than the card is farther away: thicker, longer, farther out, and surer than before', async () => {
		const { roots } = await laid(offers);
		const [thick] = roots.offers;
		if (!thick) throw new Error('none');
		// Only the two together tell how far it is from the plane of the card.
		roots.sayDepth(thick.id, 45);
		const said = (): OnOffer => roots.offers.find(({ id }) => id === thick.id) ?? thick;
		expect(roots.lies(said())).toEqual(thick.root);
		roots.depthMm = 10;
		const deep = roots.lies(said());
		// 35 of 700 mm.
		expect(deep.diameterStartMm).toBeCloseTo(30 * 1.05, 9);
		expect(deep.lengthMm).toBeCloseTo(160 * 1.05, 9);
		expect(deep.course.at(-1)?.x).toBeCloseTo(200 * 1.05, 9);
		expect(deep.lengthErrorMm).toBeLessThan(1.05 * thick.root.lengthErrorMm);
		const [mm, unknown, known] = [9.96, 1.96 * 160 * (10 / 700), 1.96 * 160 * (4 / 700)];
		expect(deep.lengthErrorMm).toBeCloseTo(1.05 * Math.sqrt(mm ** 2 - unknown ** 2 + known ** 2), 2);
		roots.say(thick.id, 'yes');
		const { segments } = roots.segments();
		expect(only(segments).course.map(({ depthMm }) => depthMm)).toEqual([45, 45, 45]);
		expect(only(segments).diameterStartMm).toBe(31.5);
		expect(only(segments).guessed).not.toContain('depth');
		// Half way to the camera nothing can lie: it is left as it was read.
		expect(roots.cannotLie(said())).toBe(false);
		roots.sayDepth(thick.id, 10 + 351);
		expect(roots.cannotLie(said())).toBe(true);
		expect(roots.lies(said())).toEqual(thick.root);
		roots.sayDepth(thick.id, 45);
		// The others lie as deep as the card.
		roots.sayAll('yes');
		expect(roots.segments().segments.map(({ course }) => course[0]?.depthMm)).toEqual([45, 10, 10]);
	});
	it('does not offer again what stands on the map', async () => {
		const map = { ...empty, segments: segmentsOf([told(90, 30)]) };
		const { roots } = await laid(offers, {}, map);
		expect(roots.offers.map(({ says }) => says)).toEqual(['there', 'open', 'open']);
		expect(roots.says).toContain('One stands on the map already.');
		roots.say(roots.offers[0]?.id ?? '', 'yes');
		expect(roots.taken).toEqual([]);
	});
	it('traces one between two touches; begun on a root, it leaves that one', async () => {
		const { roots } = await laid(offers);
		await roots.trace(planPoint({ azimuthDeg: 200, radiusMm: 45 }));
		expect(roots.says).toBe('Touch the other end of the root.');
		await roots.trace(planPoint({ azimuthDeg: 200, radiusMm: 200 }));
		expect(roots.taken.at(-1)?.parentId).toBeNull();
		await roots.trace(planPoint({ azimuthDeg: 91, radiusMm: 120 }));
		await roots.trace(planPoint({ azimuthDeg: 110, radiusMm: 180 }));
		const last = roots.offers.at(-1);
		expect(last?.parentId).toBe(roots.offers.find(({ root }) => root.diameterStartMm === 30)?.id);
		expect(last?.root.attachMm).toBeCloseTo(80, 0);
		// Traced by hand it stays when roots are looked for anew.
		await roots.look();
		expect(roots.offers.filter(({ traced }) => traced)).toHaveLength(2);
	});
	it('begun beside a root it still leaves that one, farther off it leaves none', async () => {
		for (const [offMm, leaves] of [
			[15 + 6, true],
			[15 + 14, false]
		] as const) {
			const { roots } = await laid(offers);
			// The thick one runs along azimuth 90°, 30 mm thick at its base.
			await roots.trace({ x: 120, y: offMm });
			await roots.trace({ x: 180, y: 60 });
			expect(roots.offers.at(-1)?.parentId !== null, String(offMm)).toBe(leaves);
		}
	});
	it('says where no root shows, and where the picture tells nothing', async () => {
		const none = await laid(offers, {
			trace: () => Promise.resolve(null),
			along: () => Promise.resolve(null)
		});
		await none.roots.trace({ x: 0, y: 50 });
		await none.roots.trace({ x: 0, y: 150 });
		expect(none.roots.says).toContain('No root shows between these two places.');
		await none.roots.mend(none.roots.offers[0]?.id ?? '', [
			{ x: 0, y: 0 },
			{ x: 0, y: 9 }
		]);
		expect(none.roots.says).toBe('No root shows along that line.');
		const alike = await laid(offers, { roots: () => Promise.resolve(null) });
		expect(alike.roots.says).toContain('The two touches lie on each other');
		expect(alike.roots.step).toBe('middle');
		const broken = await laid(offers, { roots: () => Promise.reject(new Error('x')) });
		await Promise.resolve();
		expect(broken.roots.says).toContain('The picture could not be read.');
		expect((await laid([])).roots.says).toContain('No root came out by itself.');
	});
	it('a mended root keeps what was said of it', async () => {
		const { roots } = await laid(offers);
		const id = roots.offers[0]?.id ?? '';
		roots.say(id, 'yes');
		await roots.mend(id, [
			{ x: 0, y: -40 },
			{ x: 0, y: -180 }
		]);
		expect(roots.offers[0]?.root.diameterStartMm).toBe(21);
		expect(roots.offers[0]?.says).toBe('yes');
	});
	it('a root that is touched shows its colour', async () => {
		const { roots, asked } = await laid(offers);
		roots.touch({ x: 1200, y: 800 });
		await Promise.resolve();
		expect(asked[1]?.shown).toEqual([{ x: 1200, y: 800 }]);
		roots.move('Colour', 0, { x: 1210, y: 800 });
		expect(roots.shown).toEqual([{ x: 1210, y: 800 }]);
		roots.back();
		expect(roots.shown).toEqual([]);
	});
});

describe('places along a line', () => {
	const bent: Point2[] = [
		{ x: 0, y: 0 },
		{ x: 30, y: 0 },
		{ x: 30, y: 0 },
		{ x: 30, y: 10 },
		{ x: 60, y: 50 }
	];

	it('lie evenly from its beginning to its end, on it, and look square to it', () => {
		const places = evenly(bent, 5);
		expect(places).toHaveLength(19);
		for (const [i, { alongMm, at, across }] of places.entries()) {
			expect(alongMm).toBeCloseTo(5 * i, 9);
			const mm = 5 * i;
			const on =
				mm <= 30
					? { x: mm, y: 0 }
					: mm <= 40
						? { x: 30, y: mm - 30 }
						: { x: 30 + ((mm - 40) / 50) * 30, y: 10 + ((mm - 40) / 50) * 40 };
			expect(at.x).toBeCloseTo(on.x, 9);
			expect(at.y).toBeCloseTo(on.y, 9);
			expect(Math.hypot(across.x, across.y)).toBeCloseTo(1, 9);
		}
		expect(places[2]?.across).toEqual({ x: -0, y: 1 });
		expect(places.at(-2)?.across.x).toBeCloseTo(-0.8, 9);
		expect(places.at(-2)?.across.y).toBeCloseTo(0.6, 9);
		// At the kink it looks half way between both sides.
		expect(places[6]?.across.x).toBeCloseTo(-Math.SQRT1_2, 9);
	});

	it('are two at the least: where it begins and where it ends', () => {
		expect(evenly(bent, 1000).map(({ at }) => at)).toEqual([bent[0], bent.at(-1)]);
	});
});
