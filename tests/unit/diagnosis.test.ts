import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { actNow, type StandingToday, standingOn } from '$core/examine/diagnosis/act-now';
import { conditionIds, conditions } from '$core/vocabulary/conditions';
import { recentEvents, seasonPhases } from '$core/vocabulary/season-and-events';
import { seasonPhase, type DiagnosisContext } from '$core/examine/diagnosis/context';
import {
	causeChances,
	diagnose,
	effectOf,
	observationOf,
	priorOf,
	type Diagnosis
} from '$core/examine/diagnosis/diagnose';
import { noisyOr } from '$core/examine/diagnosis/enumerate';
import type { Finding } from '$core/examine/diagnosis/finding';
import { checkSentence, nextChecks } from '$core/examine/diagnosis/next-check';
import { worldsOf } from '$core/examine/diagnosis/worlds';
import { procedureIds } from '$core/vocabulary/procedures';
import {
	firstLookOf,
	signShows,
	gradesOf,
	signApplies,
	signIds,
	signOf,
	topGrade,
	type SignId
} from '$core/vocabulary/signs';
import { bearsAlways, groups } from '$core/vocabulary/kind';
import { shippedKinds } from '$core/vocabulary/shipped';
import { contextOf } from '$core/examine/diagnosis/context';
import { situations, vigours, type Situation } from '$core/vocabulary/words';
import { keysOfSign, strengthOf } from '$core/values/diagnosis';
import { defaultValues, isValueKey, resolveValues, valueKeys } from '$core/values/values';

type Found = Pick<Finding, 'signId' | 'grade'>;
const bare = (situation: Situation): DiagnosisContext => ({
	situation,
	group: null,
	season: null,
	events: []
});
const context = fc.record({
	situation: fc.constantFrom(...situations),
	group: fc.option(fc.constantFrom(...groups)),
	season: fc.option(fc.constantFrom(...seasonPhases)),
	events: fc.subarray([...recentEvents])
});
const findings = fc
	.uniqueArray(fc.constantFrom(...signIds), { maxLength: 7 })
	.chain((ids) =>
		fc.tuple(
			...ids.map((signId) =>
				fc.integer({ min: 0, max: topGrade(signId) }).map((grade) => ({ signId, grade }))
			)
		)
	);
const present = (...ids: SignId[]): Found[] => ids.map((signId) => ({ signId, grade: 1 }));
const chanceOf = (diagnosis: Diagnosis, id: string): number =>
	diagnosis.ranking.find((cause) => cause.conditionId === id)?.chance ?? NaN;

