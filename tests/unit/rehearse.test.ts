import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nextWindowDay } from '$core/climate/windows';
import { addDays } from '$core/maths/calendar';
import { findingOut } from '$core/rehearse/finding-out';
import { prepared } from '$core/rehearse/prepared';
import { recoveryForecast, standingNow } from '$core/recovery/forecast';
import { livedTrees, rehearse, type PlanOutcome } from '$core/rehearse/rehearse';
import type { RehearsedPlan } from '$core/recovery/rehearsal/plan';
import type { RehearsalScene } from '$core/rehearse/scene';
import { diesWords, findingWords, orderWords } from '$core/rehearse/words';
import { defaultValues as values, resolveValues } from '$core/values/values';
import { airyPot, bench, closePot, planOf, sceneOf } from '../rehearsal';

// The same cases every time: what fails, fails for everybody.
fc.configureGlobal({ seed: 20260418 });

const played = (scene: RehearsalScene, plans: RehearsedPlan[], futures = 162, of = values) =>
	rehearse(scene, plans, { futures }, of);
const one = (scene: RehearsalScene, plan = planOf(), futures = 162, of = values): PlanOutcome => {
	const [outcome] = played(scene, [plan], futures, of).outcomes;
	if (!outcome) throw new Error('nothing was played');
	return outcome;
};
const chanceOf = (outcome: PlanOutcome, cause: string): number =>
	outcome.dies.find((of) => of.cause === cause)?.chance ?? 0;
const width = ({ alive }: PlanOutcome): number => (alive.at(-1)?.high ?? 0) - (alive.at(-1)?.low ?? 0);
const cutting = (share: number) => [{ on: '2026-04-20', share, rot: 0, girdles: 0 }];

describe('what is worth finding out', () => {
	const hidden = Array.from({ length: 48 }, (_, i) => ({
		rot: i % 4 < 2,
		airless: i % 8 < 4,
		rootsZ: 0,
		standing: 0,
		demand: 1,
		holds: 1
	}));
	/** Two plans, of which the first does well where it is so, the other where it is not. */
	const worthBy = (of: 'rot' | 'airless') => [
		hidden.map((one) => (one[of] ? 1 : 0)),
		hidden.map((one) => (one[of] ? 0 : 1))
	];
	const found = (of: 'rot' | 'airless', change: { known?: boolean; potted?: boolean } = {}) =>
		findingOut(
			hidden,
			worthBy(of),
			{
				known: { rot: change.known ?? false },
				potted: change.potted ?? true,
				spreads: { demand: 1, holds: 1 }
			},
			values
		).map(({ what, worth, wouldChoose }) => [what, Math.round(worth * 100) / 100, wouldChoose]);
	it('is what parts the plans, and by how much', () => {
		expect(found('rot')).toEqual([['rot', 0.5, [1, 0]]]);
		expect(found('airless')).toEqual([['air', 0.5, [1, 0]]]);
	});
	it('is never rot that was looked for, nor the mix of a tree that stands in no pot', () => {
		expect(found('rot', { known: true })).toEqual([]);
		expect(found('airless', { potted: false })).toEqual([]);
		expect(found('rot', { potted: false })).toEqual([['rot', 0.5, [1, 0]]]);
		expect(found('airless', { known: true })).toEqual([['air', 0.5, [1, 0]]]);
	});
});

