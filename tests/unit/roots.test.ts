import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { allowance, allowanceGroup } from '$core/roots/plan/allowance';
import { contactArc } from '$core/roots/map/contact';
import { girdlingSeverity } from '$core/examine/measuring/girdling';
import { courseLengthMm } from '$core/roots/map/geometry';
import { stemsOf } from '$core/roots/map/outline';
import { ledger, type LedgerCut } from '$core/roots/plan/ledger';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { ribbon, ribbonOutline } from '$core/roots/map/ribbon';
import {
	rootFlaws,
	rootMapInput,
	rootsFrom,
	segmentFromQuick,
	segmentProblem,
	type Segment
} from '$core/roots/map/root-map';
import { beyondShare, removedBy, rootShares, usualCutPlace } from '$core/roots/map/shares';
import { defaultValues, resolveValues } from '$core/values/values';

const TRUNK = 100;
const root = (line: string, id: string, patch: Partial<Segment> = {}): Segment => {
	const entry = parseQuickRoot(line, 'container', TRUNK, defaultValues);
	if (!entry.ok) throw new Error(entry.problem);
	return { ...segmentFromQuick(entry.root, { trunkDiameterMm: TRUNK, ballRadiusMm: 200 }, id), ...patch };
};
/** As long as four tenths of a metre, straight out. */
const rootLong = (line: string, id: string, patch: Partial<Segment> = {}): Segment => {
	const short = root(line, id, patch);
	const [first] = short.course;
	if (!first) throw new Error('no course');
	return { ...short, course: [first, { ...first, radiusMm: first.radiusMm + 400 }] };
};
const mapOf = (segments: Segment[]) => ({ segments, trunkDiameterMm: TRUNK });

/** Random maps: up to twelve roots, some with a side root, some dead, kept or untraced. */
const segmentsArb = fc
	.array(
		fc.record({
			azimuth: fc.integer({ min: 0, max: 359 }),
			mm: fc.double({ min: 2, max: 40, noNaN: true }),
			rootClass: fc.constantFrom<Segment['rootClass']>('anchor', 'scaffold', 'secondary', 'feeder'),
			condition: fc.constantFrom<Segment['condition']>('sound', 'sound', 'sound', 'doubtful', 'dead'),
			flaw: fc.constantFrom(...rootFlaws, null, null, null, null),
			keep: fc.boolean(),
			traced: fc.integer({ min: 0, max: 5 }).map((n) => n > 0),
			side: fc.boolean()
		}),
		{ minLength: 1, maxLength: 12 }
	)
	.map((drafts) =>
		drafts.map((draft, i): Segment => {
			const parent = draft.side && i > 0 ? `r${i - 1}` : null;
			return root(`${draft.azimuth}° ${draft.mm.toFixed(1)}`, `r${i}`, {
				parentId: parent,
				attachMm: parent ? 30 : 0,
				rootClass: draft.rootClass,
				condition: draft.flaw === 'rotten' ? 'dead' : draft.condition,
				deadFromMm: draft.condition === 'dead' || draft.flaw === 'rotten' ? (i % 2 ? 20 : 0) : null,
				flaws: draft.flaw ? [draft.flaw] : [],
				keep: draft.keep,
				sourceKnown: draft.traced
			});
		})
	);

