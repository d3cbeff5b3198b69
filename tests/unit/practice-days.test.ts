import { describe, expect, it } from 'vitest';
import { seasonFit } from '$core/climate/windows';
import { disturbanceFactor } from '$core/examine/diagnosis/act-now';
import { worldParts } from '$core/examine/diagnosis/worlds';
import { stillShows, type Fault } from '$core/practice/lived';
import { playRound, seenOf, type PlayedRound } from '$core/practice/played';
import { dateOf, practiceTree, type PracticeTree } from '$core/practice/practice-tree';
import { practiceActs, practiceWish, remediesOf, wantPeace } from '$core/practice/round';
import { bayOf, sceneOfTruth, truthOf } from '$core/practice/truth';
import { defaultValues as values } from '$core/values/values';
import type { z } from 'zod';
import { conditionIds, type ConditionId } from '$core/vocabulary/conditions';
import { signIds, signOf } from '$core/vocabulary/signs';

/** One thing at a time done to a practice tree: each costs and helps by its own working value, on its own day. */

type GivenAct = z.input<typeof practiceActs> extends (infer One)[] | undefined ? One : never;

const treeOf = (seed: number, conditions: ConditionId[] | null = null, more: object = {}): PracticeTree =>
	practiceTree(practiceWish.parse({ seed, conditions, situation: 'potted', ...more }), values);
const play = (tree: PracticeTree, acts: readonly GivenAct[], day: number): PlayedRound =>
	playRound(tree, practiceActs.parse(acts), day);
const faultOf = (tree: PracticeTree, acts: readonly GivenAct[], day: number): Fault => {
	const [fault] = play(tree, acts, day).faults;
	if (!fault) throw new Error('nothing ails it');
	return fault;
};
/** Log-odds that hands have cost after the first day. */
const handsOf = (tree: PracticeTree, acts: readonly GivenAct[], day = 0): number =>
	(play(tree, acts, day + 1).days.at(-1)?.odds.hands ?? 0) -
	(play(tree, [], day + 1).days.at(-1)?.odds.hands ?? 0);
const oddsOfLoss = (share: number): number => values['practice.perLoss'] * Math.log(1 - share);
const factorOn = (tree: PracticeTree, day: number): number =>
	disturbanceFactor(
		seasonFit(tree.truth.kind, tree.truth.place, dateOf(tree, day), values),
		tree.truth.vigour,
		values
	);
const potOf = (tree: PracticeTree) => {
	const [pot] = tree.stage.scene.pots;
	if (!pot) throw new Error('it stands in no pot');
	return pot;
};
const byHand = (covers = true): GivenAct => ({ day: 0, what: 'care', rule: { water: 'by-hand', covers } });
const cut = (share: number, day = 0, more: object = {}): GivenAct => ({
	day,
	what: 'cut',
	share,
	rot: 0,
	girdles: 0,
	...more
});

describe('what wants peace', () => {
	const tree = treeOf(12151, ['repotted-too-early']);
	const touches: [string, GivenAct][] = [
		['planted', { day: 30, what: 'plant', pot: potOf(tree) }],
		['cut', cut(0.1, 30)],
		['roots bared', { day: 30, what: 'read', reading: 'roots' }],
		['ball opened', { day: 30, what: 'treat', remedy: 'open-ball' }]
	];

	it('fades by half in its days, and costs less as it does', () => {
		const half = values['practice.fadeDays'];
		expect(faultOf(tree, [], half).left).toBeCloseTo(0.5, 9);
		expect(faultOf(tree, [], half).disturbed).toBe(false);
		const [first, later] = [
			faultOf(tree, [], 1).odds,
			faultOf(tree, [], half + 1).odds - faultOf(tree, [], half).odds
		];
		expect(later / first).toBeCloseTo(0.5, 6);
	});

	it.each(touches)('begins anew and costs more where it is touched: %s', (_, act) => {
		const touched = faultOf(tree, [act], 30);
		expect(touched).toMatchObject({ disturbed: true, left: 1 });
		const day = faultOf(tree, [act], 31).odds - touched.odds;
		expect(day / faultOf(tree, [], 1).odds).toBeCloseTo(values['practice.disturbed'], 6);
	});

	it('is not touched by what leaves roots and pot alone', () => {
		for (const act of [
			{ day: 30, what: 'treat', remedy: 'wash' },
			{ day: 30, what: 'read', reading: 'leaves' },
			{ day: 30, what: 'water', share: 1 },
			{ day: 30, what: 'check', signId: 'crown-thin' }
		] satisfies GivenAct[])
			expect(faultOf(tree, [act], 30), act.what).toEqual(faultOf(tree, [], 30));
	});

	it('is told apart from what does not go by itself', () => {
		for (const id of wantPeace) expect(faultOf(treeOf(7, [id]), [], 20).left, id).toBeLessThan(1);
		expect(faultOf(treeOf(7, ['root-rot']), [], 200).left).toBe(1);
	});
});

