import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arcCover } from '$core/maths/circular';
import { createFormat, defaultFormatSettings, plain } from '$core/text/format';
import { signApplies, signIds, topGrade } from '$core/vocabulary/signs';
import { situations } from '$core/vocabulary/words';
import { judgeCollar, collarData } from '$core/examine/measuring/collar';
import { diebackLimit, scratchTapData } from '$core/examine/measuring/dieback';
import {
	findingsOf,
	measuredFindings,
	measurementInput,
	measurementSchema,
	rawReading,
	soilTools,
	tools,
	toolsFitting,
	toolFor,
	type RawReading
} from '$core/examine/measuring/measurement';
import { matGrade, slideTestData, squeezeGrade, squeezeResults } from '$core/examine/measuring/hand-tests';
import { nextSamplePlace, rootSample } from '$core/examine/measuring/root-sample';
import { weighPot } from '$core/examine/measuring/weighing';
import { readingWords } from '$core/examine/measuring/words';
import { createRandom } from '$core/maths/random';
import { defaultValues } from '$core/values/values';

const tree = { trunkDiameterMm: 80, situation: 'potted' as const };
const found = (raw: unknown, on = '2026-04-14') => findingsOf(rawReading.parse(raw), on, tree, defaultValues);

describe('root sample', () => {
	it('asks for more until the interval decides, and what it asks for is enough', () => {
		fc.assert(
			fc.property(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 60 }), (alive, dead) => {
				fc.pre(alive + dead > 0);
				const sample = rootSample({ alive, dead }, defaultValues);
				expect(sample.low).toBeLessThanOrEqual(sample.liveShare + 1e-12);
				expect(sample.high).toBeGreaterThanOrEqual(sample.liveShare - 1e-12);
				expect(sample.grade === null).toBe(sample.more > 0);
				if (sample.grade !== null) expect(sample.open).toContain(sample.grade);
				else if (sample.more < 400) {
					const total = alive + dead + sample.more;
					const then = Math.round(sample.liveShare * total);
					expect(rootSample({ alive: then, dead: total - then }, defaultValues).grade).not.toBeNull();
				}
			})
		);
	});
	it('of a dozen roots does not decide between some and many dead, of half a hundred does', () => {
		expect(found({ tool: 'root-sample', alive: 9, dead: 4 })).toEqual([]);
		expect(found({ tool: 'root-sample', alive: 20, dead: 30 })).toEqual([
			{ signId: 'roots-dead-share', grade: 2 }
		]);
		expect(found({ tool: 'root-sample', alive: 48, dead: 1 })).toEqual([
			{ signId: 'roots-dead-share', grade: 0 }
		]);
	});
	it('spreads the places over the ball', () => {
		const places = Array.from({ length: 64 }, (_, i) => nextSamplePlace(i));
		for (let octant = 0; octant < 8; octant++) {
			const here = places.filter((place) => Math.floor(place.azimuthDeg / 45) === octant);
			expect(here.length).toBeGreaterThanOrEqual(6);
			expect(here.length).toBeLessThanOrEqual(10);
		}
		const depths = places.map((place) => place.depthShare).sort((a, b) => a - b);
		depths.forEach((depth, i) => expect(Math.abs(depth - (i + 0.5) / 64)).toBeLessThan(0.03));
	});
});

