import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '$core/maths/calendar';
import { outcomesBy, outcomeFactors, type OutcomeCase } from '$core/recovery/outcomes/outcomes';
import { backupSchema, backupStanding, tooMany } from '$core/recovery/backup';
import { decisionsDue, type DecisionFacts } from '$core/recovery/decisions';
import { evidenceOf, limitEvidence, type Reference } from '$core/recovery/evidence';
import { recoveryForecast, type LookSeen, type RecoveryCase } from '$core/recovery/forecast';
import { lookQuestions } from '$core/recovery/look';
import { observationInput, type Observation } from '$core/examine/looks/observation';
import { budStates, firmnesses, leafStates, smells } from '$core/examine/looks/seen-words';
import { verdict } from '$core/recovery/verdict';
import { defaultValues as values, resolveValues } from '$core/values/values';
import { silentLook } from '../records';

/*
 * What must hold of Recovery whatever a tree has been through: invariants over invented looks, not examples.
 */

// The same cases every time: what fails, fails for everybody.
fc.configureGlobal({ seed: 20260620 });

const today = '2026-06-20';
const maybe = <T>(value: fc.Arbitrary<T>): fc.Arbitrary<T | null> => fc.option(value, { nil: null });
const share = fc.double({ min: 0, max: 1, noNaN: true });
const lookAt = (daysAgo: number): fc.Arbitrary<Observation> =>
	fc
		.record({
			buds: maybe(fc.constantFrom(...budStates)),
			leafCover: maybe(share),
			leafState: maybe(fc.constantFrom(...leafStates)),
			shootExtensionMm: maybe(fc.double({ min: 0, max: 800, noNaN: true })),
			diebackLimitMm: maybe(fc.double({ min: 0, max: 3000, noNaN: true })),
			firmness: maybe(fc.constantFrom(...firmnesses)),
			whiteTips: maybe(fc.boolean()),
			rootsAtEdge: maybe(fc.boolean()),
			smell: maybe(fc.constantFrom(...smells))
		})
		.map((seen) => ({
			...observationInput.parse({ observedOn: addDays(today, -daysAgo), note: 'seen', ...seen }),
			id: `o${daysAgo}`,
			version: 1
		}));
const looks: fc.Arbitrary<Observation[]> = fc
	.uniqueArray(fc.integer({ min: 0, max: 420 }), { maxLength: 7 })
	.chain((days) => fc.tuple(...days.sort((a, b) => b - a).map(lookAt)));

const facts: fc.Arbitrary<DecisionFacts> = fc.record({
	potted: fc.boolean(),
	today: fc.constant(today),
	sinceOn: fc.integer({ min: 0, max: 700 }).map((days) => addDays(today, -days)),
	seasonBeganOn: maybe(fc.integer({ min: 0, max: 300 }).map((days) => addDays(today, -days))),
	inSeason: fc.boolean(),
	evergreen: fc.boolean(),
	tender: fc.boolean(),
	heightMm: maybe(fc.double({ min: 100, max: 20_000, noNaN: true })),
	observations: looks,
	probability: maybe(share),
	probabilityBefore: maybe(share),
	dryness: maybe(share),
	gate: fc.constant(null),
	stagesLeft: fc.integer({ min: 0, max: 4 }),
	referenceShootMm: maybe(fc.oneof(fc.constant(0), fc.double({ min: 1, max: 900, noNaN: true }))),
	reEstablished: fc.boolean(),
	causes: fc.record({
		urgent: maybe(
			fc.record({
				subject: fc.constantFrom('Root rot is', 'Girdling roots are'),
				chance: share,
				on: fc.constant(today),
				stage: fc.constantFrom('roots', 'replant', 'examine'),
				meaning: fc.constant('Free the trunk.')
			})
		),
		check: maybe(
			fc.record({
				subject: fc.constant('Soil compaction is'),
				chance: share,
				on: fc.constant(today),
				check: maybe(fc.constant({ label: 'Hard soil', how: 'Push a rod in.' }))
			})
		),
		waits: maybe(
			fc.record({
				subject: fc.constant('Pot-bound roots are'),
				chance: share,
				on: fc.constant(today),
				windowOn: fc.constant('2026-11-01'),
				stage: fc.constantFrom('roots', 'replant'),
				meaning: fc.constant('Open the ball.')
			})
		)
	})
});