describe('diagnosis', () => {
	it('is a probability for every cause, whatever was found, in whatever order', () => {
		fc.assert(
			fc.property(context, findings, (where, found) => {
				const diagnosis = diagnose(where, found, defaultValues);
				const turned = diagnose(where, [...found].reverse(), defaultValues);
				for (const cause of diagnosis.ranking) {
					expect(cause.chance).toBeGreaterThanOrEqual(0);
					expect(cause.chance).toBeLessThanOrEqual(1 + 1e-12);
					expect(chanceOf(turned, cause.conditionId)).toBe(cause.chance);
				}
				// What asks for the chances alone is told the same, to the digit.
				expect(causeChances(where, [...found].reverse(), defaultValues)).toEqual(
					diagnosis.ranking.map(({ conditionId, prior, chance }) => ({ conditionId, prior, chance }))
				);
			}),
			{ numRuns: 25 }
		);
	});

	it('leaves the priors alone when nothing was looked for', () => {
		for (const cause of diagnose(bare('potted'), [], defaultValues).ranking)
			expect(cause.chance).toBeCloseTo(cause.prior, 12);
	});

	it('equals plain enumeration over all sets of a dozen causes, in every world', () => {
		const where: DiagnosisContext = {
			situation: 'potted',
			group: 'succulent',
			season: 'summer',
			events: ['repotted']
		};
		const found: Found[] = [
			{ signId: 'sour-smell', grade: 2 },
			{ signId: 'stays-wet', grade: 1 },
			{ signId: 'sticky-leaves', grade: 0 }
		];
		// The other causes are ruled out by the owner, so that their sets need not be walked.
		const told = conditionIds.slice(0, 11).concat('dead');
		const own = resolveValues(
			Object.fromEntries(
				conditionIds.filter((id) => !told.includes(id)).map((id) => [`diagnosis.prior.${id}.potted`, 0])
			)
		);
		const worlds = worldsOf(
			conditionIds.map((id) => priorOf(id, where, own)),
			own
		);
		const sums = conditionIds.map(() => 0);
		let total = 0;
		for (const [world, { weight: share, priors }] of worlds.entries())
			for (let mask = 0; mask < 1 << told.length; mask++) {
				let causes = 0;
				let weight = share;
				for (const [at, id] of told.entries()) {
					const i = conditionIds.indexOf(id);
					if (mask & (1 << at)) causes |= 1 << i;
					weight *= mask & (1 << at) ? (priors[i] ?? 0) : 1 - (priors[i] ?? 0);
				}
				if (weight === 0) continue;
				for (const finding of found) {
					const { reached, missed } = observationOf(finding, own);
					weight *=
						(reached ? noisyOr(reached, causes, world) : 1) - (missed ? noisyOr(missed, causes, world) : 0);
				}
				total += weight;
				for (const i of conditionIds.keys()) if (causes & (1 << i)) sums[i] = (sums[i] ?? 0) + weight;
			}
		const diagnosis = diagnose(where, found, own);
		for (const [i, id] of conditionIds.entries())
			expect(chanceOf(diagnosis, id), id).toBeCloseTo((sums[i] ?? 0) / total, 8);
	});

	it('never lowers a cause by a sign that only that cause brings', () => {
		const lone = signIds.flatMap((sign) => {
			const causes = conditionIds.filter((id) => strengthOf(defaultValues, sign, id) > 0);
			return causes.length === 1 && causes[0] ? [{ sign, cause: causes[0] }] : [];
		});
		expect(lone.length).toBeGreaterThan(8);
		fc.assert(
			fc.property(context, findings, fc.constantFrom(...lone), (where, found, { sign, cause }) => {
				const others = found.filter((finding) => finding.signId !== sign);
				const before = chanceOf(diagnose(where, others, defaultValues), cause);
				const after = chanceOf(
					diagnose(where, [...others, { signId: sign, grade: topGrade(sign) }], defaultValues),
					cause
				);
				const missed = chanceOf(
					diagnose(where, [...others, { signId: sign, grade: 0 }], defaultValues),
					cause
				);
				expect(after).toBeGreaterThanOrEqual(before - 1e-12);
				expect(missed).toBeLessThanOrEqual(before + 1e-12);
			}),
			{ numRuns: 15 }
		);
	});

	it('lets a stronger grade speak more strongly', () => {
		const at = (grade: number) =>
			chanceOf(diagnose(bare('potted'), [{ signId: 'roots-dead-share', grade }], defaultValues), 'root-rot');
		expect(at(1)).toBeGreaterThan(at(0));
		expect(at(2)).toBeGreaterThan(at(1));
	});

	it('tells rot from drought by what was found, and says why', () => {
		const rot = diagnose(
			bare('potted'),
			present('sour-smell', 'roots-dark-soft', 'wilts-wet'),
			defaultValues
		);
		expect(rot.ranking[0]?.conditionId).toBe('root-rot');
		expect(rot.ranking[0]?.reasons[0]?.signId).toBe('roots-dark-soft');
		expect(chanceOf(rot, 'drought')).toBeLessThan(0.2);
		const dry = diagnose(
			bare('potted'),
			[...present('wilts-dry'), { signId: 'sour-smell', grade: 0 }],
			defaultValues
		);
		expect(dry.ranking[0]?.conditionId).toBe('drought');
	});

	it('explains away: a known cause lowers its rival', () => {
		const alone = chanceOf(diagnose(bare('potted'), present('stays-wet'), defaultValues), 'sour-root-zone');
		const explained = chanceOf(
			diagnose(bare('potted'), present('stays-wet', 'much-empty-mix'), defaultValues),
			'sour-root-zone'
		);
		expect(explained).toBeLessThan(alone);
	});

	it('gives as pull the log-odds that vanish without the finding', () => {
		const found = [{ signId: 'no-flare' as const, grade: 2 }, ...present('girdler-seen')];
		const odds = (chance: number) => Math.log(chance / (1 - chance));
		const full = diagnose(bare('in-ground'), found, defaultValues);
		const without = diagnose(bare('in-ground'), present('girdler-seen'), defaultValues);
		const pull = full.ranking
			.find((c) => c.conditionId === 'buried-collar')
			?.reasons.find((r) => r.signId === 'no-flare')?.pull;
		expect(pull).toBeCloseTo(
			odds(chanceOf(full, 'buried-collar')) - odds(chanceOf(without, 'buried-collar')),
			9
		);
	});

	it('follows the owner’s own numbers', () => {
		const own = resolveValues({ 'diagnosis.prior.pest.potted': 0.9 });
		expect(chanceOf(diagnose(bare('potted'), [], own), 'pest')).toBeCloseTo(0.9, 12);
	});

	it('knows what happened lately: root loss after digging, cold after a cold night', () => {
		const dug = { ...bare('in-ground'), events: ['dug' as const] };
		expect(priorOf('recent-root-loss', dug, defaultValues)).toBeGreaterThan(
			3 * priorOf('recent-root-loss', bare('in-ground'), defaultValues)
		);
		const cold = { ...bare('potted'), events: ['cold-night' as const] };
		const odds = (p: number) => p / (1 - p);
		expect(odds(priorOf('weather-injury', cold, defaultValues))).toBeCloseTo(
			5 * odds(priorOf('weather-injury', bare('potted'), defaultValues)),
			9
		);
	});

	it('points out what can hardly both be true, and computes on', () => {
		const { contradictions, ranking } = diagnose(
			bare('potted'),
			present('wilts-wet', 'wilts-dry'),
			defaultValues
		);
		expect(contradictions).toEqual([{ first: 'wilts-wet', second: 'wilts-dry' }]);
		expect(ranking.every((cause) => Number.isFinite(cause.chance))).toBe(true);
	});

	it('calls findings unusual that share no cause, and not those that do', () => {
		const apart = diagnose(
			bare('potted'),
			present('spongy-stem', 'ph-off', 'dry-pockets', 'long-bare-shoots'),
			defaultValues
		);
		const akin = diagnose(
			bare('potted'),
			present('roots-dark-soft', 'sour-smell', 'wilts-wet'),
			defaultValues
		);
		expect(akin.conflict).toBeLessThan(0.2);
		expect(apart.conflict).toBeGreaterThan(0.8);
	});

	it('of more than ten findings is taken in parts, says so, and names the same cause whatever the order', () => {
		const rot = present(
			'wilts-wet',
			'stays-wet',
			'sour-smell',
			'roots-dark-soft',
			'roots-dead-share',
			'no-white-tips',
			'growth-stopped',
			'leaf-drop',
			'crown-thin',
			'short-shoots',
			'dieback-hollow'
		);
		const [forward, back] = [rot, [...rot].reverse()].map((found) =>
			diagnose(bare('potted'), found, defaultValues)
		);
		expect([forward?.exact, back?.exact]).toEqual([false, false]);
		expect(diagnose(bare('potted'), rot.slice(0, 10), defaultValues).exact).toBe(true);
		for (const one of [forward, back]) {
			expect(one?.ranking[0]?.conditionId).toBe('root-rot');
			for (const cause of one?.ranking ?? []) {
				expect(cause.chance).toBeGreaterThanOrEqual(0);
				expect(cause.chance).toBeLessThanOrEqual(1);
			}
		}
	});

	it('lists the leading combinations with their chances', () => {
		const { combinations } = diagnose(
			bare('potted'),
			[{ signId: 'solid-mat', grade: 2 }, ...present('core-dry', 'channels-through')],
			defaultValues
		);
		expect(combinations[0]?.conditionIds).toEqual(expect.arrayContaining(['pot-bound', 'dry-core']));
		expect(combinations.length).toBeGreaterThan(1);
	});
});

