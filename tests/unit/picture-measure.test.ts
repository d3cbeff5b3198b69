import { describe, expect, it } from 'vitest';
import { card } from '$core/examine/pictures/card';
import { cardFaultSaid } from '$core/examine/pictures/find-card-words';
import { planeFaultSaid, planeOf } from '$core/examine/pictures/plane';
import { defaultValues } from '$core/values/values';
import { seenBy } from '../pinhole';
import { PictureMeasure } from '$views/recovery/picture-measure.svelte';

const picture = { widthPx: 2000, heightPx: 1500 };
/** A card seen from straight above, 10 px to the millimetre. */
const corners = [
	{ x: 300, y: 300 },
	{ x: 1156, y: 300 },
	{ x: 1156, y: 839.8 },
	{ x: 300, y: 839.8 }
];
const begun = (): PictureMeasure => {
	const measuring = new PictureMeasure(picture, defaultValues);
	measuring.shownWidthPx = 1000;
	measuring.searched('no-card');
	for (const corner of corners) measuring.touch(corner);
	return measuring;
};

/** The printed card as it is found, seen from straight above, 5 px to the millimetre. */
const foundCard = () => {
	const at = (x: number, y: number) => ({ x: 200 + 5 * x, y: 200 + 5 * y });
	const { widthMm, heightMm } = card;
	const plane = planeOf(
		[at(0, 0), at(widthMm, 0), at(widthMm, heightMm), at(0, heightMm)],
		card,
		picture,
		defaultValues
	);
	if (typeof plane === 'string') throw new Error(plane);
	return { plane: { ...plane, cornerPx: 0.1 }, markers: 4, offPx: 0.1 };
};