describe('decisions, whatever was seen', () => {
	it('there is always one, the most pressing first, and staying as it is never stands beside another', () => {
		fc.assert(
			fc.property(facts, (given) => {
				const due = decisionsDue(given, values);
				expect(due.length).toBeGreaterThan(0);
				const waits = due.findIndex((one) => !one.presses);
				expect(due.slice(waits < 0 ? due.length : waits).some((one) => one.presses)).toBe(false);
				if (due.some((one) => one.kind === 'carry-on' || one.kind === 'let-grow'))
					expect(due).toHaveLength(1);
				// What the last look says to act on stands here too, and nobody is told to wait beside it.
				expect(due.some((one) => one.kind === 'act-now')).toBe(given.causes?.urgent != null);
				if (given.causes?.urgent ?? given.causes?.check ?? given.causes?.waits)
					expect(due.map((one) => one.kind)).not.toContain('carry-on');
				if (given.causes?.urgent)
					expect(due.map((one) => one.what).join(' ')).not.toMatch(/chance has fallen|not sure to come back/);
			})
		);
	});
	it('none speaks in numbers that are none, and each but staying shows what it rests on', () => {
		fc.assert(
			fc.property(facts, (given) => {
				for (const one of decisionsDue(given, values)) {
					const words = [one.what, ...one.evidence, ...one.first].join(' ');
					expect(words).not.toMatch(/NaN|undefined|null|Infinity/);
					if (one.kind !== 'carry-on') expect(one.evidence.length).toBeGreaterThan(0);
				}
			})
		);
	});
	it('where work can kill, the stop rule and the checks stand beside it', () => {
		fc.assert(
			fc.property(facts, (given) => {
				for (const one of decisionsDue(given, values)) {
					if (one.kind === 're-cut')
						expect(one.first.join(' ')).toMatch(/Stop rule: beside the only living shoot/);
					if (one.kind === 'call-dead') expect(one.first.length).toBeGreaterThanOrEqual(3);
					if (one.kind === 'rot-path') expect(one.first.join(' ')).toMatch(/No water now/);
				}
			})
		);
	});
	it('looks of before the work decide nothing', () => {
		fc.assert(
			fc.property(facts, (given) => {
				const since = given.observations.filter((look) => look.observedOn >= given.sinceOn);
				expect(decisionsDue(given, values)).toEqual(decisionsDue({ ...given, observations: since }, values));
			})
		);
	});
});

describe('a look, whatever was seen before', () => {
	it('asks each thing once, in the order of the walk, with a reason, and no more than the owner wants', () => {
		fc.assert(
			fc.property(
				facts,
				fc.integer({ min: 3, max: 14 }),
				share,
				fc.constantFrom('potted' as const, 'in-ground' as const),
				fc.integer({ min: 1, max: 60 }),
				(given, most, progress, situation, plantCount) => {
					const asked = lookQuestions(
						{
							today,
							sinceOn: given.sinceOn,
							worked: given.tender,
							seasonBeganOn: given.seasonBeganOn,
							kind: { group: given.evergreen ? 'conifer' : 'deciduous' },
							tree: { situation, plantCount },
							progress,
							nearSeason: given.inSeason,
							evergreen: given.evergreen,
							observations: given.observations,
							wounded: true,
							rotWasCut: given.tender,
							structuralCut: given.inSeason,
							waits: [],
							suckersSeen: given.tender,
							pestsSeen: given.inSeason
						},
						resolveValues({ 'look.most': most })
					);
					const parts = asked.map((question) => question.part);
					expect(parts.length).toBeLessThanOrEqual(most);
					expect(new Set(parts).size).toBe(parts.length);
					expect(asked.every((question) => question.why.length > 0)).toBe(true);
					expect(parts.includes('lot')).toBe(plantCount > 1);
					if (situation === 'in-ground') {
						expect(parts).not.toContain('weight');
						expect(parts).not.toContain('rootsAtEdge');
					}
				}
			)
		);
	});
});

describe('the verdict, whatever was seen', () => {
	it('is met only where all criteria are, and what was never looked at never counts', () => {
		fc.assert(
			fc.property(facts, maybe(share), (given, phi) => {
				const found = verdict(
					{
						today,
						situation: 'potted',
						trunkDiameterMm: 60,
						sinceOn: given.sinceOn,
						worked: given.tender,
						observations: given.observations,
						referenceShootMm: given.referenceShootMm,
						rootFunction: phi === null ? null : { phi, low: phi * 0.9, high: Math.min(1.2, phi * 1.1) },
						openAlarms: given.stagesLeft,
						stagesLeft: given.stagesLeft
					},
					values
				);
				expect(found.criteria).toHaveLength(7);
				expect(found.reEstablished).toBe(found.criteria.every((one) => one.answer === 'met'));
				const since = given.observations.filter((look) => look.observedOn >= given.sinceOn);
				const answer = (name: string) => found.criteria.find((one) => one.name === name)?.answer;
				if (since.every((look) => look.firmness === null)) expect(answer('firm')).toBe('unknown');
				if (since.every((look) => look.rootsAtEdge === null)) expect(answer('roots-at-edge')).toBe('unknown');
				for (const one of found.criteria) expect(one.because).not.toMatch(/NaN|undefined|Infinity/);
			})
		);
	});
});