describe('the table of signs', () => {
	it('holds at least sixty, each with how, with what, minutes and a way', () => {
		expect(signIds.length).toBeGreaterThanOrEqual(60);
		for (const id of signIds) {
			const sign = signOf(id);
			expect(sign.how.length, id).toBeGreaterThan(10);
			expect(sign.tool.length, id).toBeGreaterThan(2);
			expect(isValueKey(`diagnosis.minutes.${id}`), id).toBe(true);
			expect(procedureIds, id).toContain(sign.procedure);
			for (const other of sign.opposes ?? []) expect(signIds, id).toContain(other);
		}
	});

	it('gives every sign a cause, and every condition several signs', () => {
		for (const id of signIds)
			expect(
				conditionIds.some((condition) => strengthOf(defaultValues, id, condition) >= 0.2),
				id
			).toBe(true);
		// What has no name shows a little of anything.
		expect(
			signIds.filter((id) => strengthOf(defaultValues, id, 'something-else') >= 0.2).length
		).toBeGreaterThan(60);
		for (const condition of conditionIds.filter((id) => id !== 'something-else'))
			expect(
				signIds.filter((id) => strengthOf(defaultValues, id, condition) >= 0.3).length,
				condition
			).toBeGreaterThanOrEqual(4);
	});

	it('never makes a higher grade likelier than a lower one', () => {
		for (const id of signIds)
			for (let grade = 2; grade <= topGrade(id); grade++) {
				const [low, high] = [effectOf(id, grade - 1, defaultValues), effectOf(id, grade, defaultValues)];
				expect(high.leak, id).toBeLessThan(low.leak);
				for (const i of conditionIds.keys())
					expect(high.strengths[i], id).toBeLessThanOrEqual(low.strengths[i] ?? 0);
			}
		// An owner's number cannot break that either.
		const own = resolveValues({ 'diagnosis.strength.sour-smell@2.root-rot': 0.99 });
		expect(strengthOf(own, 'sour-smell', 'root-rot', 2)).toBe(strengthOf(own, 'sour-smell', 'root-rot', 1));
	});

	it('looks first at eight things that fit the situation, harm nothing and take a minute each', () => {
		for (const [situation, season] of situations.flatMap((one) =>
			seasonPhases.map((s) => [one, s] as const)
		)) {
			const context = { situation, season, group: 'deciduous' } as const;
			const looked = firstLookOf(context);
			expect(new Set(looked).size).toBe(8);
			// A tree without leaves is not asked whether they wilt, nor how much sky they leave open.
			expect(looked.some((id) => signOf(id).needsLeaf)).toBe(season !== 'rest');
			for (const id of looked) {
				expect(signShows(id, context), id).toBe(true);
				if (situation !== 'just-lifted')
					expect(defaultValues[`diagnosis.harm.${signOf(id).procedure}`], id).toBeLessThanOrEqual(0.001);
			}
		}
	});
});