describe('a fault shows', () => {
	const fault = (left: number, treatedOn: number | null): Fault => ({
		conditionId: 'pest',
		left,
		treatedOn,
		by: null,
		disturbed: false,
		odds: 0
	});
	const [from, mend] = [values['practice.signsFrom'], values['practice.mendDays']];

	it('as long as enough of it is left, and for some days after it was treated', () => {
		expect(stillShows(fault(from, null), 300, values)).toBe(true);
		expect(stillShows(fault(from - 0.01, null), 300, values)).toBe(false);
		expect(stillShows(fault(0, 10), 10 + mend - 1, values)).toBe(true);
		expect(stillShows(fault(0, 10), 10 + mend, values)).toBe(false);
	});
});

describe('what work costs', () => {
	it('is what the diagnosis says that its treatment disturbs, at the roots by season and vigour', () => {
		const tree = treeOf(2127, []);
		const away = values['diagnosis.disturbance.pest'];
		expect(handsOf(tree, [{ day: 0, what: 'treat', remedy: 'wash' }])).toBeCloseTo(oddsOfLoss(away), 9);
		for (const day of [0, 120, 240]) {
			const bound = values['diagnosis.disturbance.pot-bound'] * factorOn(tree, day);
			expect(handsOf(tree, [{ day, what: 'treat', remedy: 'open-ball' }], day), `${day}`).toBeCloseTo(
				oddsOfLoss(Math.min(0.99, bound)),
				9
			);
		}
		// Seasons differ, or nothing was tried.
		expect(new Set([0, 60, 120, 180, 240, 300].map((day) => factorOn(tree, day))).size).toBeGreaterThan(1);
	});

	it('of a cut is by the root that went, by its season, and by what it treats', () => {
		const tree = treeOf(2127, []);
		const { kind, place } = tree.truth;
		const seasons = new Set<string>();
		for (const day of [0, 60, 120, 180, 240, 300]) {
			const fit = seasonFit(kind, place, dateOf(tree, day), values);
			seasons.add(fit);
			const atThirty =
				values['forecast.lossOdds'] * 0.3 +
				values[`triage.season.${fit}`] * Math.min(1, 0.3 / values['rehearse.seasonAt']);
			const alone = play(tree, [cut(0.3, day)], day + 1).odds.roots - play(tree, [], day + 1).odds.roots;
			// A day may add thirst to it.
			expect(alone, `${day}`).toBeLessThanOrEqual(atThirty + 1e-9);
			expect(alone, `${day}`).toBeGreaterThan(atThirty - 0.3);
			const rotten = handsOf(tree, [cut(0, day, { rot: 1 })], day);
			expect(rotten).toBeCloseTo(
				oddsOfLoss(values['diagnosis.disturbance.root-rot'] * factorOn(tree, day)),
				9
			);
		}
		expect(seasons.size).toBeGreaterThan(1);
	});

	it('of looking is paid once a day for all that one opening shows', () => {
		const tree = treeOf(8, ['pot-bound']);
		const opens = signIds.filter((id) => values[`diagnosis.harm.${signOf(id).procedure}`] > 0);
		const [first] = opens;
		const second = opens.find((id) => id !== first && signOf(id).procedure === signOf(first ?? id).procedure);
		if (!first || !second) throw new Error('no opening shows two signs');
		const check = (signId: typeof first, day = 0): GivenAct => ({ day, what: 'check', signId });
		const once = handsOf(tree, [check(first)]);
		expect(once).toBeCloseTo(
			oddsOfLoss(values[`diagnosis.harm.${signOf(first).procedure}`] * factorOn(tree, 0)),
			9
		);
		expect(handsOf(tree, [check(first), check(second)])).toBe(once);
		expect(handsOf(tree, [check(first), check(first, 1)], 1)).toBeLessThan(once - 1e-9);
		expect(play(tree, [check(first), check(second)], 0).minutes).toBe(
			values[`diagnosis.minutes.${first}`] + values[`diagnosis.minutes.${second}`]
		);
	});

	it('takes minutes, each kind its own', () => {
		const tree = treeOf(2127, []);
		const minutes = (act: GivenAct): number => play(tree, [act], 0).minutes;
		expect(minutes(cut(0.1))).toBe(values['rehearse.minutes.roots']);
		expect(minutes({ day: 0, what: 'read', reading: 'roots' })).toBe(values['practice.minutes.roots']);
		expect(minutes({ day: 0, what: 'read', reading: 'leaves' })).toBe(values['rehearse.minutes.look'] / 2);
		expect(minutes({ day: 0, what: 'treat', remedy: 'wash' })).toBe(values['practice.minutes.treat']);
		expect(minutes({ day: 0, what: 'treat', remedy: 'shade', untilDay: 0 })).toBe(0);
		expect(minutes({ day: 0, what: 'plant', pot: potOf(tree) })).toBe(values['practice.minutes.treat']);
		const watered = play(tree, [byHand(), { day: 3, what: 'water', share: 1 }], 10);
		expect(watered.waterings).toBe(1);
		expect(watered.minutes).toBe(values['rehearse.minutes.water']);
	});
});