describe('the forecast, whatever was seen', () => {
	const place = { kind: 'open' as const, latitudeDeg: 51, elevationM: 100, heldMinimumC: null };
	const seen = (observations: readonly Observation[]): LookSeen[] =>
		observations.map((look, i) => ({ ...look, progress: (i + 1) / (observations.length + 1) }));
	const caseOf = (observations: readonly Observation[], odds: number, begin: number): RecoveryCase => ({
		sinceOn: addDays(today, -430),
		today,
		odds,
		oddsSpread: 0.5,
		begin,
		losses: [],
		place,
		tender: false,
		evergreen: false,
		looks: seen(observations),
		functionSeen: [],
		healthyShootMm: 300
	});
	const odds = fc.double({ min: -3, max: 3, noNaN: true });
	const begin = fc.double({ min: 0.1, max: 1, noNaN: true });
	it('is a probability within its range, its path ends in it, and better odds are never worse', () => {
		fc.assert(
			fc.property(looks, odds, begin, (observations, chance, phi) => {
				const forecast = recoveryForecast(caseOf(observations, chance, phi), values, { bands: false });
				expect(forecast.now).toBeGreaterThanOrEqual(0);
				expect(forecast.now).toBeLessThanOrEqual(1);
				expect(forecast.low).toBeLessThanOrEqual(forecast.now + 1e-9);
				expect(forecast.high).toBeGreaterThanOrEqual(forecast.now - 1e-9);
				expect(forecast.path.at(-1)?.probability).toBeCloseTo(forecast.now, 9);
				expect(forecast.effective).toBeGreaterThanOrEqual(1 - 1e-9);
				const better = recoveryForecast(caseOf(observations, chance + 1, phi), values, { bands: false });
				expect(better.now).toBeGreaterThanOrEqual(forecast.now - 1e-9);
			}),
			{ numRuns: 30 }
		);
	}, 30_000);
	it('looks to come, and looks of the day of the work, change nothing', () => {
		fc.assert(
			fc.property(looks, odds, (observations, chance) => {
				const before = caseOf(observations, chance, 0.6);
				const outside = ['2099-01-01', before.sinceOn].map((observedOn) => ({
					...seen([
						{ ...observationInput.parse({ observedOn, buds: 'none', leafCover: 0 }), id: 'x', version: 1 }
					])[0],
					observedOn
				})) as LookSeen[];
				const with_ = { ...before, looks: [...before.looks, ...outside] };
				expect(recoveryForecast(with_, values, { bands: false }).now).toBeCloseTo(
					recoveryForecast(before, values, { bands: false }).now,
					12
				);
			}),
			{ numRuns: 15 }
		);
	}, 30_000);
	it('without a healthy one beside it, shoots are only said to be there where they speak for it; short ones are called so', () => {
		const whole: Reference = { cover: 0.9, shoots: 0.9, rootFunction: 0.7, heightMm: 1000 };
		const said = new Set<string>();
		for (const progress of [0.35, 0.6, 1])
			for (let shootExtensionMm = 0; shootExtensionMm <= 150; shootExtensionMm += 5) {
				const [one] = evidenceOf(
					{ ...silentLook, observedOn: today, progress, shootExtensionMm },
					{ evergreen: true, healthyShootMm: null },
					whole,
					values
				);
				if (!one) throw new Error('it says nothing');
				said.add(one.what);
				const speaksFor = one.log(1) >= Math.max(...[0, 0.25, 0.5, 0.75].map(one.log));
				if (one.what === 'it made shoots') expect(speaksFor).toBe(true);
				else expect(one.what).toBe(shootExtensionMm === 0 ? 'no shoots' : 'its shoots are short so far');
			}
		expect(said.size).toBe(3);
	});
	it('every sign speaks for roots or against them, the same way at every root function', () => {
		const look = (change: Partial<LookSeen>): LookSeen => ({
			...silentLook,
			observedOn: today,
			progress: 0.4,
			...change
		});
		const whole: Reference = { cover: 0.9, shoots: 0.9, rootFunction: 0.7, heightMm: 1000 };
		const phis = Array.from({ length: 21 }, (_, i) => i / 20);
		const steps = (log: (shows: number) => number): number[] => {
			const logs = phis.map(log);
			return logs.slice(1).map((one, i) => one - (logs[i] ?? 0));
		};
		const rises = (change: Partial<LookSeen>): number[] => {
			const [one] = evidenceOf(look(change), { evergreen: false, healthyShootMm: 300 }, whole, values);
			if (!one) throw new Error('it says nothing');
			return steps(one.log);
		};
		for (const good of [
			{ buds: 'open' },
			{ leafState: 'turgid' },
			{ firmness: 'firm' },
			{ whiteTips: true },
			{ smell: 'none' }
		] as const)
			expect(
				rises(good).every((step) => step >= -1e-12),
				JSON.stringify(good)
			).toBe(true);
		for (const bad of [
			{ buds: 'none' },
			{ leafState: 'wilted' },
			{ firmness: 'loose' },
			{ whiteTips: false },
			{ smell: 'sour' }
		] as const)
			expect(
				rises(bad).every((step) => step <= 1e-12),
				JSON.stringify(bad)
			).toBe(true);
		// The limit of living wood speaks against a tree, or not at all.
		for (const limitMm of [0, 200, 700, 1000])
			expect(
				steps(limitEvidence(limitMm, whole, values)?.log ?? (() => 0)).every((step) => step <= 1e-12)
			).toBe(true);
	});
});