describe('what a kind shows at rest', () => {
	it('is nothing of leaves for every kind that stands bare, whatever its group, and leaves for the others', () => {
		const place = { latitudeDeg: 51, elevationM: 0, heldMinimumC: null } as never;
		let conifers = 0;
		for (const kind of shippedKinds) {
			const context = contextOf(
				{ tree: { situation: 'potted' }, kind, place },
				'2026-01-20',
				[],
				defaultValues
			);
			if (context.season !== 'rest') continue;
			const bare = !bearsAlways(kind);
			if (bare && kind.group === 'conifer') conifers++;
			expect(signShows('wilts-dry', context), kind.commonName).toBe(!bare);
			const standing = standingOn(
				{ tree: { vigour: 'fair' }, kind, place },
				'2026-01-20',
				{ failingFast: false, girdlerGrade: 0 },
				defaultValues
			);
			const asked = nextChecks(context, [], standing, defaultValues).checks[0];
			if (bare)
				expect(
					asked?.signIds.some((id) => signOf(id).needsLeaf),
					kind.commonName
				).toBe(false);
		}
		expect(conifers).toBeGreaterThan(2);
	});
});

describe('season of the year', () => {
	const maple = { group: 'deciduous', coldestC: -15 } as const;
	const north = { kind: 'open', latitudeDeg: 52, elevationM: 60, heldMinimumC: null } as const;
	it('is at rest in January, flushes in April or May, grows in July; half a year later in the south', () => {
		expect(seasonPhase(maple, north, '2026-01-15', defaultValues)).toBe('rest');
		expect(seasonPhase(maple, north, '2026-07-15', defaultValues)).toBe('summer');
		expect(seasonPhase(maple, { ...north, latitudeDeg: -38 }, '2026-07-15', defaultValues)).toBe('rest');
		expect(['flush', 'rest']).toContain(seasonPhase(maple, north, '2026-04-18', defaultValues));
	});
});