describe('what work does', () => {
	it('treats what it helps against, by what the diagnosis says it averts, and nothing else', () => {
		for (const id of conditionIds) {
			const [remedy] = remediesOf[id];
			if (!remedy || ['cut-rot', 'free-roots', 'smaller-pot', 'larger-pot'].includes(remedy)) continue;
			const tree = treeOf(3, [id]);
			const treated = faultOf(tree, [{ day: 0, what: 'treat', remedy }], 0);
			expect(treated.left, id).toBeCloseTo(1 - values[`diagnosis.averts.${id}`], 9);
			expect(treated, id).toMatchObject({ treatedOn: 0, by: remedy });
			const other = remedy === 'wash' ? 'support' : 'wash';
			expect(faultOf(tree, [{ day: 0, what: 'treat', remedy: other }], 0), id).toMatchObject({
				left: 1,
				treatedOn: null
			});
		}
	});

	it('half the rot cut out is half of it averted, and twice half no more than half', () => {
		const tree = treeOf(3, ['root-rot']);
		const half = 1 - values['diagnosis.averts.root-rot'] / 2;
		expect(faultOf(tree, [cut(0, 0, { rot: 0.5 })], 0).left).toBeCloseTo(half, 9);
		expect(faultOf(tree, [cut(0, 0, { rot: 0.5 }), cut(0, 0, { rot: 0.5 })], 0).left).toBeCloseTo(half, 9);
		expect(faultOf(treeOf(3, ['girdling-roots']), [cut(0.1, 0, { girdles: 1 })], 0).by).toBe('free-roots');
		expect(faultOf(treeOf(3, ['pot-bound']), [cut(0.1, 0, { bound: 1 })], 0).by).toBe('open-ball');
	});

	it('a pot helps by its size against what its size brought', () => {
		const wide = treeOf(3, ['over-potting']);
		const pot = potOf(wide);
		const into = (tree: PracticeTree, more: object): Fault =>
			faultOf(tree, [{ day: 0, what: 'plant', pot: { ...potOf(tree), ...more } }], 0);
		expect(into(wide, {}).treatedOn).toBeNull();
		expect(into(wide, { unrootedMostL: pot.unrootedMostL / 3 }).by).toBe('smaller-pot');
		const small = treeOf(3, ['pot-too-small']);
		expect(into(small, {}).treatedOn).toBeNull();
		expect(into(small, { unrootedMostL: potOf(small).unrootedMostL + 1 }).by).toBe('larger-pot');
		expect(into(treeOf(3, ['collapsed-mix']), {}).by).toBe('new-mix');
	});

	it('water ends drought, and each watering takes its part of a core that sheds it', () => {
		const dry = treeOf(5, ['drought']);
		const pours: GivenAct[] = [
			byHand(),
			{ day: 0, what: 'water', share: 1 },
			{ day: 2, what: 'water', share: 1 }
		];
		expect(faultOf(dry, pours.slice(0, 2), 2)).toMatchObject({ by: 'soak', treatedOn: 0 });
		expect(faultOf(dry, pours.slice(0, 2), 2).left).toBeCloseTo(1 - values['diagnosis.averts.drought'], 9);
		expect(faultOf(dry, pours.slice(0, 1), 2).left).toBe(1);
		const core = treeOf(5, ['dry-core']);
		expect(faultOf(core, pours, 4).left).toBeCloseTo(values['practice.wateringLeaves'] ** 2, 9);
	});

	it('soaking and flushing are water too', () => {
		const tree = treeOf(5, ['drought']);
		for (const [remedy, wets] of [
			['soak', true],
			['flush', true],
			['wash', false]
		] as const) {
			const [first, next] = play(tree, [byHand(), { day: 0, what: 'treat', remedy }], 2).days;
			expect(first?.watered, remedy).toBe(wets);
			expect(next?.watered, remedy).toBe(false);
		}
	});

	it('a fault eats roots as well as chance', () => {
		const eaten = (id: ConditionId, day: number): number => {
			const tree = treeOf(31, [id]);
			const calm = practiceTree(tree.truth.wish, { ...values, 'practice.eats': 0 });
			return play(calm, [], day).roots - play(tree, [], day).roots;
		};
		expect(eaten('root-rot', 60)).toBeGreaterThan(0.005);
	});

	it('a crown that was cut back is smaller by as much', () => {
		const tree = treeOf(2127, []);
		expect(play(tree, [{ day: 0, what: 'crown', share: 0.3 }], 0).crown).toBeCloseTo(0.7, 9);
		const twice = play(
			tree,
			[
				{ day: 0, what: 'crown', share: 0.3 },
				{ day: 0, what: 'crown', share: 0.3 }
			],
			0
		);
		expect(twice.crown).toBeCloseTo(0.49, 9);
	});

	it('shelter keeps the cold off until its day, for one who covers nothing', () => {
		const tree = [11, 12, 13, 14, 15, 16, 17, 18]
			.map((seed) => treeOf(seed, [], { kindId: 'camellia' }))
			.find((one) => play(one, [byHand(false)], one.days).odds.frost < 0);
		if (!tree) throw new Error('none met frost');
		const frost = (acts: GivenAct[], day = tree.days): number => play(tree, acts, day).odds.frost;
		const shelter = (untilDay: number | null): GivenAct => ({
			day: 0,
			what: 'treat',
			remedy: 'shelter',
			untilDay
		});
		expect(frost([byHand(false)])).toBeLessThan(frost([byHand(true)]));
		expect(frost([byHand(false), shelter(null)])).toBe(frost([byHand(true)]));
		const { days } = tree;
		const firstFrost =
			Array.from({ length: days }, (_, i) => i + 1).find((day) => frost([byHand(false)], day) < 0) ?? 0;
		expect(frost([byHand(false), shelter(firstFrost)], firstFrost)).toBe(0);
		expect(frost([byHand(false), shelter(firstFrost - 1)], firstFrost)).toBeLessThan(0);
	});
});

