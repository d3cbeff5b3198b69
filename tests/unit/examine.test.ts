import { pottingMixOf } from '$core/replant/mixes/mixes';
import { describe, expect, it } from 'vitest';
import { changedTogether, daysOfChange, staggeredPlan, type FactorChange } from '$core/tree/changes';
import { conditionIds, conditionOf } from '$core/vocabulary/conditions';
import { diagnose } from '$core/examine/diagnosis/diagnose';
import { compareLooks } from '$core/examine/diagnosis/examination';
import { neighbourChecks, spreading, type YardNeighbour } from '$core/examine/diagnosis/neighbours';
import { isLarge, referrals } from '$core/examine/diagnosis/referral';
import { signApplies, signOf, type SignId } from '$core/vocabulary/signs';
import { handsFor } from '$core/examine/measuring/ball-mass';
import { calibrate } from '$core/simulate/cases';
import {
	needsNewLook,
	survival,
	triageAdvice,
	triageLook,
	vitalities,
	type TriageSubject
} from '$core/examine/triage/triage';
import { createFormat } from '$core/text/format';
import { defaultValues } from '$core/values/values';
import { LookDraft } from '$views/examine/look-draft.svelte';
import { cut, memory } from '../records';

const values = defaultValues;

describe('triage', () => {
	const subject: TriageSubject = {
		group: 'deciduous',
		potted: false,
		reserves: 'field-grown',
		trunkDiameterMm: 60,
		seasonFit: 'in-window',
		windowOn: null,
		pressing: null,
		rotChance: 0
	};
	const look = (change: object = {}) =>
		triageLook.parse({
			decidedOn: '2026-04-18',
			purpose: 'lift',
			vitality: 'strong',
			scratchAlive: true,
			permission: 'written',
			protectedSpecies: false,
			servicesLocated: true,
			pests: 'none',
			rootsKept: 0.08,
			...change
		});
	const advise = (change: object = {}, about: Partial<TriageSubject> = {}) =>
		triageAdvice(look(change), { ...subject, ...about }, values);

	it('goes with a strong tree in its window, nurses a weak one, waits out of season', () => {
		expect(advise().decision).toBe('go');
		expect(advise({ vitality: 'weak', pests: 'leaf' }).decision).toBe('nurse');
		expect(
			advise({ vitality: 'fair' }, { seasonFit: 'out-of-window', windowOn: '2026-11-01' }).decision
		).toBe('nurse');
	});
	it.each([
		[{ protectedSpecies: true }, /protected/],
		[{ pests: 'root' }, /Root pests/]
	])('leaves it, however strong, when %j', (change, why) => {
		const { decision, reasons } = advise({ ...change, dyingInPlace: true });
		expect(decision).toBe('leave');
		expect(reasons.find((reason) => reason.weight === 'must')?.text).toMatch(why);
	});
	it('what a person can settle comes first, and makes the tree worth no less', () => {
		const firsts = (change: object) => {
			const { decision, reasons } = advise(change);
			return [decision, reasons.filter((one) => one.weight === 'first').map((one) => one.text)] as const;
		};
		const hands = { ballDiameterMm: 900, ballDepthMm: 600, helpers: 1 };
		const all = firsts({ permission: 'not-yet', servicesLocated: false, ...hands });
		expect(all[0]).toBe('first');
		expect(all[1]).toHaveLength(3);
		expect(all[1].join(' ')).toMatch(
			/Permission, in writing.*services located.*needs a machine; 2 are there/
		);
		expect(firsts({ ...hands, helpers: 3, machine: true })[0]).toBe('go');
		// One that is not worth it is not made so by hands that are missing, nor is a stop lifted by them.
		expect(firsts({ ...hands, vitality: 'dying', rootsKept: 0.01, scratchAlive: false })[0]).toBe('leave');
		expect(firsts({ ...hands, pests: 'root' })[0]).toBe('leave');
		// Survival is that of the tree, whoever is there.
		expect(advise(hands).survival.chance).toBe(advise().survival.chance);
	});
	it('lets a machine take the weight, and takes what is lost anyway', () => {
		expect(advise({ ballDiameterMm: 900, ballDepthMm: 600, machine: true }).decision).toBe('go');
		expect(advise({ vitality: 'dying', scratchAlive: true, dyingInPlace: true }).decision).toBe('go');
	});
	it('asks for protected species and sites of what is lifted, and of what is worked on where it grows', () => {
		const asked = (purpose: string, potted: boolean) =>
			advise({ purpose, protectedSpecies: null }, { potted }).reasons.some(({ text }) =>
				/protected/.test(text)
			);
		expect([asked('lift', false), asked('lift', true), asked('treat', false), asked('treat', true)]).toEqual([
			true,
			true,
			true,
			false
		]);
		expect(advise({ purpose: 'treat', protectedSpecies: null }, { potted: true }).decision).toBe('go');
		expect(advise({ purpose: 'treat', protectedSpecies: true }, { potted: true }).decision).toBe('leave');
	});
	it('never nurses first, nor leaves, what its last look says to act on now where it stands', () => {
		const pressing = { subject: 'Root rot is', chance: 0.95 };
		for (const vitality of vitalities)
			for (const seasonFit of ['in-window', 'shoulder', 'out-of-window'] as const) {
				const about = { seasonFit, windowOn: '2026-11-01', rotChance: 0.95, pressing };
				const treated = advise({ purpose: 'treat', vitality }, about);
				expect(treated.decision).toBe('go');
				expect(treated.nursed).toBeNull();
				expect(treated.reasons.map(({ text }) => text)).toContain(
					'Root rot is likely (95 %): what is done about it now costs less than waiting.'
				);
				const lifted = advise({ vitality }, about);
				expect(lifted.decision).not.toBe('nurse');
				// The chance is that of the tree, whatever presses; what must not be still stops it.
				const calm = advise({ purpose: 'treat', vitality }, { ...about, pressing: null });
				expect(treated.survival).toEqual(calm.survival);
				expect(calm.nursed).not.toBeNull();
				expect(advise({ purpose: 'treat', vitality, protectedSpecies: true }, about).decision).toBe('leave');
				expect(advise({ purpose: 'treat', vitality, protectedSpecies: null }, about).decision).toBe('ask');
				expect(advise({ purpose: 'treat', vitality, permission: 'not-yet' }, about).decision).toBe('first');
			}
		expect(advise({ vitality: 'dying', rootsKept: 0.01 }, { pressing }).decision).toBe('leave');
	});
	it('what is not known never reads better than a middling known, and holds the go until it is answered', () => {
		const chance = (change: object): number => advise(change).survival.chance;
		expect(chance({ rootsKept: null })).toBeLessThanOrEqual(chance({ rootsKept: 0.08 }));
		expect(chance({ scratchAlive: null })).toBeLessThan(chance({ scratchAlive: true }));
		expect(chance({ scratchAlive: null })).toBeGreaterThan(chance({ scratchAlive: false }));
		for (const unknown of [{ protectedSpecies: null }, { servicesLocated: null }]) {
			const { decision, reasons } = advise(unknown);
			expect(decision).toBe('ask');
			expect(reasons.some((reason) => /^Find out first: whether/.test(reason.text))).toBe(true);
		}
		expect(advise({ purpose: 'treat', servicesLocated: null }).decision).toBe('go');
		expect(advise({ purpose: 'treat', protectedSpecies: null }).decision).toBe('ask');
		const all = { scratchAlive: null, rootsKept: null, protectedSpecies: null, servicesLocated: null };
		expect(advise(all).decision).not.toBe('go');
		expect(['first', 'leave']).toContain(advise({ ...all, permission: 'not-yet' }).decision);
		// A thing unknown never makes the chance better, whatever else holds.
		for (const vitality of ['strong', 'fair', 'weak', 'dying'])
			for (const key of ['rootsKept', 'scratchAlive'] as const)
				expect(chance({ vitality, [key]: null })).toBeLessThanOrEqual(
					chance({ vitality, [key]: key === 'rootsKept' ? 0.08 : true }) + 1e-12
				);
	});
	it('a ball too large for hands needs a machine, never a hundred people', () => {
		const huge = advise({ ballDiameterMm: 2000, ballDepthMm: 1000, helpers: 3 });
		expect(huge.decision).toBe('first');
		expect(huge.reasons.map((reason) => reason.text).join(' ')).toMatch(/needs a machine; 4 are there/);
		expect(
			advise({ ballDiameterMm: 2000, ballDepthMm: 1000, helpers: 50 })
				.reasons.map((one) => one.text)
				.join(' ')
		).toMatch(/machine/);
		expect(handsFor(1, values)).toBe('one person');
		// The sentence has the mass that the page has beside it, in pounds too.
		const feet = createFormat({ units: 'imperial', locale: 'en-GB' });
		const { mass, reasons } = advise({ ballDiameterMm: 610, ballDepthMm: 279, helpers: 1 });
		expect(reasons.map(({ text }) => feet.withMeasures(text)).join(' ')).toContain(
			`About ${feet.measure(mass?.usualKg ?? NaN, 'kg', 0)} needs`
		);
		const { mass: vast, reasons: many } = advise({ ballDiameterMm: 1200, ballDepthMm: 601, helpers: 50 });
		expect(many.map(({ text }) => feet.withMeasures(text)).join(' ')).toContain(
			`About ${feet.measure(vast?.usualKg ?? NaN, 'kg', 0)} is for a machine`
		);
		expect(handsFor(3, values)).toBe('3 people or a machine');
		expect(handsFor(181, values)).toBe('a machine');
	});
	it('gives a range that holds the chance, falls with vitality, and widens with what is not known', () => {
		const chances = vitalities.map((vitality) => survival(look({ vitality }), subject, values));
		chances.forEach(({ low, chance, high }, i) => {
			expect(low).toBeLessThan(chance);
			expect(chance).toBeLessThan(high);
			if (i > 0) expect(chance).toBeLessThan(chances[i - 1]?.chance ?? 0);
		});
		const known = survival(look(), subject, values);
		const named = (least: number): number =>
			survival(look(), subject, { ...values, 'triage.effectLeast': least }).factors.length;
		expect(named(0)).toBeGreaterThan(named(0.1));
		const unknown = survival(look({ rootsKept: null, scratchAlive: null }), subject, values);
		expect(unknown.high - unknown.low).toBeGreaterThan(known.high - known.low);
		expect(unknown.factors.filter((factor) => !factor.known).map((factor) => factor.label)).toEqual([
			'alive under the bark',
			'share of roots kept'
		]);
	});
	it('has backups taken only from what may be lost, enough that one takes', () => {
		expect(advise().backups).toBe(0);
		// 1 − 0.6ⁿ reaches 0.95 at six.
		expect(advise({ vitality: 'dying', dyingInPlace: true }).backups).toBe(6);
	});
	it('counts roots that come along by doublings of the usual share, up to a few, so that more never reads worse', () => {
		const chance = (rootsKept: number): number =>
			Math.log(1 / survival(look({ rootsKept }), subject, values).chance - 1);
		expect(chance(0.04) - chance(0.08)).toBeCloseTo(values['triage.roots-slope'], 9);
		expect(chance(0.08) - chance(0.32)).toBeCloseTo(2 * values['triage.roots-slope'], 9);
		expect(chance(0.64)).toBeCloseTo(chance(1), 9);
		expect(chance(0)).toBeCloseTo(chance(0.01), 9);
	});
	it('pests nobody looked for read no better than none seen', () => {
		const of = (pests: string, own = values) => survival(look({ pests }), subject, own);
		expect(of('unknown').chance).toBeLessThanOrEqual(of('none').chance);
		const kinder = { ...values, 'triage.pests.unknown': 2 };
		expect(of('unknown', kinder).chance).toBeLessThanOrEqual(of('none', kinder).chance + 1e-12);
		expect(of('unknown').factors.some((factor) => !factor.known && /pests/.test(factor.label))).toBe(true);
	});
	it('asks for a new look after a fortnight, not before', () => {
		expect(needsNewLook({ decidedOn: '2026-04-04' }, '2026-04-18', values)).toBe(false);
		expect(needsNewLook({ decidedOn: '2026-04-03' }, '2026-04-18', values)).toBe(true);
	});
});