describe('scratch and tap', () => {
	const map = (points: [number, number, 'alive' | 'dead' | 'hollow'][], heightMm = 1000) =>
		diebackLimit(
			scratchTapData.parse({
				heightMm,
				points: points.map(([height, sideDeg, reading]) => ({ heightMm: height, sideDeg, reading }))
			}),
			defaultValues
		);
	it('puts the limit between the highest living and the lowest dead place, with its range', () => {
		const limit = map([
			[300, 0, 'alive'],
			[500, 90, 'alive'],
			[700, 180, 'dead'],
			[900, 0, 'hollow']
		]);
		expect(limit.limitMm).toBeGreaterThan(500);
		expect(limit.limitMm).toBeLessThan(700);
		expect(limit.lowMm).toBeLessThanOrEqual(limit.limitMm);
		expect(limit.highMm).toBeGreaterThanOrEqual(limit.limitMm);
	});
	it('following its own advice finds the limit, on whatever stem, though a reading is now and then wrong', () => {
		const random = createRandom(5);
		let misses = 0;
		for (let stem = 0; stem < 200; stem++) {
			const truth = random.between(100, 1900);
			const points: { heightMm: number; sideDeg: number; reading: 'alive' | 'dead' }[] = [];
			let at: { heightMm: number; sideDeg: number } | null = { heightMm: 1000, sideDeg: 0 };
			while (at && points.length < 40) {
				const alive = at.heightMm <= truth;
				const wrong = random.next() < 0.05;
				points.push({ ...at, reading: alive !== wrong ? 'alive' : 'dead' });
				at = diebackLimit({ heightMm: 2000, points }, defaultValues).next;
			}
			expect(points.length).toBeLessThan(40);
			const { lowMm, highMm } = diebackLimit({ heightMm: 2000, points }, defaultValues);
			if (truth < lowMm - 5 || truth > highMm + 5) misses++;
		}
		// An 80 % range misses about one in five.
		expect(misses).toBeLessThan(70);
	});
	it('says alive to the top only when the top was looked at, and names dead places below living bark', () => {
		expect(map([[985, 0, 'alive']])).toMatchObject({ limitMm: 1000, deadShare: 0, grade: 0, next: null });
		expect(map([[500, 0, 'alive']]).next).not.toBeNull();
		expect(
			map([
				[200, 10, 'dead'],
				[600, 0, 'alive'],
				[400, 180, 'dead']
			]).below
		).toEqual([0]);
	});
	it('a cavity below living bark is a wound at its side, not the limit of the stem', () => {
		const living = map([
			[100, 0, 'alive'],
			[700, 0, 'alive'],
			[750, 90, 'alive'],
			[900, 0, 'dead']
		]);
		const cavity = map([
			[100, 0, 'alive'],
			[700, 0, 'alive'],
			[750, 90, 'alive'],
			[900, 0, 'dead'],
			...[300, 350, 400, 450].map((height): [number, number, 'hollow'] => [height, 180, 'hollow'])
		]);
		expect(cavity.limitMm).toBeGreaterThan(690);
		expect(Math.abs(cavity.limitMm - living.limitMm)).toBeLessThan(40);
		expect(cavity.levels).toEqual([
			{ sideDeg: 0, aliveToMm: 700, deadFromMm: 900 },
			{ sideDeg: 90, aliveToMm: 750, deadFromMm: null },
			{ sideDeg: 180, aliveToMm: null, deadFromMm: 300 }
		]);
		// One living place above it may be a misreading: then the dead ones still count.
		expect(
			map([
				[700, 0, 'alive'],
				[300, 180, 'dead'],
				[350, 180, 'dead'],
				[400, 180, 'dead']
			]).limitMm
		).toBeLessThan(400);
	});
	it('refuses a point above the top', () => {
		const parsed = scratchTapData.safeParse({
			heightMm: 500,
			points: [{ heightMm: 600, sideDeg: 0, reading: 'alive' }]
		});
		expect(parsed.error?.issues[0]?.message).toMatch(/lower than a point/);
	});
});

describe('weighing', () => {
	const weigh = (nowKg: number, theirs: [number, number][], dryKg: number | null = null) =>
		weighPot(
			{
				wateredOn: '2026-04-10',
				fullKg: 10,
				nowKg,
				dryKg,
				neighbours: theirs.map(([full, now], i) => ({ name: `N${i}`, fullKg: full, nowKg: now }))
			},
			'2026-04-14',
			defaultValues
		);
	it('compares with the median of the neighbours, whatever their size', () => {
		expect(
			weigh(9, [
				[20, 18],
				[5, 4.5],
				[8, 8]
			]).againstNeighbours
		).toBeCloseTo(1, 9);
		expect(
			weigh(9.8, [
				[20, 18],
				[5, 4.5]
			])
		).toMatchObject({ staysWetGrade: 2 });
		expect(
			weigh(9.55, [
				[20, 18],
				[5, 4.5]
			])
		).toMatchObject({ staysWetGrade: 1 });
		expect(
			weigh(9.3, [
				[20, 18],
				[5, 4.5]
			])
		).toMatchObject({ staysWetGrade: 0 });
	});
	it('does not compare with one neighbour, or before they have lost something', () => {
		expect(weigh(9, [[20, 18]]).againstNeighbours).toBeNull();
		expect(
			weigh(9.9, [
				[20, 19.99],
				[5, 4.999]
			]).againstNeighbours
		).toBeNull();
	});
	it('knows a light pot only with its dry weight', () => {
		expect(weigh(7, [], null)).toMatchObject({ dryness: null, light: null, driesFast: null });
		expect(weigh(7, [], 6.5)).toMatchObject({ light: true, driesFast: false });
	});
});