describe('quick entry', () => {
	it('reads place, thickness and words in any order', () => {
		const entry = parseQuickRoot('6:30 15 sec girdling d6 # bites', 'container', 60, defaultValues);
		expect(entry).toMatchObject({
			ok: true,
			root: {
				azimuthDeg: 15,
				diameterMm: 15,
				rootClass: 'secondary',
				flaws: ['girdling'],
				depthMm: 6,
				note: 'bites'
			}
		});
		expect(parseQuickRoot('90° 9,5 dead40', 'ground', 60, defaultValues)).toMatchObject({
			ok: true,
			root: { azimuthDeg: 90, diameterMm: 9.5, condition: 'dead', deadFromMm: 40 }
		});
		const towards = (place: string): number | null => {
			const entry = parseQuickRoot(`${place} 9`, 'ground', 60, defaultValues);
			return entry.ok ? entry.root.azimuthDeg : null;
		};
		expect(['12.55°', '12,5deg', '360°', '361°', '90°w', 'w90°'].map(towards)).toEqual([
			12.55,
			12.5,
			0,
			null,
			null,
			null
		]);
		for (const [units, wanted] of [
			['metric', 'Now its thickness in mm.'],
			['imperial', 'Now its thickness in inches.']
		] as const)
			expect(parseQuickRoot('9', 'container', 60, defaultValues, units)).toMatchObject({
				ok: false,
				problem: wanted
			});
		expect(parseQuickRoot('9 31 keep anchor', 'container', 60, defaultValues)).toMatchObject({
			ok: true,
			root: { azimuthDeg: 90, keep: true }
		});
		expect(parseQuickRoot('9 31 cut2', 'ground', 60, defaultValues)).toMatchObject({
			ok: true,
			root: { azimuthDeg: 270, stage: 1 }
		});
	});

	it.each([
		['', /Begin with where/],
		['13 10', /clock position 1 to 12/],
		['6:75 10', /clock position/],
		['400° 10', /degrees/],
		['6', /thickness/],
		['6 abc', /0.2 to 1500/],
		['6 -4', /0.2 to 1500/],
		['6 80', /thicker than the trunk/],
		['6 10 banana', /"banana" is not a word/],
		['6 10 keep cut', /both kept and cut/],
		['6 10 trace cut', /trace further cannot be cut/]
	])('says what is wrong with "%s"', (line, problem) => {
		const entry = parseQuickRoot(line, 'container', 60, defaultValues);
		expect(entry.ok).toBe(false);
		expect(entry.ok ? '' : entry.problem).toMatch(problem);
	});

	it('draws every flaw as a course that the map takes', () => {
		for (const flaw of rootFlaws) {
			const segment = root(flaw === 'rotten' ? '4:20 12 dead' : '4:20 12', 'r', { flaws: [flaw] });
			const map = {
				mappedOn: '2026-04-18',
				frame: 'container',
				trunkDiameterMm: TRUNK,
				ballRadiusMm: 200,
				segments: [segment]
			};
			expect(rootMapInput.safeParse(map).success, flaw).toBe(true);
			expect(courseLengthMm(segment.course)).toBeGreaterThan(10);
		}
	});
});

describe('what a hand says of rot', () => {
	const of = (words: string) => parseQuickRoot(`7:30 7 ${words}`, 'container', 60, defaultValues);
	it.each(['rotten', 'soft', 'mushy', 'rot', 'soft rotten'])('%s is dead and rotten', (words) => {
		expect(of(words)).toMatchObject({
			ok: true,
			root: { condition: 'dead', flaws: ['rotten'], deadFromMm: null }
		});
	});
	it('may begin so far out; dry and dead is not rotten; alive is sound', () => {
		expect(of('rot40')).toMatchObject({ root: { condition: 'dead', flaws: ['rotten'], deadFromMm: 40 } });
		expect(of('dead40')).toMatchObject({ root: { condition: 'dead', flaws: [], deadFromMm: 40 } });
		expect(of('brittle')).toMatchObject({ root: { condition: 'dead', flaws: [] } });
		expect(of('living')).toMatchObject({ root: { condition: 'sound', flaws: [] } });
	});
	it('a word that is not known says which are', () => {
		const refused = of('wobbly');
		expect(refused.ok).toBe(false);
		if (refused.ok) return;
		expect(refused.problem).toContain('"wobbly" is not a word known here');
		for (const word of 'keep trace cut sound doubtful dead rotten dead40 d20 l180 anchor scaffold secondary feeder girdling circling crossing rising torn'.split(
			' '
		)) {
			expect(refused.problem).toContain(word);
			expect(of(word).ok, word).toBe(true);
		}
	});
});