describe('acting now', () => {
	const standing = (over: Partial<StandingToday> = {}): StandingToday => ({
		seasonFit: 'out-of-window',
		vigour: 'fair',
		windowOn: '2026-11-01',
		monthsToWindow: 4,
		failingFast: false,
		girdledOverThird: false,
		...over
	});

	it('treats rot in any season and lets tidying wait for its window', () => {
		for (const vigour of vigours) {
			expect(actNow('root-rot', 0.7, standing({ vigour }), defaultValues).verdict, vigour).toBe('now');
			expect(actNow('pot-bound', 0.95, standing({ vigour }), defaultValues).verdict, vigour).toBe('window');
		}
		// Four days before its window opens a sure cause waits for it, and not for a further look; within it, it is acted on.
		const soon = standing({ seasonFit: 'shoulder', monthsToWindow: 4 / 30, windowOn: '2026-03-24' });
		expect(actNow('pot-bound', 0.99, soon, defaultValues)).toMatchObject({
			verdict: 'window',
			waitUntil: '2026-03-24',
			waitMonths: 4 / 30
		});
		const open = standing({ seasonFit: 'in-window', monthsToWindow: 0, windowOn: '2026-03-24' });
		expect(actNow('pot-bound', 0.99, open, defaultValues)).toMatchObject({ verdict: 'now', waitUntil: null });
		expect(actNow('pot-bound', 0.95, standing(), defaultValues).waitUntil).toBe('2026-11-01');
	});

	it('frees a strangled trunk and a tree dying in place out of season', () => {
		expect(actNow('girdling-roots', 0.6, standing(), defaultValues).verdict).toBe('window');
		expect(actNow('girdling-roots', 0.6, standing({ girdledOverThird: true }), defaultValues).verdict).toBe(
			'now'
		);
		expect(
			actNow('collapsed-mix', 0.7, standing({ failingFast: true, monthsToWindow: 6 }), defaultValues).verdict
		).toBe('now');
	});

	it('looks further while the chance is too low, and pays nothing where the season does not matter', () => {
		expect(actNow('root-rot', 0.05, standing(), defaultValues).verdict).toBe('look');
		const inside = actNow('drought', 0.4, standing({ seasonFit: 'in-window' }), defaultValues);
		expect(actNow('drought', 0.4, standing(), defaultValues).actingCost).toBeCloseTo(inside.actingCost, 12);
	});

	it('changes its mind exactly at the threshold it names', () => {
		fc.assert(
			fc.property(
				fc.constantFrom(...conditionIds),
				fc.constantFrom(...vigours),
				fc.double({ min: 0, max: 12, noNaN: true }),
				fc.double({ min: 0, max: 1, noNaN: true }),
				(id, vigour, monthsToWindow, chance) => {
					const now = actNow(id, chance, standing({ vigour, monthsToWindow }), defaultValues);
					expect(now.actingCost).toBeGreaterThanOrEqual(0);
					if (Math.abs(chance - now.threshold) > 1e-9)
						expect(now.actingCost < now.waitingCost).toBe(chance > now.threshold);
				}
			)
		);
	});

	it('names every treatment and whether it works at the roots', () => {
		for (const id of conditionIds) expect(conditions[id].meaning.length).toBeGreaterThan(15);
	});
});