describe('collar', () => {
	it('covers what a fine count of directions covers, overlaps once', () => {
		fc.assert(
			fc.property(
				fc.array(
					fc.record({ fromDeg: fc.integer({ min: 0, max: 359 }), toDeg: fc.integer({ min: 0, max: 359 }) }),
					{ maxLength: 6 }
				),
				(arcs) => {
					let covered = 0;
					for (let half = 0; half < 720; half++) {
						const at = half / 2 + 0.25;
						if (arcs.some(({ fromDeg, toDeg }) => (at - fromDeg + 360) % 360 < (toDeg - fromDeg + 360) % 360))
							covered++;
					}
					expect(arcCover(arcs)).toBeCloseTo(covered / 720, 6);
				}
			)
		);
	});
	it('finds the grade of girdling and of the flare', () => {
		const judge = (raw: object) => judgeCollar(collarData.parse(raw), 80, defaultValues);
		expect(judge({ flare: 'all-round', across: [] })).toEqual({
			arcShare: 0,
			girdlerGrade: 0,
			flareGrade: 0,
			severity: 'none'
		});
		// Roots across it are none only where somebody says so.
		expect(judge({ flare: 'all-round' })).toEqual({
			arcShare: null,
			girdlerGrade: null,
			flareGrade: 0,
			severity: null
		});
		const across = (toDeg: number) => [{ fromDeg: 0, toDeg, diameterMm: 8 }];
		expect(judge({ flare: 'one-side', across: across(40) })).toMatchObject({
			girdlerGrade: 1,
			flareGrade: 1
		});
		expect(judge({ flare: 'none', across: across(150) })).toMatchObject({ girdlerGrade: 2, flareGrade: 2 });
		expect(judge({ flare: 'none', across: across(190) })).toMatchObject({
			girdlerGrade: 3,
			severity: 'critical'
		});
		// A flare that had to be dug for was not seen before.
		expect(judge({ flare: 'all-round', buriedMm: 90 })).toMatchObject({ flareGrade: 2 });
	});
});

/** One reading of every tool. */
const readings: RawReading[] = [
	{
		tool: 'weighing',
		wateredOn: '2026-04-10',
		fullKg: 8,
		nowKg: 7.9,
		dryKg: 6,
		neighbours: [
			{ name: 'A', fullKg: 8, nowKg: 7 },
			{ name: 'B', fullKg: 6, nowKg: 5 }
		]
	},
	{ tool: 'moisture', feel: 'damp', probeShare: 0.3 },
	{ tool: 'outflow', pouredL: 2, ranOutL: 1.4, firstDripS: 5 },
	{ tool: 'drain-time', minutes: 20 },
	{ tool: 'squeeze-test', result: 'drips' },
	{
		tool: 'scratch-tap',
		heightMm: 900,
		points: [
			{ heightMm: 100, sideDeg: 0, reading: 'dead' },
			{ heightMm: 300, sideDeg: 90, reading: 'dead' },
			{ heightMm: 500, sideDeg: 180, reading: 'hollow' },
			{ heightMm: 800, sideDeg: 0, reading: 'dead' }
		]
	},
	{
		tool: 'collar',
		flare: 'none',
		buriedMm: 80,
		heaped: true,
		rootsAboveFlare: true,
		across: [{ fromDeg: 0, toDeg: 200, diameterMm: 20 }]
	},
	{ tool: 'root-sample', alive: 10, dead: 40 },
	{ tool: 'slide-test', result: 'crumbles', wallShare: 0.9, outOfHoles: true },
	{ tool: 'texture', ball: true, ribbonMm: 30, feel: 'neither', organicPercent: 2.5 },
	{
		tool: 'penetrometer',
		source: 'typed',
		moisture: 'field',
		readings: [{ position: 1, depthMm: 60, resistanceMpa: 4, readings: 1 }]
	},
	{
		tool: 'soil-cores',
		texture: 'clay',
		cores: [{ fromMm: 50, toMm: 100, ringMl: 100, freshG: 190, dryG: 160 }]
	},
	{
		tool: 'infiltration',
		ringDiameterMm: 300,
		readings: [
			{ minutes: 0, sunkMm: 0 },
			{ minutes: 60, sunkMm: 1 }
		]
	}
];