describe('a rehearsal', () => {
	it('is the same to the digit for the same plan, and another for another seed', () => {
		const scene = sceneOf({ rotChance: 0.3 });
		const plans = [planOf(), planOf({ water: 'every-days', everyDays: 9 })];
		const first = rehearse(scene, plans, { futures: 81, seed: 7 }, values);
		expect(rehearse(scene, plans, { futures: 81, seed: 7 }, values)).toEqual(first);
		expect(rehearse(scene, plans, { futures: 81, seed: 8 }, values)).not.toEqual(first);
	});

	it('begins where Recovery stands: of a tree that is looked after nothing is added to its chance', () => {
		for (const odds of [-1, 0.4, 2]) {
			const scene = sceneOf({}, { odds });
			const { time, seen, nowStep } = standingNow(scene.recovery, values);
			const through = time.through(seen.shares, nowStep);
			expect(Math.abs(one(scene).end.stands - through)).toBeLessThan(0.05);
		}
	});

	it('never helps a tree by cutting more of sound roots, under no rule of water', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0, max: 0.5, noNaN: true }),
				fc.double({ min: 0.03, max: 0.4, noNaN: true }),
				fc.constantFrom<Partial<RehearsedPlan>>(
					{},
					{ water: 'every-days', everyDays: 3 },
					{ water: 'every-days', everyDays: 14 },
					{ water: 'dry-first' },
					{ crown: 'balance' }
				),
				fc.constantFrom(airyPot, closePot),
				(less, more, change, pot) => {
					const [few, many] = [less, less + more].map((share) =>
						one(sceneOf({ stages: cutting(share), pots: [pot], days: 400 }), planOf(change), 18)
					);
					if (!few || !many) throw new Error('nothing was played');
					for (const of of ['alive', 'stands', 'established'] as const)
						expect(many.end[of]).toBeLessThanOrEqual(few.end[of] + 1e-9);
					// In a single future the days of watering fall otherwise, which may be worth a little.
					few.ends.forEach((end, i) => expect(many.ends[i]?.stands ?? 0).toBeLessThan(end.stands + 0.02));
				}
			),
			{ numRuns: 20 }
		);
	});

	it('comes to the same by the calendar at the right interval as by need, in weather that never changes', () => {
		// On the equator of the stand-in climate every day is like the other.
		const place = { kind: 'open' as const, latitudeDeg: 0, elevationM: 0, heldMinimumC: null };
		const steady = resolveValues({
			'rehearse.handBias': 0,
			'rehearse.misses': 0,
			'rehearse.demandSpread': 0,
			'rehearse.holdSpread': 0
		});
		const scene = sceneOf(
			{
				group: 'tropical',
				coldestC: 5,
				dryness: 0.5,
				pots: [{ ...airyPot, unrootedMostL: 0, rootedMostL: 5.5 }],
				places: [{ id: 'here', label: 'Bench', ...place }],
				habits: { unsteady: 0, wetAfterDry: 0, wetAfterWet: 0 }
			},
			{ place, tender: true, evergreen: true, begin: 1 }
		);
		const need = one(scene, planOf(), 27, steady);
		const same = [2, 3, 4, 5, 6, 7, 8, 9, 10]
			.map((everyDays) => one(scene, planOf({ water: 'every-days', everyDays }), 27, steady))
			.find((outcome) => Math.abs(outcome.costs.waterings - need.costs.waterings) < 0.5);
		expect(need.costs.waterings).toBeGreaterThan(70);
		expect(same?.end.stands).toBeCloseTo(need.end.stands, 10);
		expect(same?.end.established).toBeCloseTo(need.end.established, 10);
	});

	it('has wider bands the less is known', () => {
		const known = width(one(sceneOf({}, { oddsSpread: 0.2 })));
		expect(width(one(sceneOf({}, { oddsSpread: 1.2 })))).toBeGreaterThan(known + 0.1);
		expect(width(one(sceneOf({ rotChance: 0.5 }, { oddsSpread: 0.2 })))).toBeGreaterThan(known + 0.05);
		expect(
			width(
				one(
					sceneOf({ airlessChance: 0.5 }, { oddsSpread: 0.2 }),
					planOf({ water: 'every-days', everyDays: 2 })
				)
			)
		).toBeGreaterThan(known + 0.1);
		// Nobody looked: as much as if it were not sure, never as if it were none.
		expect(width(one(sceneOf({ rotChance: null }, { oddsSpread: 0.2 })))).toBeGreaterThan(known);
	});

	it('foretells how single trees end that live under a plan, each with everything about it drawn', () => {
		const scene = sceneOf({ rotChance: 0.3, stages: cutting(0.2) });
		for (const plan of [planOf(), planOf({ water: 'every-days', everyDays: 8 })]) {
			const { end } = one(scene, plan, 405);
			const lived = livedTrees(scene, plan, { count: 2000, seed: 11 }, values);
			const share = (of: 'alive' | 'stands' | 'established'): number =>
				lived.reduce((sum, tree) => sum + tree[of], 0) / lived.length;
			for (const of of ['alive', 'stands', 'established'] as const)
				expect(Math.abs(share(of) - end[of])).toBeLessThan(0.03);
		}
	}, 60_000);

	it('shares death out among its causes, so that with those alive they make all', () => {
		for (const outcome of played(sceneOf({ rotChance: 0.4, stages: cutting(0.3), girdled: 0.4 }), [
			planOf(),
			planOf({ water: 'every-days', everyDays: 20 }),
			planOf({ roots: 'wait', warnings: false })
		]).outcomes) {
			const dead = outcome.dies.reduce((sum, { chance }) => sum + chance, 0);
			expect(dead + outcome.end.alive).toBeCloseTo(1, 9);
			expect(outcome.end.stands).toBeLessThanOrEqual(outcome.end.alive + 1e-9);
			expect(outcome.end.established).toBeLessThanOrEqual(outcome.end.stands + 1e-9);
			// Dead stays dead.
			outcome.alive.slice(1).forEach((point, i) => {
				expect(point.mean).toBeLessThanOrEqual((outcome.alive[i]?.mean ?? 0) + 1e-9);
			});
		}
	});

	it('goes the same way in the other half of the world, half a year on', () => {
		const south = { ...bench, latitudeDeg: -52 };
		const north = one(sceneOf({ stages: cutting(0.2) }));
		const mirrored = one(
			sceneOf(
				{
					places: [{ id: 'here', label: 'Bench', ...south }],
					stages: [{ on: '2026-10-20', share: 0.2, rot: 0, girdles: 0 }]
				},
				{ sinceOn: '2026-08-31', today: '2026-10-18', place: south }
			)
		);
		expect(Math.abs(mirrored.end.stands - north.end.stands)).toBeLessThan(0.02);
		expect(Math.abs(mirrored.end.established - north.end.established)).toBeLessThan(0.05);
	});
});