describe('a root map refuses', () => {
	const map = (segments: unknown[]) => ({
		mappedOn: '2026-04-18',
		frame: 'container',
		trunkDiameterMm: TRUNK,
		ballRadiusMm: 200,
		segments
	});
	const fault = (segments: unknown[]) => rootMapInput.safeParse(map(segments)).error?.issues[0];
	it('a root whose parent is itself, rings of parents and unknown parents', () => {
		expect(fault([root('6 10', 'a', { parentId: 'a' })])?.message).toMatch(/root itself/);
		expect(
			fault([root('6 10', 'a', { parentId: 'b' }), root('7 10', 'b', { parentId: 'a' })])?.message
		).toMatch(/lead back/);
		expect(fault([root('6 10', 'a', { parentId: 'z' })])?.message).toMatch(/root of this map/);
		expect(
			segmentProblem([
				{ id: 'a', parentId: null },
				{ id: 'a', parentId: null }
			])?.field
		).toBe('id');
	});
	it('a rotten root that is not dead', () => {
		expect(fault([root('6 10', 'a', { flaws: ['rotten'] })])?.message).toMatch(/dead where it is rotten/);
	});
	it('a root thicker than the trunk, NaN, and too many roots', () => {
		expect(fault([root('6 10', 'a', { diameterStartMm: 120, diameterEndMm: 60 })])?.message).toMatch(
			/thicker than the trunk/
		);
		expect(fault([root('6 10', 'a', { diameterStartMm: NaN })])?.message).toMatch(/0.2 to 1500 mm/);
		expect(fault(Array.from({ length: 401 }, (_, i) => root('6 10', `r${i}`)))?.message).toMatch(
			/at most 400/
		);
	});
});

describe('contact with the trunk', () => {
	const R = TRUNK / 2;
	const trunk = stemsOf({ trunkDiameterMm: TRUNK });
	const at = (azimuthDeg: number, radiusMm: number) => ({ azimuthDeg, radiusMm, depthMm: 0 });
	it('is whole for a ring that lies on the bark, and its share for a part of it (closed form)', () => {
		const arc = (deg: number) => Array.from({ length: 60 }, (_, i) => at((i * deg) / 59, R + 4));
		const whole = contactArc(
			{ course: arc(360), diameterStartMm: 8, parentId: 'x' },
			trunk,
			resolveValues({ 'contact.toleranceMm': 0.5 })
		);
		expect(whole.share).toBeCloseTo(1, 2);
		// Beyond each end the reach of 4.5 mm covers acos((R² + (R+4)² − 4.5²) / 2R(R+4)) more.
		const beyond = (Math.acos((R * R + (R + 4) ** 2 - 4.5 ** 2) / (2 * R * (R + 4))) * 180) / Math.PI;
		const part = contactArc(
			{ course: arc(120), diameterStartMm: 8, parentId: 'x' },
			trunk,
			resolveValues({ 'contact.toleranceMm': 0.5 })
		);
		expect(part.share * 360).toBeCloseTo(120 + 2 * beyond, -0.5);
	});
	it('is that of the stem it touches most, in whatever order they stand', () => {
		// A ring on the bark of the one passes the other by on one side.
		const ring = Array.from({ length: 60 }, (_, i) => at((i * 200) / 59, R + 4));
		const beside = trunk.map((stem) => ({ ...stem, centre: { azimuthDeg: 100, radiusMm: 2 * R + 10 } }));
		const touched = (stems: typeof trunk) =>
			contactArc({ course: ring, diameterStartMm: 8, parentId: 'x' }, stems, defaultValues);
		const alone = touched(trunk);
		const other = touched(beside);
		expect(other.share).toBeGreaterThan(0);
		expect(other.share).toBeLessThan(alone.share);
		for (const stems of [
			[...trunk, ...beside],
			[...beside, ...trunk]
		]) {
			const both = touched(stems);
			expect(both.share).toBe(alone.share);
			expect(both.stem).toBe(trunk[0]);
			expect(both.stretches).toHaveLength(alone.stretches.length + other.stretches.length);
		}
	});
	it('of a straight tangent follows 2 acos(1 − reach/R)', () => {
		const tangent = [
			{ azimuthDeg: (Math.atan2(-300, R) * 180) / Math.PI, radiusMm: Math.hypot(300, R), depthMm: 0 },
			{ azimuthDeg: (Math.atan2(300, R) * 180) / Math.PI, radiusMm: Math.hypot(300, R), depthMm: 0 }
		];
		const reach = 12 / 2 + 5;
		const { share } = contactArc(
			{ course: tangent, diameterStartMm: 12, parentId: 'x' },
			trunk,
			defaultValues
		);
		expect(share).toBeCloseTo(Math.acos(1 - reach / R) / Math.PI, 2);
	});
	it('needs the trunk at that depth: a ring far below the flare girdles nothing, one above it does', () => {
		const ring = (depthMm: number) =>
			contactArc(
				{
					course: Array.from({ length: 60 }, (_, i) => ({
						azimuthDeg: (i * 360) / 59,
						radiusMm: R + 4,
						depthMm
					})),
					diameterStartMm: 8,
					parentId: 'x'
				},
				trunk,
				defaultValues
			).share;
		expect(ring(-200)).toBeCloseTo(1, 2);
		expect(ring(0)).toBeCloseTo(1, 2);
		// Trunk reaches half its thickness down, and half the root and the tolerance more.
		expect(ring(TRUNK / 2 + 8)).toBeCloseTo(1, 2);
		expect(ring(TRUNK / 2 + 10)).toBe(0);
		expect(ring(400)).toBe(0);
		expect(ring(2000)).toBe(0);
	});
	it('falls with depth and never comes back: monotone for any course let down', () => {
		fc.assert(
			fc.property(
				fc.array(
					fc.record({
						azimuthDeg: fc.integer({ min: 0, max: 359 }),
						radiusMm: fc.integer({ min: 10, max: 90 })
					}),
					{
						minLength: 3,
						maxLength: 8
					}
				),
				fc.integer({ min: 0, max: 60 }),
				(points, slope) => {
					const shares = [0, 10, 20, 30, 40, 60, 90, 200].map(
						(down) =>
							contactArc(
								{
									course: points.map((point, i) => ({
										...point,
										depthMm: down + (slope * i) / points.length
									})),
									diameterStartMm: 8,
									parentId: 'x'
								},
								trunk,
								defaultValues
							).share
					);
					for (const [i, share] of shares.entries())
						expect(share).toBeLessThanOrEqual((shares[i - 1] ?? 1) + 1e-9);
				}
			),
			{ numRuns: 60 }
		);
	});
	it('is none for a root that leaves the trunk straight', () => {
		for (const mm of [2, 6, 15, 40])
			expect(
				contactArc(
					{ course: [at(0, R), at(0, R + 200)], diameterStartMm: mm, parentId: null },
					trunk,
					defaultValues
				).share
			).toBe(0);
	});
	it.each([
		[0.1, 5, 'watch'],
		[0.2, 5, 'moderate'],
		[0.4, 5, 'serious'],
		[0.6, 5, 'critical'],
		[0.2, 25, 'serious'],
		[0, 25, 'none']
	])('of %f by a root of %i mm is %s', (share, mm, severity) => {
		expect(girdlingSeverity(share, mm, TRUNK, defaultValues)).toBe(severity);
	});
});