describe('what is seen of it', () => {
	it('roots cut show for their days, and frost too', () => {
		const tree = treeOf(2127, []);
		const shows = values['practice.lossDays'];
		const since = (day: number) => play(tree, [cut(0.2, 5)], day).since;
		expect(since(4)).not.toContain('recent-root-loss');
		expect(since(5)).toContain('recent-root-loss');
		expect(since(5 + shows - 1)).toContain('recent-root-loss');
		expect(since(5 + shows)).not.toContain('recent-root-loss');
		const cold = [11, 12, 13, 14, 15, 16, 17, 18]
			.map((seed) => treeOf(seed, [], { kindId: 'camellia' }))
			.find((one) => play(one, [byHand(false)], one.days).odds.frost < 0);
		if (!cold) throw new Error('none met frost');
		const burnt = play(cold, [byHand(false)], cold.days).days.find((day) => day.odds.weather < 0)?.day ?? 0;
		expect(play(cold, [byHand(false)], burnt).since).toContain('weather-injury');
		expect(play(cold, [byHand(false)], burnt - 1).since).not.toContain('weather-injury');
	});

	it('what dried out shows it, and what has no air', () => {
		const tree = treeOf(2127, [], { kindId: 'citrus' });
		expect(play(tree, [byHand()], 120).since).toContain('drought');
		const wet = treeOf(5107, ['sour-root-zone']);
		const daily: GivenAct = { day: 0, what: 'care', rule: { water: 'every-days', everyDays: 1 } };
		const drowned = play(wet, [daily], 60);
		expect(drowned.since).toContain('sour-root-zone');
		expect(worldParts[drowned.world]?.[0]).toBe('wet');
		expect(worldParts[play(tree, [byHand()], 120).world]?.[0]).toBe('dry');
		// Watered by need it stands neither wet nor dry for long.
		expect(worldParts[play(tree, [], 120).world]?.[0]).toBe('even');
	});

	it('planted anew its roots have usual room; dead it stays dead', () => {
		const tight = Array.from({ length: 40 }, (_, seed) => treeOf(seed, ['pot-bound'])).find(
			(one) => worldParts[one.truth.world]?.[1] === 'tight'
		);
		if (!tight) throw new Error('none stood tight');
		expect(worldParts[play(tight, [], 0).world]?.[1]).toBe('tight');
		expect(worldParts[play(tight, [{ day: 0, what: 'plant', pot: potOf(tight) }], 0).world]?.[1]).toBe(
			'usual'
		);
		const dead = treeOf(3, ['dead']);
		expect(play(dead, [], 90)).toMatchObject({ diedOn: 0, world: dead.truth.world, thrives: 0 });
		expect(worldParts[dead.truth.world]).toEqual(['dead']);
	});

	it('of a dead tree it does not matter how its roots stand', () => {
		for (let seed = 0; seed < 12; seed++) {
			const tree = treeOf(seed, ['drought']);
			const died = { ...play(tree, [], 0), diedOn: 0 };
			const seen = (world: number) => signIds.map((id) => seenOf(tree, { ...died, world }, id));
			for (let world = 1; world < worldParts.length; world++) expect(seen(world)).toEqual(seen(0));
		}
	});

	it('is the same for some weeks, and may be another after', () => {
		const healthy = treeOf(2127, []);
		const spell = values['practice.signDays'];
		const day = (of: number) =>
			signIds.map((id) => seenOf(healthy, { ...play(healthy, [], 0), day: of }, id));
		expect(day(spell - 1)).toEqual(day(0));
		expect(day(spell)).not.toEqual(day(0));
	});
});