describe('what kills a tree in a rehearsal', () => {
	it('is drowning in a close mix that is watered every day, and not by need', () => {
		const scene = sceneOf({ pots: [closePot] });
		const daily = one(scene, planOf({ water: 'every-days', everyDays: 1 }));
		expect(daily.dies[0]?.cause).toBe('drowned');
		expect(chanceOf(daily, 'drowned')).toBeGreaterThan(0.3);
		expect(chanceOf(one(scene), 'drowned')).toBeLessThan(0.1);
		// The same in a mix that drains well harms nothing.
		expect(chanceOf(one(sceneOf(), planOf({ water: 'every-days', everyDays: 1 })), 'drowned')).toBeLessThan(
			0.02
		);
	});
	it('is drying out where it is watered too rarely, and shows in leaf', () => {
		const rare = one(sceneOf(), planOf({ water: 'every-days', everyDays: 25 }));
		expect(rare.dies[0]?.cause).toBe('dried');
		const showsOn = rare.dies[0]?.showsOn ?? '';
		expect(showsOn > '2026-04-18').toBe(true);
		expect(['04', '05', '06', '07', '08', '09', '10']).toContain(showsOn.slice(5, 7));
	});
	it('is frost for a tender kind left out, which a heated place or heed of warnings prevents', () => {
		const tender = (change: object) =>
			sceneOf({ group: 'tropical', coldestC: 5, ...change }, { tender: true, evergreen: true });
		const heated = { ...bench, kind: 'heated' as const, heldMinimumC: 12 };
		const places = [
			{ id: 'here', label: 'Bench', ...bench },
			{ id: 'in', label: 'Heated bay', ...heated }
		];
		const out = one(tender({ places }), planOf({ warnings: false }));
		expect(out.dies[0]?.cause).toBe('frost');
		expect(out.end.alive).toBeLessThan(0.02);
		expect(one(tender({ places }), planOf({ placeId: 'in', warnings: false })).end.alive).toBeGreaterThan(
			0.6
		);
		const carried = one(tender({ places }), planOf());
		// It goes in for the winter, not each night anew.
		expect(carried.costs.covered).toBeGreaterThan(1);
		expect(carried.costs.covered).toBeLessThan(30);
		expect(carried.end.alive).toBeGreaterThan(0.5);
	});
	it('is rot that goes on where nobody cuts it out, and less where it is', () => {
		const scene = sceneOf({
			rotChance: 0.9,
			stages: [{ on: '2026-04-20', share: 0.1, rot: 1, girdles: 0 }]
		});
		const [cut, wait] = played(scene, [planOf(), planOf({ roots: 'wait' })]).outcomes;
		if (!cut || !wait) throw new Error('nothing was played');
		expect(chanceOf(wait, 'rot')).toBeGreaterThan(chanceOf(cut, 'rot') + 0.1);
		expect(cut.end.stands).toBeGreaterThan(wait.end.stands + 0.05);
	});
	it('is rot too where fleshy roots are watered before they are callused, which a dry rest prevents', () => {
		const of = (group: 'succulent' | 'deciduous', change: Partial<RehearsedPlan>) =>
			chanceOf(one(sceneOf({ group, stages: cutting(0.3) }), planOf(change), 81), 'rot');
		expect(of('succulent', {})).toBeGreaterThan(0.005);
		expect(of('succulent', { water: 'dry-first' })).toBe(0);
		expect(of('deciduous', {})).toBe(0);
		// Nothing is poured in the rest.
		const long = resolveValues({ 'rehearse.restDays': 120 });
		const rested = one(sceneOf(), planOf({ water: 'dry-first' }), 27, long).costs.waterings;
		expect(rested).toBeLessThan(one(sceneOf(), planOf(), 27, long).costs.waterings - 8);
	});
	it('is a girdled trunk as long as nobody frees it', () => {
		const free = one(sceneOf({ girdled: 0 }));
		const tight = one(sceneOf({ girdled: 0.9 }));
		const freed = one(
			sceneOf({ girdled: 0.9, stages: [{ on: '2026-04-20', share: 0, rot: 0, girdles: 1 }] })
		);
		expect(chanceOf(tight, 'girdled')).toBeGreaterThan(0.05);
		expect(freed.end.stands).toBeCloseTo(free.end.stands, 2);
		expect(tight.end.stands).toBeLessThan(freed.end.stands - 0.05);
	});
	it('is told from a chance that counts, the most likely first', () => {
		const outcome = one(sceneOf(), planOf({ water: 'every-days', everyDays: 25 }));
		const told = diesWords(outcome, values);
		expect(told.map((cause) => cause.chance)).toEqual(
			[...told.map((cause) => cause.chance)].sort((a, b) => b - a)
		);
		expect(told.every((cause) => cause.chance >= values['rehearse.diesLeast'])).toBe(true);
		expect(told[0]?.what).toBe('dried out');
	});
});