describe('what was not said of a root', () => {
	it('is a guess until it is: class, depth and length each by themselves', () => {
		expect(root('6 20', 'a').guessed).toEqual(['class', 'depth', 'length']);
		expect(root('6 20 anchor', 'a').guessed).toEqual(['depth', 'length']);
		expect(root('6 20 anchor d30', 'a').guessed).toEqual(['length']);
		expect(root('6 20 anchor d30 l200', 'a').guessed).toEqual([]);
	});
});

describe('a torn end', () => {
	it('is cut behind the tear, and costs little more than what was torn', () => {
		const torn = rootLong('6 20 torn', 't', { diameterEndMm: 8 });
		const lengthMm = courseLengthMm(torn.course);
		expect(usualCutPlace(torn, defaultValues)).toBe(Math.round(lengthMm - 2 * 8));
		expect(usualCutPlace({ ...torn, flaws: ['torn', 'girdling'] }, defaultValues)).toBe(0);
		expect(beyondShare(torn, usualCutPlace(torn, defaultValues), defaultValues)).toBeLessThan(0.1);
	});
});

describe('shares of the living root', () => {
	it('sum to one, carry on to side roots, and cost nothing where dead', () => {
		const parent = root('6 20', 'p');
		const side = root('6:10 12', 's', { parentId: 'p', attachMm: 60 });
		const dead = root('9 30 dead', 'd');
		const shares = rootShares([parent, side, dead], defaultValues);
		const own = (id: string) => shares.absorbing.get(id) ?? NaN;
		expect(own('p') + own('s')).toBeCloseTo(1, 12);
		expect(own('d')).toBe(0);
		// Pipe model: (20² − 12²) to the parent's own tip, 12² to the side root; same fine score.
		expect(own('s')).toBeCloseTo(144 / 400, 12);
		expect(shares.deadShare).toBeGreaterThan(0.5);
	});
	it('a cut beyond a side root keeps it, a cut before it takes it', () => {
		const segments = [root('6 20', 'p'), root('6:10 12', 's', { parentId: 'p', attachMm: 60 })];
		const byId = new Map(segments.map((segment) => [segment.id, segment]));
		const shares = rootShares(segments, defaultValues);
		expect(removedBy({ segmentId: 'p', atMm: 80 }, byId, shares, defaultValues)).toEqual([]);
		expect(removedBy({ segmentId: 'p', atMm: 10 }, byId, shares, defaultValues).sort()).toEqual(['p', 's']);
		expect([...rootsFrom(segments, 'p')].sort()).toEqual(['p', 's']);
	});
	it('cut anywhere along it, a root gives what lies beyond: all at its base, less the farther out, nothing at its end', () => {
		const long = rootLong('6 20', 'p');
		const lengthMm = courseLengthMm(long.course);
		const at = (mm: number) => beyondShare(long, mm, defaultValues);
		expect(at(0)).toBe(1);
		// A stub of less than two thicknesses is no root any more.
		expect(at(39)).toBe(1);
		expect(at(41)).toBeLessThan(1);
		// Fine roots stand toward the tip: half way takes more than a half, by the power of 1.5 what is 1 − 0.5^1.5.
		expect(at(lengthMm / 2)).toBeCloseTo(1 - 0.5 ** 1.5, 9);
		expect(at(lengthMm)).toBe(0);
		expect(at(lengthMm + 50)).toBe(0);
		fc.assert(
			fc.property(
				fc.double({ min: 0, max: 600, noNaN: true }),
				fc.double({ min: 0, max: 600, noNaN: true }),
				(a, b) => {
					expect(at(Math.max(a, b))).toBeLessThanOrEqual(at(Math.min(a, b)));
				}
			)
		);
		const map = mapOf([long, rootLong('12 20', 'q')]);
		const cost = (mm: number) => ledger(map, [{ segmentId: 'p', atMm: mm, stage: 0 }], [1], defaultValues);
		expect(cost(0).totalLoss).toBeCloseTo(0.5, 9);
		expect(cost(200).totalLoss).toBeCloseTo(0.5 * at(200), 9);
		expect(cost(200).cutCost.get('p')).toBeCloseTo(0.5 * at(200), 9);
		// What is only shortened holds on.
		expect([cost(0).gone.has('p'), cost(200).gone.has('p')]).toEqual([true, false]);
		expect(cost(200).least?.left).toBe(1);
	});
	it('shortened first and taken whole later, a root is lost once', () => {
		const segments = [rootLong('6 30', 'p'), rootLong('6:10 12', 's', { parentId: 'p', attachMm: 100 })];
		const map = mapOf(segments);
		const both = ledger(
			map,
			[
				{ segmentId: 's', atMm: 150, stage: 0 },
				{ segmentId: 'p', atMm: 0, stage: 1 }
			],
			[1, 1],
			defaultValues
		);
		expect(both.totalLoss).toBeCloseTo(1, 9);
		expect(both.stages[0]?.loss).toBeGreaterThan(0);
	});
});