describe('referral', () => {
	const large = { situation: 'in-ground' as const, trunkDiameterMm: 420, heightM: 11 };
	const context = { situation: 'in-ground' as const, group: null, season: null, events: [] };
	const refer = (found: [SignId, number][], tree: Parameters<typeof isLarge>[0] = large) => {
		const findings = found.map(([signId, grade]) => ({ signId, grade }));
		return referrals(tree, findings, diagnose(context, findings, values), values);
	};
	it('is today for lifted soil, within days for brackets and cracks, later for girdling', () => {
		expect(
			refer([
				['soil-lifted', 1],
				['leans-rocks', 1]
			])[0]
		).toMatchObject({ urgency: 'now' });
		expect(refer([['leans-rocks', 2]])[0]).toMatchObject({ urgency: 'now' });
		expect(refer([['brackets', 1]])[0]).toMatchObject({ urgency: 'week' });
		expect(refer([['bark-cracks', 2]])[0]).toMatchObject({ urgency: 'week' });
		expect(refer([['girdler-seen', 2]])[0]).toMatchObject({ urgency: 'month' });
		// Nests say what brackets say already, and are said where those were not seen.
		const nests = (found: [SignId, number][]) =>
			refer([['nests-in-wood', 1], ...found]).map(({ because }) => /nests/.test(because));
		expect(nests([])).toEqual([true]);
		expect(nests([['brackets', 0]])).toEqual([true]);
		expect(nests([['brackets', 1]])).toEqual([false]);
	});
	it('is not for what was looked for and is not there, nor for a small or potted tree', () => {
		expect(
			refer([
				['brackets', 0],
				['soil-lifted', 0],
				['leans-rocks', 0]
			])
		).toEqual([]);
		expect(refer([['brackets', 1]], { ...large, trunkDiameterMm: 60, heightM: 2 })).toEqual([]);
		expect(refer([['leans-rocks', 2]], { ...large, situation: 'potted' })).toEqual([]);
	});
	it('comes of probable rot alone', () => {
		const found: [SignId, number][] = [
			['collar-bark-dark', 1],
			['crown-thin', 2],
			['stem-bleeds', 1],
			['nests-in-wood', 1]
		];
		expect(refer(found).length).toBeGreaterThan(0);
	});
});