describe('every tool', () => {
	it('has a reading here, feeds signs that exist at grades that exist, and is told in words', () => {
		expect(readings.map((raw) => raw.tool)).toEqual(tools);
		const format = createFormat(defaultFormatSettings);
		for (const raw of readings) {
			expect(rawReading.parse(raw)).toEqual(raw);
			const signs = findingsOf(raw, '2026-04-14', tree, defaultValues);
			// Texture and how damp it is are no signs of illness; every other tool finds something in the worst case.
			expect(
				signs.some((sign) => sign.grade > 0),
				raw.tool
			).toBe(raw.tool !== 'texture' && raw.tool !== 'moisture');
			for (const { signId, grade } of signs) {
				expect(grade, `${raw.tool} ${signId}`).toBeLessThanOrEqual(topGrade(signId));
				const at = signApplies(signId, 'potted') ? 'potted' : 'in-ground';
				expect(toolFor(signId, at) ?? toolFor(signId, 'in-ground'), signId).not.toBeNull();
			}
			expect(readingWords(raw, '2026-04-14', tree, defaultValues, format)).toMatch(/\w/);
		}
	});
	it('a weighing is told with its neighbours where they were weighed, and by its weights where it was never dry', () => {
		const format = createFormat(defaultFormatSettings);
		const told = (raw: object) =>
			plain(
				readingWords(
					rawReading.parse({ tool: 'weighing', wateredOn: '2026-04-13', fullKg: 8, nowKg: 7.5, ...raw }),
					'2026-04-14',
					tree,
					defaultValues,
					format
				)
			);
		expect(told({ dryKg: 6 })).toBe('25 % of the way to dry, 1 day after water');
		expect(told({})).toBe('7.5 kg of 8 kg, 1 day after water');
		expect(told({ dryKg: 6, wateredOn: '2026-04-10' })).toMatch(/, 4 days after water$/);
		expect(
			told({
				dryKg: 6,
				neighbours: [
					{ name: 'A', fullKg: 8, nowKg: 7 },
					{ name: 'B', fullKg: 4, nowKg: 3.5 }
				]
			})
		).toMatch(/^25 % of the way to dry, 1 day after water, drinks 50 % of its neighbours’ share$/);
	});
	it('never takes for not there what nobody answered', () => {
		const format = createFormat(defaultFormatSettings);
		for (const raw of readings)
			for (const left of Object.keys(raw)) {
				const { [left as 'tool']: _left, ...rest } = raw;
				const parsed = rawReading.safeParse(rest);
				// Of a pot whose neighbours nobody lifted its own weights tell.
				if (!parsed.success || left === 'neighbours') continue;
				for (const { signId, grade } of findingsOf(parsed.data, '2026-04-14', tree, defaultValues))
					expect(grade, `${raw.tool} without ${left}: ${signId}`).toBeGreaterThan(0);
				expect(readingWords(parsed.data, '2026-04-14', tree, defaultValues, format)).not.toMatch(
					/null|\bno root/
				);
			}
		expect(
			readingWords(
				rawReading.parse({ tool: 'collar', flare: 'one-side', buriedMm: 90 }),
				'2026-04-14',
				tree,
				defaultValues,
				format
			)
		).toMatch(/^flare on one side, 90.mm deep, roots across it not looked for$/);
	});
	it('is offered where it can be used: a pot’s only to a tree in a pot, and none that would tell nothing', () => {
		for (const situation of situations) {
			const offered = toolsFitting(tools, situation);
			expect(offered.includes('weighing'), situation).toBe(situation === 'potted');
			for (const raw of readings) {
				const telling = findingsOf(raw, '2026-04-14', tree, defaultValues).some(({ signId }) =>
					signApplies(signId, situation)
				);
				if (raw.tool === 'drain-time') expect(offered.includes(raw.tool)).toBe(situation === 'potted');
				else if (offered.includes(raw.tool) && !soilTools.some((one) => one === raw.tool))
					expect(telling || raw.tool === 'moisture', `${raw.tool} ${situation}`).toBe(true);
				else if (!offered.includes(raw.tool)) expect(telling, `${raw.tool} ${situation}`).toBe(false);
			}
			for (const sign of signIds) {
				const tool = toolFor(sign, situation);
				if (tool) expect(offered, sign).toContain(tool);
			}
		}
		expect(toolFor('water-stands', 'just-lifted')).toBeNull();
	});
	it('says nothing of a hard profile in dry soil, but of an open one it does', () => {
		const probe = (moisture: string, resistanceMpa: number) =>
			found({ tool: 'penetrometer', moisture, readings: [{ position: 1, depthMm: 100, resistanceMpa }] });
		expect(probe('dry', 3.5)).toEqual([]);
		expect(probe('field', 3.5)).toEqual([{ signId: 'probe-stops', grade: 2 }]);
		expect(probe('dry', 0.8)).toEqual([{ signId: 'probe-stops', grade: 0 }]);
	});
	it('refuses a reading of no tool, and one whose parts do not fit', () => {
		const problem = (raw: object) =>
			measurementInput.safeParse({ measuredOn: '2026-04-14', raw }).error?.issues[0]?.message;
		expect(problem({ tool: 'crystal ball' })).toMatch(/must name its tool/);
		expect(problem({ tool: 'root-sample', alive: 0, dead: 0 })).toMatch(/at least one root/);
		expect(problem({ tool: 'outflow', pouredL: 1, ranOutL: 2 })).toMatch(/not be more than was poured/);
		expect(
			problem({
				tool: 'soil-cores',
				texture: 'clay',
				cores: [{ fromMm: 0, toMm: 50, ringMl: 100, dryG: 300 }]
			})
		).toMatch(/heavier than rock/);
	});
});