describe('the ledger', () => {
	it('takes children with their parent, and losses add up to what is gone', () => {
		fc.assert(
			fc.property(segmentsArb, fc.integer({ min: 0, max: 11 }), (segments, pick) => {
				const target = segments[pick % segments.length];
				if (!target) return;
				const cuts: LedgerCut[] = [{ segmentId: target.id, atMm: 0, stage: 0 }];
				const result = ledger(mapOf(segments), cuts, [1], defaultValues);
				expect([...result.gone].sort()).toEqual([...rootsFrom(segments, target.id)].sort());
				const shares = rootShares(segments, defaultValues);
				const sum = [...result.gone].reduce((total, id) => total + (shares.absorbing.get(id) ?? 0), 0);
				expect(result.totalLoss).toBeCloseTo(sum, 9);
				expect(result.totalLoss).toBeCloseTo(result.carried.get(target.id) ?? 0, 9);
			}),
			{ numRuns: 60 }
		);
	});

	it('turning the map turns azimuths only; scaling leaves shares unchanged', () => {
		fc.assert(
			fc.property(segmentsArb, fc.constantFrom(30, 90, 150), (segments, turn) => {
				const turned = segments.map((s) => ({
					...s,
					course: s.course.map((p) => ({ ...p, azimuthDeg: p.azimuthDeg + turn }))
				}));
				const scaled = segments.map((s) => ({
					...s,
					diameterStartMm: s.diameterStartMm * 2,
					diameterEndMm: s.diameterEndMm * 2
				}));
				const cuts: LedgerCut[] = segments.slice(0, 2).map((s) => ({ segmentId: s.id, atMm: 0, stage: 0 }));
				const base = ledger(mapOf(segments), cuts, [1], defaultValues);
				const other = ledger(mapOf(turned), cuts, [1], defaultValues);
				expect(other.totalLoss).toBeCloseTo(base.totalLoss, 9);
				expect(other.after.resultantLength).toBeCloseTo(base.after.resultantLength, 9);
				expect(other.after.gapDeg).toBeCloseTo(base.after.gapDeg, 6);
				const shift = turn / 30;
				for (const [i, window] of base.windows.entries()) {
					const same = other.windows[(i + shift) % 12]?.left ?? null;
					if (window.left === null) expect(same).toBeNull();
					else expect(same).toBeCloseTo(window.left, 9);
				}
				expect(ledger(mapOf(scaled), cuts, [1], defaultValues).totalLoss).toBeCloseTo(base.totalLoss, 9);
			}),
			{ numRuns: 40 }
		);
	});

	it('names what a plan may not do', () => {
		const map = mapOf([root('6 30', 'a', { keep: true }), root('8 12 trace', 'b')]);
		const cuts = [
			{ segmentId: 'a', atMm: 0, stage: 0 },
			{ segmentId: 'b', atMm: 0, stage: 0 }
		];
		expect(ledger(map, cuts, [1], defaultValues).violations).toEqual([
			'The source of root 2 is not known: trace it further before it is cut.',
			'root 1 is locked to be kept, yet it would go.'
		]);
	});

	it('allows a later stage B (1 − (1 − g) · lost before)', () => {
		const segments = [root('6 20', 'a'), root('9 20', 'b'), root('12 20', 'c'), root('3 20', 'd')];
		const result = ledger(
			mapOf(segments),
			[{ segmentId: 'a', atMm: 0, stage: 0 }],
			[0.3, 0.3],
			defaultValues
		);
		expect(result.stages[0]).toMatchObject({ loss: 0.25, allowed: 0.3, fits: true });
		expect(result.stages[1]?.allowed).toBeCloseTo(0.3 * (1 - 0.4 * 0.25), 12);
	});
});