describe('neighbours', () => {
	const neighbour = (id: string, change: Partial<YardNeighbour> = {}): YardNeighbour => ({
		id,
		tag: id,
		name: id,
		situation: 'potted',
		placeId: 'bench',
		batch: '',
		watering: '',
		mixName: null,
		lastLookOn: null,
		...change
	});
	const sick = neighbour('sick', { batch: 'ridge', watering: 'barrel', mixName: 'bark' });
	const rot = diagnose(
		{ situation: 'potted', group: null, season: null, events: [] },
		[
			{ signId: 'sour-smell', grade: 2 },
			{ signId: 'roots-dark-soft', grade: 1 },
			{ signId: 'wilts-wet', grade: 1 }
		],
		values
	);
	it('are listed by what the suspicion spreads by, most shared first, with a check that applies', () => {
		const suspects = spreading(rot, values);
		expect(suspects).toContain('root-rot');
		const list = neighbourChecks(
			sick,
			suspects,
			[
				sick,
				neighbour('far', { placeId: 'bay' }),
				neighbour('place'),
				neighbour('mix', { placeId: 'bay', mixName: 'bark', situation: 'just-lifted' }),
				neighbour('all', { batch: ' Ridge', watering: 'barrel', mixName: 'bark' })
			],
			values
		);
		expect(list[0]?.tree.id).toBe('all');
		expect(list.map((check) => check.tree.id)).not.toContain('far');
		expect(list.map((check) => check.tree.id)).not.toContain('sick');
		for (const check of list) {
			expect(signApplies(check.signId, check.tree.situation)).toBe(true);
			expect(check.shares.length).toBeGreaterThan(0);
			for (const thing of check.shares)
				expect(suspects.some((id) => conditionOf(id).spreadsBy?.includes(thing))).toBe(true);
			// Nobody takes a tree out of its pot because its neighbour is ill.
			expect(['unpot', 'sample', 'open-edge']).not.toContain(signOf(check.signId).procedure);
		}
	});
	it('are none when nothing that spreads is likely', () => {
		const bound = diagnose(
			{ situation: 'potted', group: null, season: null, events: [] },
			[
				{ signId: 'solid-mat', grade: 2 },
				{ signId: 'sour-smell', grade: 0 },
				{ signId: 'insects-seen', grade: 0 }
			],
			values
		);
		expect(neighbourChecks(sick, spreading(bound, values), [neighbour('place')], values)).toEqual([]);
	});
});