describe('the next check', () => {
	const standing: StandingToday = {
		seasonFit: 'out-of-window',
		vigour: 'weak',
		windowOn: '2026-11-01',
		monthsToWindow: 4,
		failingFast: false,
		girdledOverThird: false
	};
	const strong: StandingToday = { ...standing, seasonFit: 'in-window', vigour: 'strong', monthsToWindow: 0 };
	const wet = present('wilts-wet', 'stays-wet');
	const worthOf = (result: ReturnType<typeof nextChecks>, procedure: string) =>
		result.checks
			.filter((check) => check.procedure === procedure)
			.reduce((most, check) => Math.max(most, check.worth), 0);

	it('asks nothing twice and nothing that does not apply', () => {
		const { checks } = nextChecks(bare('potted'), wet, standing, defaultValues);
		const asked = checks.flatMap((check) => check.signIds);
		expect(new Set(asked).size).toBe(asked.length);
		for (const id of asked) {
			expect(wet.some((finding) => finding.signId === id)).toBe(false);
			expect(signApplies(id, 'potted')).toBe(true);
		}
	});

	it('never promises less than nothing, and ranks by worth', () => {
		fc.assert(
			fc.property(context, findings, (where, found) => {
				const { checks } = nextChecks(where, found, standing, defaultValues);
				for (const [i, check] of checks.entries()) {
					expect(check.gainBits).toBeGreaterThan(0);
					if (i > 0) expect(check.worth).toBeLessThanOrEqual(checks[i - 1]?.worth ?? 0);
					for (const sign of check.signIds) {
						const answers = check.answers.filter((answer) => answer.signId === sign);
						expect(answers).toHaveLength(gradesOf(sign).length);
						expect(answers.reduce((sum, answer) => sum + answer.probability, 0)).toBeCloseTo(1, 6);
					}
				}
			}),
			{ numRuns: 6 }
		);
	});

	it('says of each answer what a diagnosis with it would say', () => {
		const { checks } = nextChecks(bare('potted'), wet, standing, defaultValues);
		for (const check of checks.slice(0, 6))
			for (const answer of check.answers) {
				const then = diagnose(
					bare('potted'),
					[...wet, { signId: answer.signId, grade: answer.grade }],
					defaultValues
				);
				expect(answer.chance).toBeCloseTo(chanceOf(then, check.subject), 6);
			}
	});

	it('after many findings too, where all but the leading checks are only sifted roughly', () => {
		const many = present(
			'wilts-wet',
			'stays-wet',
			'sour-smell',
			'leaf-drop',
			'crown-thin',
			'short-shoots',
			'leans-rocks'
		);
		const { checks } = nextChecks(bare('potted'), many, standing, defaultValues);
		expect(checks.length).toBeGreaterThan(30);
		for (const check of checks.slice(0, 3))
			for (const answer of check.answers.filter((one) => one.probability > 0.05)) {
				const then = diagnose(
					bare('potted'),
					[...many, { signId: answer.signId, grade: answer.grade }],
					defaultValues
				);
				expect(Math.abs(answer.chance - chanceOf(then, check.subject))).toBeLessThan(0.02);
			}
	});

	it('costs a weak tree out of season more to unpot than to weigh, and a strong one in its window less', () => {
		const asked = [...wet.slice(0, 1)];
		const weak = nextChecks(bare('potted'), asked, standing, defaultValues);
		const fit = nextChecks(bare('potted'), asked, strong, defaultValues);
		const harmOf = (result: typeof weak, procedure: string) =>
			result.checks.find((check) => check.procedure === procedure)?.harm ?? NaN;
		expect(harmOf(weak, 'unpot')).toBeCloseTo(0.015 * 2.5 * 2, 9);
		expect(harmOf(fit, 'unpot')).toBeCloseTo(0.015 * 0.7, 9);
		expect(harmOf(weak, 'weigh')).toBe(0);
		expect(worthOf(weak, 'weigh')).toBeGreaterThan(worthOf(weak, 'unpot'));
	});

	it('harms no more once the pot is off', () => {
		const { checks } = nextChecks(
			bare('potted'),
			[{ signId: 'solid-mat', grade: 0 }],
			standing,
			defaultValues
		);
		expect(checks.find((check) => check.procedure === 'unpot')?.harm).toBe(0);
	});

	it('says in one sentence what to do and what each answer would mean', () => {
		const [first] = nextChecks(bare('potted'), wet, standing, defaultValues).checks;
		if (!first) throw new Error('no check');
		const sentence = checkSentence(first, 'potted', (chance) => `${Math.round(chance * 100)} %`);
		expect(sentence).toContain(signOf(first.signIds[0] as SignId).how.replace(/\.$/, ''));
		for (const word of gradesOf(first.signIds[0] as SignId)) expect(sentence).toContain(word);
	});

	it('sends nobody to lift the pot of a tree that grows in the ground', () => {
		for (const [situation, says] of [
			['potted', /lift the pot/],
			['in-ground', /feel the soil a hand deep/]
		] as const) {
			const [check] = nextChecks(bare(situation), wet, standing, defaultValues).checks;
			if (!check) throw new Error('no check');
			const told = checkSentence({ ...check, signIds: ['wilts-dry'] }, situation, String);
			expect(told, situation).toMatch(says);
		}
	});
});

describe('the numbers behind a sign', () => {
	it('are all that are told of it and of no other: its leaks and what each cause does, grade by grade', () => {
		const all = valueKeys.filter((key) => /^diagnosis\.(leak|strength)\./.test(key));
		const behind = signIds.map((sign) => keysOfSign(sign).filter(isValueKey));
		expect(behind.flat().sort()).toEqual(all.sort());
		for (const [i, sign] of signIds.entries())
			for (const key of behind[i] ?? []) expect(key.split('.')[2]?.split('@')[0], key).toBe(sign);
	});
});