describe('what the yard learns, whatever came', () => {
	const cases: fc.Arbitrary<OutcomeCase[]> = fc.array(
		fc.record({
			treeId: fc.uuid(),
			tag: fc.constant('T-1'),
			group: fc.constantFrom('deciduous' as const, 'conifer' as const),
			reserves: fc.constantFrom('long-potted' as const, 'field-grown' as const),
			state: fc.constantFrom('in-care' as const, 're-established' as const, 'dead' as const, 'gone' as const),
			fromOn: fc.integer({ min: 100, max: 1500 }).map((days) => addDays(today, -days)),
			closedOn: fc.integer({ min: 0, max: 90 }).map((days) => addDays(today, -days)),
			livingLoss: maybe(share),
			seasonFit: maybe(fc.constantFrom('in-window' as const, 'shoulder' as const)),
			crownSchool: maybe(fc.constantFrom('balance' as const, 'keep-leaves' as const)),
			mixName: maybe(fc.constantFrom('Bark', 'Sand'))
		}),
		{ maxLength: 40 }
	) as fc.Arbitrary<OutcomeCase[]>;
	const closed = (one: OutcomeCase): OutcomeCase => ({
		...one,
		closedOn: one.state === 'in-care' ? null : one.closedOn
	});
	it('each case is counted once in its group, no curve is drawn from few, and curves never rise', () => {
		fc.assert(
			fc.property(cases, fc.constantFrom(...outcomeFactors), (given, factor) => {
				const all = given.map(closed);
				const groups = outcomesBy(all, factor, today, values);
				expect(groups.reduce((sum, group) => sum + group.count, 0)).toBeLessThanOrEqual(all.length);
				for (const group of groups) {
					expect(group.reEstablished + group.lost + group.gone + group.inCare).toBe(group.count);
					if (group.count < values['outcomes.least']) expect(group.curve).toBeNull();
					let before = 1;
					for (const step of group.curve ?? []) {
						expect(step.share).toBeLessThanOrEqual(before + 1e-12);
						expect(step.low).toBeLessThanOrEqual(step.share + 1e-9);
						expect(step.high).toBeGreaterThanOrEqual(step.share - 1e-9);
						before = step.share;
					}
				}
			})
		);
	});
	it('of a batch of cuttings none is counted twice and none is made', () => {
		const event = fc.record({
			on: fc.integer({ min: 0, max: 200 }).map((days) => addDays(today, -days)),
			what: fc.constantFrom('struck' as const, 'potted' as const, 'lost' as const, 'given' as const),
			count: fc.integer({ min: 1, max: 12 }),
			becameId: fc.constant(null)
		});
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 40 }), fc.array(event, { maxLength: 8 }), (count, events) => {
				const batch = backupSchema.parse({
					takenOn: addDays(today, -210),
					kind: 'hardwood',
					source: 'top',
					count,
					id: 'b',
					version: 1,
					events
				});
				fc.pre(tooMany(batch) === null);
				const standing = backupStanding(batch);
				expect(standing.waiting + standing.rooted + standing.potted + standing.lost + standing.given).toBe(
					count
				);
				for (const part of Object.values(standing)) expect(part).toBeGreaterThanOrEqual(0);
				expect(standing.alive).toBe(count - standing.lost - standing.given);
			})
		);
	});
});