describe('what was changed', () => {
	const change = (changedOn: string, ...factors: FactorChange['factors']): FactorChange => ({
		id: changedOn,
		version: 1,
		changedOn,
		factors,
		note: ''
	});
	it('is gathered by day from the log, the plantings and the cuts', () => {
		const days = daysOfChange(
			[change('2026-03-02', 'watering')],
			[
				{ plantedOn: '2026-03-01', mix: pottingMixOf('pumice-bark'), placeId: null },
				{ plantedOn: '2025-03-01', mix: pottingMixOf('pumice-bark'), placeId: null }
			],
			{
				cuts: [cut('s', 0, '2026-03-01')]
			}
		);
		expect(days.map(({ on, factors }) => [on, factors])).toEqual([
			['2025-03-01', ['pot', 'mix']],
			// The same mix again is no change of mix.
			['2026-03-01', ['pot', 'roots-cut']],
			['2026-03-02', ['watering']]
		]);
		expect(changedTogether(days)).toEqual([
			{ fromOn: '2025-03-01', toOn: '2025-03-01', factors: ['pot', 'mix'] },
			{ fromOn: '2026-03-01', toOn: '2026-03-02', factors: ['watering', 'pot', 'roots-cut'] }
		]);
	});
	it('can be told apart when two days lie between, or one thing only was changed', () => {
		const apart = daysOfChange([change('2026-03-02', 'watering'), change('2026-03-04', 'light')], [], null);
		expect(changedTogether(apart)).toEqual([]);
		const same = daysOfChange([change('2026-03-02', 'watering'), change('2026-03-03', 'watering')], [], null);
		expect(changedTogether(same)).toEqual([]);
	});
	it('is planned one by one, roots last, never two within the time of watching', () => {
		const steps = staggeredPlan(['roots-cut', 'pot', 'light'], '2026-04-18', values);
		expect(steps.map((step) => step.factor)).toEqual(['light', 'pot', 'roots-cut']);
		expect(steps.map((step) => step.on)).toEqual(['2026-04-18', '2026-05-09', '2026-05-30']);
		for (const [i, step] of steps.entries())
			expect(steps[i + 1]?.on ?? step.watchUntil).toBe(step.watchUntil);
	});
});