describe('measurements in a look', () => {
	const kept = (id: string, measuredOn: string, raw: unknown) =>
		measurementSchema.parse({ id, version: 1, measuredOn, raw });
	it('count for their time, the latest first, and only where the sign applies', () => {
		const list = [
			kept('new', '2026-04-10', { tool: 'drain-time', minutes: 0.5 }),
			kept('old', '2026-04-08', { tool: 'drain-time', minutes: 30 }),
			kept('stale', '2026-01-01', { tool: 'squeeze-test', result: 'drips' }),
			kept('later', '2026-04-20', { tool: 'squeeze-test', result: 'drips' })
		];
		expect(measuredFindings(list, '2026-04-14', tree, defaultValues)).toEqual([
			{ signId: 'water-stands', grade: 0, measuredBy: 'new' }
		]);
		const mat = [kept('m', '2026-04-10', { tool: 'slide-test', result: 'tight', wallShare: 0.9 })];
		expect(measuredFindings(mat, '2026-04-14', { ...tree, situation: 'in-ground' }, defaultValues)).toEqual(
			[]
		);
	});
});

describe('tests by hand', () => {
	it('a mat of circling roots is graded by how much of the wall it covers; unseen, it is not graded', () => {
		const grade = (wallShare: number | null) =>
			matGrade(slideTestData.parse({ result: 'slides', wallShare }), defaultValues);
		expect(grade(null)).toBeNull();
		const at = [defaultValues['measuring.mat-some'], defaultValues['measuring.mat-solid']] as const;
		expect([
			grade(0),
			grade(at[0] - 0.01),
			grade(at[0]),
			grade(at[1] - 0.01),
			grade(at[1]),
			grade(1)
		]).toEqual([0, 0, 1, 1, 2, 2]);
		// A share of the wall, never more than all of it.
		expect(slideTestData.safeParse({ result: 'slides', wallShare: 1.2 }).success).toBe(false);
	});
	it('a mix that crumbles is well, one that stays a lump is not, dripping or not', () => {
		expect(squeezeResults.map((result) => squeezeGrade({ result }))).toEqual([0, 1, 2, 2]);
	});
});