describe('plans against each other', () => {
	const rot = sceneOf({
		rotChance: 0.45,
		stages: [{ on: '2026-04-20', share: 0.35, rot: 1, girdles: 0 }]
	});
	it('do not differ where they are the same, and that is said', () => {
		const same = played(sceneOf(), [planOf({ name: 'One' }), planOf({ name: 'Two' })]);
		expect(same.pairs).toEqual([{ a: 0, b: 1, aBetter: 0, bBetter: 0, gap: 0, error: 0, differ: false }]);
		expect(orderWords(same).headline).toMatch(/do not differ beyond chance/);
	});
	it('say in how many futures which is better', () => {
		const result = played(sceneOf(), [
			planOf({ name: 'Dry', water: 'every-days', everyDays: 25 }),
			planOf({ name: 'Need' })
		]);
		expect(result.order).toEqual([1, 0]);
		expect(result.pairs[0]?.bBetter).toBeGreaterThan(0.9);
		const { headline, against } = orderWords(result);
		expect(headline).toBe('“Need” comes out best.');
		expect(against[0]).toMatch(
			/^Against “Dry”: better in (9\d|100) of 100 futures, worse in 0, in the others/
		);
	});
	it('name the check that would change the choice, and only where something is unknown', () => {
		const plans = [planOf({ name: 'Cut' }), planOf({ name: 'Wait', roots: 'wait' })];
		const result = played(rot, plans, 405);
		expect(result.finding[0]).toMatchObject({ what: 'rot', wouldChoose: [1, 0] });
		expect(result.finding[0]?.worth).toBeGreaterThan(0.01);
		expect(findingWords(result)[0]).toMatch(
			/^Take it out of the pot and look at its roots: whether it has rot decides between “Wait” and “Cut”\./
		);
		const sure = played(sceneOf({ stages: cutting(0.35) }), plans, 405);
		expect(sure.finding.map(({ what }) => what)).not.toContain('rot');
		expect(played(rot, [planOf()]).finding).toEqual([]);
	});
	it('count what they ask of people', () => {
		const [need, often] = played(sceneOf(), [
			planOf(),
			planOf({ water: 'every-days', everyDays: 2 })
		]).outcomes;
		expect(often?.costs.waterings).toBeGreaterThan(250);
		expect(often?.costs.minutes ?? 0).toBeGreaterThan((need?.costs.minutes ?? 0) + 500);
		const cuttings = one(sceneOf({ backupRate: 0.5 }), planOf({ backups: 3 }));
		const { alive, line } = cuttings.end;
		expect(line).toBeCloseTo(alive + (1 - alive) * (1 - 0.5 ** 3), 9);
	});
	it('cannot be re-established while root work is left beyond the end', () => {
		const scene = sceneOf({ stages: cutting(0.1), days: 300 });
		const [now, wait] = played(scene, [planOf(), planOf({ roots: 'wait' })]).outcomes;
		expect([now?.worksLater, wait?.worksLater]).toEqual([false, true]);
		expect(wait?.end.established).toBe(0);
		expect(now?.end.established).toBeGreaterThan(0);
	});
	it('put a later root stage off until the last one is paid back, as the gate of its plan does', () => {
		const stages = [{ on: '2026-05-10', share: 0.1, rot: 0, girdles: 0 }];
		const second = (begin: number) => one(sceneOf({ lastCutOn: '2026-03-01', stages, days: 300 }, { begin }));
		// With few roots it waits a year, which is beyond the end; with enough it is worked on its day.
		expect(second(0.3).end.established).toBe(0);
		expect(second(0.95).end.established).toBeGreaterThan(0.3);
		const none = one(sceneOf({ lastCutOn: '2026-03-01', days: 300 }, { begin: 0.3 }));
		expect(second(0.3).roots).toEqual(none.roots);
		// The first stage of a tree that nobody has cut yet waits for nothing.
		const first = one(sceneOf({ stages, days: 300 }, { begin: 0.3 }));
		expect(first.end.stands).toBeLessThan(one(sceneOf({ days: 300 }, { begin: 0.3 })).end.stands - 0.01);
	});
	it('replant on the day that is planned, else with the first cut, else in the next window of its kind', () => {
		const pots = [
			airyPot,
			{ ...airyPot, id: 'planned', replants: true },
			{ ...airyPot, id: 'larger', replants: true }
		];
		const days = Array.from({ length: 400 }, (_, i) => addDays('2026-04-18', i + 1));
		const dayOf = (scene: RehearsalScene, potId: string): string | undefined =>
			days[prepared(scene, planOf({ potId }), days, values).replantDay];
		const scene = sceneOf({ pots, replantOn: '2026-05-02' });
		expect(dayOf(scene, 'planned')).toBe('2026-05-02');
		expect(dayOf(scene, 'larger')).toBe(nextWindowDay(scene, bench, '2026-04-19', values));
		expect(dayOf(sceneOf({ pots, replantOn: '2026-05-02', stages: cutting(0.1) }), 'larger')).toBe(
			'2026-04-20'
		);
		expect(dayOf(scene, 'now')).toBeUndefined();
	});
	it('play a tree in the ground too', () => {
		const scene = sceneOf({
			pots: [],
			ground: { ballMm: 120, backfillMm: 40, areaM2: 2, crownRatio: 1.5, grassShare: 0.5 }
		});
		const [need, never] = played(scene, [planOf(), planOf({ water: 'every-days', everyDays: 60 })]).outcomes;
		expect(need?.costs.waterings).toBeGreaterThan(3);
		expect(never?.costs.waterings).toBeLessThan(14);
		expect(need?.end.stands).toBeGreaterThanOrEqual((never?.end.stands ?? 1) - 1e-9);
	});
});

it('tells no chance of what Recovery would not: the forecast of the same tree holds it in its range', () => {
	const scene = sceneOf({}, { odds: 0.8 });
	const forecast = recoveryForecast(scene.recovery, values, { bands: false });
	const { end } = one(scene, planOf(), 405);
	expect(end.established).toBeGreaterThan(forecast.low - 0.05);
	expect(end.established).toBeLessThan(forecast.high);
});