it('two looks are compared sign by sign, what is new first', () => {
	const before = [
		{ signId: 'sour-smell' as const, grade: 1 },
		{ signId: 'wilts-wet' as const, grade: 1 },
		{ signId: 'stays-wet' as const, grade: 2 },
		{ signId: 'crown-thin' as const, grade: 1 },
		{ signId: 'suckers' as const, grade: 0 },
		{ signId: 'bark-cracks' as const, grade: 0 }
	];
	const after = [
		{ signId: 'sour-smell' as const, grade: 2 },
		{ signId: 'wilts-wet' as const, grade: 0 },
		{ signId: 'stays-wet' as const, grade: 1 },
		{ signId: 'sticky-leaves' as const, grade: 1 },
		{ signId: 'suckers' as const, grade: 0 },
		{ signId: 'bark-cracks' as const, grade: 1 },
		{ signId: 'soil-lifted' as const, grade: 0 }
	];
	expect(compareLooks(before, after).map(({ signId, change }) => [signId, change])).toEqual([
		['sticky-leaves', 'new'],
		['bark-cracks', 'new'],
		['sour-smell', 'worse'],
		['stays-wet', 'better'],
		['wilts-wet', 'gone'],
		['suckers', 'same'],
		// Looked for the first time and not there: no word of how it was before.
		['soil-lifted', 'first looked'],
		['crown-thin', 'not looked']
	]);
});