describe('its end', () => {
	const tree = treeOf(5107, ['sour-root-zone']);
	const daily: GivenAct = { day: 0, what: 'care', rule: { water: 'every-days', everyDays: 1 } };

	it('comes on one day: alive the day before, dead from then on', () => {
		const { diedOn } = play(tree, [daily], tree.days);
		if (diedOn === null) throw new Error('it lived');
		expect(play(tree, [daily], diedOn - 1).diedOn).toBeNull();
		expect(play(tree, [daily], diedOn).diedOn).toBe(diedOn);
		// Of what its water and its fault took, the greater is what it died of.
		const { odds, faults, diedOf } = play(tree, [daily], diedOn);
		expect(diedOf).toBe(odds.drowned < (faults[0]?.odds ?? 0) ? 'drowned' : 'sour-root-zone');
	});

	it('is a tree re-established only where its roots, by its own health, are enough', () => {
		const sound = treeOf(2127, []);
		const frail = { ...sound, future: { ...sound.future, fitness: 0.01 } };
		expect(play(sound, [], sound.days).end?.established).toBeGreaterThan(0.5);
		expect(play(frail, [], frail.days).end?.established).toBe(0);
		const end = play(frail, [], frail.days).end;
		expect(end?.worth).toBeCloseTo(values['rehearse.hardlyHeldWorth'] * (end?.stands ?? 0), 9);
	});
});