describe('measuring in a picture', () => {
	it('begins with the printed card: found, nothing but the thing itself is touched', () => {
		const measuring = new PictureMeasure(picture, defaultValues);
		expect([measuring.rectangle, measuring.plane, measuring.fault]).toEqual(['card', null, null]);
		// Nothing is taken while it is looked for.
		measuring.touch({ x: 1, y: 1 });
		expect([measuring.line, measuring.corners]).toEqual([[], []]);
		measuring.searched(foundCard());
		expect([measuring.rectangle, measuring.step]).toEqual(['card', 'line']);
		measuring.touch({ x: 100, y: 1000 });
		measuring.touch({ x: 600, y: 1000 });
		expect(measuring.length?.mm).toBeCloseTo(100, 6);
		measuring.again();
		expect(measuring.plane).not.toBeNull();
	});

	it('without it turns to four corners, and what was chosen meanwhile stays', () => {
		const measuring = new PictureMeasure(picture, defaultValues);
		measuring.searched('no-card');
		expect([measuring.rectangle, measuring.step, measuring.fault]).toEqual(['bank-card', 'corners', null]);
		measuring.choose('card');
		expect(measuring.fault).toBe(cardFaultSaid['no-card']);
		const chosen = new PictureMeasure(picture, defaultValues);
		chosen.choose('a4');
		chosen.touch(corners[0] ?? { x: 0, y: 0 });
		chosen.searched(foundCard());
		expect([chosen.rectangle, chosen.corners.length]).toEqual(['a4', 1]);
		chosen.searched('no-card');
		expect([chosen.rectangle, chosen.corners.length]).toEqual(['a4', 1]);
	});

	it('takes six places of the rim of the pot it stood in, its width as it was potted', () => {
		const measuring = new PictureMeasure(picture, defaultValues, 300);
		expect(measuring.says).toBe('Looking for the printed card …');
		measuring.choose('rim');
		expect(measuring.says).toBe('Touch places of the edge of the rim, all round it: 0 of 6.');
		for (let i = 0; i < 6; i++)
			measuring.touch({ x: 1000 + 600 * Math.cos(i * 1.05), y: 750 + 600 * Math.sin(i * 1.05) });
		expect(measuring.rim?.halfLong).toBeCloseTo(600, 6);
		measuring.touch({ x: 800, y: 750 });
		measuring.touch({ x: 1200, y: 750 });
		expect(measuring.length?.mm).toBeCloseTo(100, 6);
		measuring.rimMm = null;
		expect([measuring.plane, measuring.says]).toEqual([null, 'Say how wide the rim is.']);
		measuring.choose('a4');
		expect([measuring.rim, measuring.corners]).toEqual([null, []]);
		expect(measuring.says).toBe('Touch the four corners of the A4: 0 of 4.');
	});

	it('takes two points and their distance for the scale alone', () => {
		const measuring = new PictureMeasure(picture, defaultValues);
		measuring.choose('two-points');
		measuring.touch({ x: 100, y: 100 });
		expect(measuring.step).toBe('corners');
		measuring.touch({ x: 600, y: 100 });
		expect([measuring.step, measuring.plane]).toEqual(['line', null]);
		measuring.apartMm = 100;
		expect(measuring.plane?.tiltDeg).toBeNull();
		measuring.touch({ x: 100, y: 1000 });
		measuring.touch({ x: 100, y: 1250 });
		expect(measuring.length?.mm).toBeCloseTo(50, 6);
		// Other corners are wanted for a sheet: these were of something else.
		measuring.choose('a4');
		expect([measuring.corners, measuring.line]).toEqual([[], []]);
		measuring.touch({ x: 1, y: 1 });
		measuring.choose('a5');
		expect(measuring.corners).toHaveLength(1);
	});

	it('takes four corners first, then points along the thing, and tells the length of them', () => {
		const measuring = begun();
		expect(measuring.step).toBe('line');
		expect(measuring.plane?.tiltDeg).toBeLessThan(0.1);
		expect(measuring.length).toBeNull();
		measuring.touch({ x: 100, y: 1000 });
		measuring.touch({ x: 1100, y: 1000 });
		measuring.touch({ x: 1100, y: 1300 });
		expect(measuring.length?.mm).toBeCloseTo(130, 3);
		measuring.keep();
		expect(measuring.kept.map(({ mm }) => Math.round(mm))).toEqual([130]);
		expect(measuring.line).toEqual([]);
		expect(measuring.corners).toHaveLength(4);
		measuring.keep();
		expect(measuring.kept).toHaveLength(1);
		measuring.drop(0);
		expect(measuring.kept).toEqual([]);
	});

	it('says a touch is off by so many pixels of the screen: half as wide a picture is twice as unsure', () => {
		const errorAt = (shownWidthPx: number): number => {
			const measuring = begun();
			measuring.shownWidthPx = shownWidthPx;
			measuring.touch({ x: 100, y: 1000 });
			measuring.touch({ x: 1100, y: 1000 });
			return measuring.length?.errorMm ?? NaN;
		};
		expect(errorAt(500) / errorAt(1000)).toBeCloseTo(2, 5);
		expect(begun().touchPx).toBeCloseTo(1.6, 9);
		expect(new PictureMeasure(picture, defaultValues).touchPx).toBe(0.8);
	});

	it('goes back touch by touch, moves what was touched, and begins anew', () => {
		const measuring = begun();
		measuring.touch({ x: 100, y: 1000 });
		measuring.back();
		expect(measuring.line).toEqual([]);
		measuring.back();
		expect(measuring.step).toBe('corners');
		measuring.touch({ x: 5000, y: -3 });
		measuring.move('corners', 3, { x: 5000, y: -3 });
		// What is moved stays in the picture.
		expect(measuring.corners[3]).toEqual({ x: 2000, y: 0 });
		measuring.again();
		expect([measuring.corners, measuring.line]).toEqual([[], []]);
	});

	it('says why the corners tell nothing, and takes no points then', () => {
		const measuring = new PictureMeasure(picture, defaultValues);
		measuring.searched('no-card');
		for (const corner of corners.slice(0, 3)) measuring.touch(corner);
		expect(measuring.fault).toBeNull();
		measuring.touch({ x: 728, y: 570 });
		expect(measuring.fault).toBe(planeFaultSaid['no-rectangle']);
		measuring.touch({ x: 1, y: 1 });
		expect(measuring.line).toEqual([]);
	});

	it('says when a point lies too far behind, until it is taken back', () => {
		const tilted = new PictureMeasure(picture, defaultValues);
		tilted.searched('no-card');
		tilted.shownWidthPx = 1000;
		const camera = {
			tiltDeg: 45,
			towardDeg: 0,
			rollDeg: 0,
			distanceMm: 400,
			focalPx: 1440,
			...picture
		};
		for (const [x, y] of [
			[-40, -20],
			[45.6, -20],
			[45.6, 33.98],
			[-40, 33.98]
		] as const)
			tilted.touch(seenBy(camera, { x, y }));
		expect(tilted.fault).toBeNull();
		tilted.touch({ x: 1000, y: 750 });
		tilted.touch({ x: 1000, y: 2100 });
		expect(tilted.fault).toBe(planeFaultSaid['too-far']);
		tilted.back();
		expect(tilted.fault).toBeNull();
	});

	it('asks how large another rectangle is before it tells a length', () => {
		const measuring = begun();
		measuring.choose('own');
		expect(measuring.plane).toBeNull();
		measuring.ownWidthMm = 171.2;
		expect(measuring.plane).toBeNull();
		measuring.ownHeightMm = 107.96;
		measuring.touch({ x: 100, y: 1000 });
		measuring.touch({ x: 1100, y: 1000 });
		expect(measuring.length?.mm).toBeCloseTo(200, 3);
		measuring.choose('bank-card');
		expect(measuring.length?.mm).toBeCloseTo(100, 3);
		measuring.choose('nothing known');
		expect(measuring.rectangle).toBe('own');
	});

	it('takes at most sixty points along a thing', () => {
		const measuring = begun();
		for (let i = 0; i < 70; i++) measuring.touch({ x: 100 + i, y: 1000 });
		expect(measuring.line).toHaveLength(60);
	});
});