it('simulated cases from a jittered model: chances said are held, and the cause is named', () => {
	const { firstHolds, amongThree, gap, reliability } = calibrate(values, 300, 0.5, 7);
	expect(firstHolds).toBeGreaterThan(0.65);
	expect(amongThree).toBeGreaterThan(0.85);
	expect(gap).toBeLessThan(0.02);
	expect(reliability.reduce((sum, bin) => sum + bin.count, 0)).toBe(300 * conditionIds.length);
});

describe('the draft of a look', () => {
	const drafted = (keep = memory()) => {
		const draft = new LookDraft('t');
		draft.open(keep);
		return { draft, keep };
	};
	it('is kept at every touch and found again, and gone once it is empty', () => {
		const { draft, keep } = drafted();
		draft.set('sour-smell', 2);
		draft.set('wilts-wet', 0);
		draft.setEvents(['repotted']);
		draft.setFailingFast(true);
		const again = drafted(keep).draft;
		expect({ ...again.answers }).toEqual({ 'sour-smell': 2, 'wilts-wet': 0 });
		expect(again.events).toEqual(['repotted']);
		expect(again.failingFast).toBe(true);
		again.clear();
		expect(keep.kept.size).toBe(0);
	});
	it('takes the signs back in the order in which they were set', () => {
		const { draft } = drafted();
		draft.set('sour-smell', 1);
		draft.set('wilts-wet', 1);
		draft.set('sour-smell', 2);
		draft.undo();
		expect({ ...draft.answers }).toEqual({ 'wilts-wet': 1 });
		draft.undo();
		draft.undo();
		expect(draft.count).toBe(0);
	});
	it('survives what is broken or unknown in the store', () => {
		for (const text of [
			'{',
			'[]',
			'null',
			'{"answers":{"no-sign":1,"sour-smell":7,"wilts-wet":1},"events":["x",3]}'
		]) {
			const keep = memory();
			keep.setItem('bruntle.look.t', text);
			const { draft } = drafted(keep);
			expect(Object.keys(draft.answers)).toEqual(text.includes('wilts-wet') ? ['wilts-wet'] : []);
			expect(draft.events).toEqual([]);
		}
	});
	it('lets what is set by hand stand before what was measured, and names where they differ', () => {
		const { draft } = drafted();
		const measured = [
			{ signId: 'water-stands' as const, grade: 2, measuredBy: 'm1' },
			{ signId: 'lump-squeezed' as const, grade: 1, measuredBy: 'm2' }
		];
		draft.set('water-stands', 0);
		expect(draft.findings(measured)).toEqual([
			{ signId: 'water-stands', grade: 0, measuredBy: null },
			measured[1]
		]);
		expect(draft.overruled(measured)).toEqual([measured[0]]);
		// What was measured is not copied into a look that begins from an earlier one.
		draft.begin([...measured, { signId: 'sour-smell', grade: 1, measuredBy: null }]);
		expect({ ...draft.answers }).toEqual({ 'sour-smell': 1 });
	});
});