describe('what it is drawn as', () => {
	const truths = (id: ConditionId, more: object = {}) =>
		Array.from({ length: 60 }, (_, seed) =>
			truthOf(practiceWish.parse({ seed, conditions: [id], situation: 'potted', ...more }), values)
		);
	const share = <T>(list: readonly T[], of: (one: T) => boolean): number =>
		list.filter(of).length / list.length;

	it('stands as its fault goes with', () => {
		const parts = (id: ConditionId, part: string) =>
			share(truths(id), ({ world }) => (worldParts[world] ?? []).some((one) => one === part));
		expect(parts('sour-root-zone', 'wet')).toBeGreaterThan(0.5);
		expect(parts('drought', 'dry')).toBeGreaterThan(0.5);
		expect(parts('pot-bound', 'tight')).toBeGreaterThan(parts('over-potting', 'tight') + 0.3);
		expect(truths('dead').every(({ world }) => worldParts[world]?.[0] === 'dead')).toBe(true);
	});

	it('stands in a pot that is as wide as its fault has it', () => {
		const room = ({ planting }: ReturnType<typeof truthOf>): number =>
			planting ? planting.pot.topWidthMm / planting.ballDiameterMm : 0;
		expect(Math.min(...truths('over-potting').map(room))).toBeGreaterThan(1.65);
		expect(Math.max(...truths('pot-too-small').map(room))).toBeLessThan(1.2);
		expect(Math.max(...truths('pest').map(room))).toBeLessThan(1.65);
	});

	it('is dry or wet when it comes, as it stands', () => {
		expect(truths('drought').every(({ dryness }) => dryness > 0.8)).toBe(true);
		expect(
			truths('root-rot').every(({ dryness, world }) => dryness < 0.1 || worldParts[world]?.[0] === 'dry')
		).toBe(true);
	});

	it('plays on from what it is: cut when it was lifted, without air where its mix lost it', () => {
		for (const truth of truths('collapsed-mix').slice(0, 5)) {
			expect(sceneOfTruth(truth, values)).toMatchObject({ airlessChance: 1, lastCutOn: null, rotChance: 0 });
			expect(sceneOfTruth(truth, values).recovery.odds).toBe(truth.odds);
		}
		expect(
			sceneOfTruth(truthOf(practiceWish.parse({ seed: 4, conditions: [] }), values), values).airlessChance
		).toBe(0);
		for (const truth of truths('pest', { situation: 'just-lifted' }).slice(0, 5))
			expect(sceneOfTruth(truth, values).lastCutOn).toBe(truth.planting?.plantedOn);
	});

	it('is carried into a bay that keeps the frost off, and no colder than where it stood', () => {
		const { place } = truthOf(practiceWish.parse({ seed: 4 }), values);
		expect(bayOf({ ...place, heldMinimumC: null })).toMatchObject({ kind: 'heated', heldMinimumC: 5 });
		expect(bayOf({ ...place, heldMinimumC: 12 }).heldMinimumC).toBe(12);
		expect(bayOf({ ...place, heldMinimumC: -8 }).heldMinimumC).toBe(5);
	});
});