describe('allowance', () => {
	it('multiplies base, vigour, season and reserves (handbook table, our own defaults)', () => {
		const usual = allowance(
			{
				group: 'deciduous',
				temper: 'usual',
				vigour: 'fair',
				reserves: 'few-years-potted',
				seasonFit: 'shoulder'
			},
			defaultValues
		);
		expect(usual.share).toBeCloseTo(0.4 * 0.75 * 0.7 * 0.85, 12);
		const least = allowance(
			{
				group: 'landscape',
				temper: 'gentle',
				vigour: 'weak',
				reserves: 'long-potted',
				seasonFit: 'out-of-window'
			},
			defaultValues
		);
		expect(least.share).toBeCloseTo(0.1 * 0.5 * 0.4 * 0.7, 12);
	});
	it('judges a thick standing tree as a landscape tree', () => {
		expect(allowanceGroup('deciduous', 'in-ground', 620, defaultValues)).toBe('landscape');
		expect(allowanceGroup('deciduous', 'potted', 620, defaultValues)).toBe('deciduous');
	});
});

it('draws a ribbon as wide as the root', () => {
	const points = ribbon({
		course: [
			{ azimuthDeg: 90, radiusMm: 0, depthMm: 0 },
			{ azimuthDeg: 90, radiusMm: 100, depthMm: 0 }
		],
		diameterStartMm: 10,
		diameterEndMm: 4
	});
	const outline = ribbonOutline(points);
	expect(Math.abs((outline[0]?.y ?? 0) - (outline.at(-1)?.y ?? 0))).toBeCloseTo(10, 6);
	expect(points.at(-1)?.halfWidthMm).toBeCloseTo(2, 6);
});
