import { plain } from '$core/text/format';
import { describe, expect, it } from 'vitest';
import type { Kind } from '$core/vocabulary/kind';
import { shippedKinds } from '$core/vocabulary/shipped';
import { examinationInput } from '$core/examine/diagnosis/examination';
import { checkNow } from '$core/tree/closer';
import { unlikelyIn } from '$core/recovery/unlikely';
import { byForecast, decisionsDue, steadyLimit, type DecisionFacts } from '$core/recovery/decisions';
import { lookQuestions, type LookFacts } from '$core/recovery/look';
import { observationInput, shootsMean, woodFell, type Observation } from '$core/examine/looks/observation';
import { mayFall, ownersLetter, type LetterFacts } from '$core/recovery/owner-letter';
import { shootGrowth } from '$core/recovery/shoot-growth';
import { seasonPoint, seasonsOf } from '$core/recovery/season';
import { decisionInput } from '$core/recovery/said';
import {
	cramersV,
	entangledWith,
	followOf,
	outcomesBy,
	type OutcomeCase
} from '$core/recovery/outcomes/outcomes';
import { defaultValues as values } from '$core/values/values';
import { bareDay } from '$core/climate/series';
import { addDays, daysBetween } from '$core/maths/calendar';

let next = 0;
const look = (observedOn: string, seen: Record<string, unknown>): Observation => ({
	...observationInput.parse({ observedOn, ...seen }),
	id: `o${next++}`,
	version: 1
});
const facts = (change: Partial<DecisionFacts> = {}): DecisionFacts => ({
	potted: true,
	today: '2026-06-20',
	sinceOn: '2026-02-20',
	seasonBeganOn: '2026-04-10',
	inSeason: true,
	evergreen: false,
	tender: false,
	heightMm: 1000,
	observations: [],
	probability: 0.8,
	probabilityBefore: 0.8,
	dryness: null,
	gate: null,
	stagesLeft: 0,
	referenceShootMm: null,
	reEstablished: false,
	...change
});
const kinds = (change: Partial<DecisionFacts>): string[] =>
	decisionsDue(facts(change), values).map((due) => due.kind);

describe('what is to be decided', () => {
	it('wilting parts the ways by the water of the pot; unknown, it asks for that first', () => {
		const observations = [look('2026-06-15', { leafState: 'wilted' })];
		expect(kinds({ observations, dryness: 0.1 })[0]).toBe('rot-path');
		expect(kinds({ observations, dryness: 0.85 })[0]).toBe('water-path');
		expect(kinds({ observations, dryness: null })[0]).toBe('look-closer');
		// The examination said how wet it stood; what was weighed or felt since outranks it.
		const wet = observations.map((one) => ({ ...one, wiltedIn: 'wet' as const }));
		const dry = observations.map((one) => ({ ...one, wiltedIn: 'dry' as const }));
		expect(kinds({ observations: wet, dryness: null })[0]).toBe('rot-path');
		expect(decisionsDue(facts({ observations: wet }), values)[0]?.evidence[0]).toMatch(/the soil was wet/);
		expect(kinds({ observations: dry, dryness: null })[0]).toBe('water-path');
		expect(kinds({ observations: wet, dryness: 0.85 })[0]).toBe('water-path');
		expect(kinds({ observations: wet, dryness: 0.5 })[0]).toBe('look-closer');
		// An old wilting is not today's.
		expect(kinds({ observations: [look('2026-05-01', { leafState: 'wilted' })], dryness: 0.1 })).toEqual([
			'carry-on'
		]);
	});
	it('no buds by the late end of their time; last year’s buds do not count, and evergreens are not asked', () => {
		const late = [look('2026-06-18', { buds: 'none' })];
		expect(kinds({ observations: late })).toContain('look-closer');
		expect(kinds({ observations: [look('2026-05-01', { buds: 'none' })] })).not.toContain('look-closer');
		expect(kinds({ observations: [look('2026-05-20', { buds: 'open' }), ...late] })).not.toContain(
			'look-closer'
		);
		expect(
			kinds({ sinceOn: '2025-02-20', observations: [look('2025-05-20', { buds: 'open' }), ...late] })
		).toContain('look-closer');
		expect(kinds({ evergreen: true, observations: late })).not.toContain('look-closer');
	});
	it('dieback is cut back once two looks far enough apart agree, with the stop rule', () => {
		const first = look('2026-05-20', { diebackLimitMm: 610 });
		const steady = [first, look('2026-06-18', { diebackLimitMm: 600 })];
		const due = decisionsDue(facts({ observations: steady }), values).find((one) => one.kind === 're-cut');
		expect(due?.what).toContain('600 mm');
		expect(due?.first.join(' ')).toMatch(/only living shoot/);
		expect(kinds({ observations: [first, look('2026-06-18', { diebackLimitMm: 450 })] })).not.toContain(
			're-cut'
		);
		expect(kinds({ observations: [first, look('2026-05-25', { diebackLimitMm: 605 })] })).not.toContain(
			're-cut'
		);
		expect(steadyLimit([first], values)).toBeNull();
		// Alive to its top: nothing to cut.
		const whole = [
			look('2026-05-20', { diebackLimitMm: 1000 }),
			look('2026-06-18', { diebackLimitMm: 1000 })
		];
		expect(kinds({ observations: whole })).not.toContain('re-cut');
		// What two looks of long ago said decides nothing now: it is looked at first, and not cut meanwhile.
		const then = (days: number, change: Partial<DecisionFacts> = {}) =>
			decisionsDue(
				facts({ observations: steady, today: addDays('2026-06-18', days), ...change }),
				values
			).map(({ kind, what }) => `${kind}: ${what}`);
		const overdue = values['look.overdueDays'];
		expect(then(overdue - 1)).toEqual([expect.stringMatching(/^re-cut/)]);
		expect(then(overdue)).toEqual([
			`look-closer: Nobody has looked for ${overdue} days: look before anything is decided.`
		]);
		const gate = { stage: 1, answer: 'met' as const, because: ['Shoots.'] };
		expect(then(overdue - 1, { gate }).some((one) => /^next-stage/.test(one))).toBe(true);
		expect(then(overdue, { gate }).some((one) => /^next-stage/.test(one))).toBe(false);
		expect(then(overdue, { observations: [], sinceOn: '2026-06-18' })).toEqual([
			`look-closer: Nobody has looked since the work, ${overdue} days ago: look before anything is decided.`
		]);
	});
	it('a sour smell since the work asks for air, until it is smelt away; beside wilting in the wet it is said there', () => {
		const sour = [look('2026-06-10', { smell: 'sour' })];
		const of = (change: Partial<DecisionFacts>) =>
			decisionsDue(facts(change), values).find(({ what }) => /let air in/.test(what));
		expect(of({ observations: sour })).toMatchObject({
			kind: 'look-closer',
			what: 'Its pot smells sour: let air in, and water only what has dried.',
			presses: true
		});
		expect(of({ observations: sour, potted: false })?.what).toMatch(/^Its soil smells sour/);
		expect(of({ observations: [look('2026-06-10', { smell: 'sulphur' })] })?.what).toMatch(
			/^Its pot smells of sulphur/
		);
		expect(of({ observations: [...sour, look('2026-06-18', { smell: 'none' })] })).toBeUndefined();
		// Smelt on the day of the work it led to the work; on the day it came it is what it stands in.
		expect(of({ observations: sour, sinceOn: '2026-06-10' })).toBeUndefined();
		expect(of({ observations: sour, sinceOn: '2026-06-09' })).toBeDefined();
		expect(of({ observations: sour, sinceOn: '2026-06-10', worked: false })).toBeDefined();
		expect(of({ observations: [...sour, look('2026-06-18', { leafState: 'turgid' })] })).toBeDefined();
		expect(
			of({ observations: sour, today: addDays('2026-06-10', values['decision.smellDays']) })
		).toBeDefined();
		expect(
			of({ observations: sour, today: addDays('2026-06-10', values['decision.smellDays'] + 1) })
		).toBeUndefined();
		const wet = [look('2026-06-15', { smell: 'sour', leafState: 'wilted' })];
		expect(of({ observations: wet, dryness: 0.1 })).toBeUndefined();
		expect(kinds({ observations: wet, dryness: 0.1 })).toContain('rot-path');
		// With a smell it is never said to carry on.
		expect(kinds({ observations: sour })).not.toContain('carry-on');
	});
	it('death is asked about, never declared, with the checks to make first', () => {
		const dead = [
			look('2026-05-20', { buds: 'none', leafCover: 0, diebackLimitMm: 40 }),
			look('2026-06-18', { buds: 'none', leafCover: 0, diebackLimitMm: 0 })
		];
		const due = decisionsDue(facts({ observations: dead, probability: 0.02 }), values).find(
			(one) => one.kind === 'call-dead'
		);
		expect(due?.what).toMatch(/\?/);
		expect(due?.first.length).toBeGreaterThanOrEqual(3);
		expect(kinds({ observations: dead.slice(0, 1), probability: 0.02 })).not.toContain('call-dead');
	});
	it('on the day of the work nothing was seen yet, and the chance of the work is not how it does', () => {
		const [due] = decisionsDue(
			facts({ today: '2026-02-20', probability: 0.3, probabilityBefore: 0.9 }),
			values
		);
		expect(due).toMatchObject({ kind: 'look-closer', what: 'Take the first look: nothing was seen yet.' });
		const saidOn = (today: string, worked?: boolean) =>
			decisionsDue(facts({ today, worked, observations: [] }), values)[0]?.evidence;
		expect(due?.evidence).toEqual(['It was worked on today.']);
		expect(saidOn('2026-02-20', false)).toEqual(['It came today.']);
		expect(saidOn('2026-02-21')).toEqual(['Nobody looked at it since 2026-02-20.']);
	});
	it('out of the ground it is set first, and nobody is sent to look at it', () => {
		const due = decisionsDue(facts({ observations: [], outOn: '2026-04-12' }), values);
		expect(due).toEqual([
			expect.objectContaining({
				what: expect.stringMatching(/^Set it or heel it in first/),
				evidence: ['Out of the ground since 2026-04-12.'],
				presses: true,
				stage: 'replant'
			})
		]);
		expect(decisionsDue(facts({ observations: [], outOn: null }), values)[0]?.what).not.toMatch(/Set it/);
	});
	it('what the last look says to act on, or to check, is never carried on with', () => {
		const observations = [look('2026-06-18', { buds: 'open', leafState: 'turgid' })];
		const urgent = {
			subject: 'Girdling roots are',
			chance: 0.88,
			on: '2026-06-18',
			stage: 'roots',
			meaning: 'Map the collar; free the trunk and anchors first.'
		} as const;
		const check = {
			subject: 'Soil compaction is',
			chance: 0.74,
			on: '2026-06-18',
			check: { label: 'A rod stops short', how: 'Push a rod in.' }
		};
		const of = (causes: DecisionFacts['causes']) =>
			decisionsDue(facts({ observations, ...(causes && { causes }) }), values);
		expect(of({ urgent: null, check: null }).map(({ kind }) => kind)).toEqual(['carry-on']);
		expect(of({ urgent, check })).toEqual([
			{
				kind: 'act-now',
				what: 'Girdling roots are likely (88 %).',
				evidence: ['Looked at on 2026-06-18; nothing was done about it since.'],
				first: ['Map the collar; free the trunk and anchors first.'],
				stage: 'roots',
				presses: true
			}
		]);
		expect(of({ urgent: null, check })).toEqual([
			{
				kind: 'look-closer',
				what: 'Soil compaction is likely (74 %); check first: a rod stops short.',
				evidence: ['Looked at on 2026-06-18; nothing was done about it since.'],
				first: ['Push a rod in.'],
				stage: 'examine',
				presses: false
			}
		]);
		const waits = { ...urgent, windowOn: '2026-11-01' };
		expect(of({ urgent: null, check: null, waits })).toEqual([
			{
				kind: 'wait-window',
				what: 'Girdling roots are likely (88 %): the window for the work opens on 2026-11-01.',
				evidence: [
					'Looked at on 2026-06-18; nothing was done about it since.',
					'Until then the work costs more of its chance to live than waiting does.'
				],
				first: ['Map the collar; free the trunk and anchors first.'],
				stage: 'roots',
				presses: false
			}
		]);
		expect(of({ urgent: null, check, waits }).map(({ kind }) => kind)).toEqual(['look-closer']);
		expect(of({ urgent: null, check: { ...check, check: null } })[0]).toMatchObject({
			what: 'Soil compaction is likely (74 %); look anew, with what was seen since.',
			first: []
		});
	});
	it('nothing is carried on with beside what others have to see, or beside work past its window', () => {
		const observations = [look('2026-06-19', { leafState: 'turgid' })];
		expect(kinds({ observations })).toEqual(['carry-on']);
		const flag = { title: 'A qualified arborist has to see it', reason: 'Brackets.', byOn: '2026-06-25' };
		const [first, ...rest] = decisionsDue(facts({ observations, flags: [flag] }), values);
		expect(first).toMatchObject({ kind: 'look-closer', evidence: ['Brackets.'] });
		expect(first?.first.join(' ')).toContain('2026-06-25');
		expect(rest.map((one) => one.kind)).not.toContain('carry-on');
		expect(kinds({ observations, flags: [flag], reEstablished: true })).not.toContain('carry-on');
		const [late] = decisionsDue(facts({ observations, overdue: 2 }), values);
		expect(late?.what).toMatch(/^2 pieces of work are past their window/);
		expect(late?.evidence).toEqual(['The last look was yesterday.']);
	});
	it('a probability that is low or fell asks for a closer look; a met gate opens the stage; growth is left alone', () => {
		expect(kinds({ probability: 0.3, probabilityBefore: 0.3 })).toEqual(['look-closer']);
		expect(kinds({ probability: 0.7, probabilityBefore: 0.9 })).toEqual(['look-closer']);
		const seen = [look('2026-06-12', { leafState: 'turgid' })];
		const met = { stage: 1, answer: 'met', because: ['Shoots.'] } as const;
		expect(
			decisionsDue(facts({ observations: seen, gate: { ...met, because: [...met.because] } }), values)[0]
				?.first
		).toEqual(['Look at the weather of the days after, and at the carry-over list.']);
		expect(kinds({ observations: seen, gate: { ...met, because: [...met.because] } })).toEqual([
			'next-stage'
		]);
		expect(kinds({ observations: seen, gate: { stage: 1, answer: 'unknown', because: [] } })).toEqual([
			'carry-on'
		]);
		// Unseen for four months nothing is carried on: what it did meanwhile is not known.
		expect(kinds({ observations: [] })).toEqual(['look-closer']);
		expect(kinds({ observations: [look('2026-02-25', { leafState: 'turgid' })] })).toEqual(['look-closer']);
		const grown = [look('2026-06-10', { shootExtensionMm: 260 })];
		expect(kinds({ sinceOn: '2025-02-20', observations: grown, referenceShootMm: 300 })).toEqual([
			'let-grow'
		]);
		expect(kinds({ sinceOn: '2025-02-20', observations: grown, referenceShootMm: 900 })).toEqual([
			'carry-on'
		]);
	});
	it('each limit decides at its value, and on both sides of it', () => {
		const limit = (...mm: [string, number][]) =>
			mm.map(([on, diebackLimitMm]) => look(on, { diebackLimitMm, leafCover: 0.4 }));
		const asks = (kind: string, change: Partial<DecisionFacts>): boolean => kinds(change).includes(kind);
		const day = (days: number): string => addDays('2026-06-20', -days);
		const edges: [string, keyof typeof values, (at: number) => boolean, boolean][] = [
			// kind of edge, its value, what is asked just within it, whether more than it still asks
			[
				'wilted so long ago',
				'decision.wiltDays',
				(at) => asks('rot-path', { dryness: 0.1, observations: [look(day(at), { leafState: 'wilted' })] }),
				false
			],
			[
				'looks before a low chance asks',
				'decision.deadLooks',
				(at) =>
					asks('call-dead', {
						probability: 0.02,
						observations: Array.from({ length: at }, (_, i) => look(day(9 - i), { firmness: 'firm' }))
					}),
				true
			],
			[
				'alive up to',
				'decision.deadMm',
				(at) => asks('call-dead', { heightMm: 500, observations: [look(day(3), { diebackLimitMm: at })] }),
				false
			],
			[
				'days since the work',
				'decision.letGrowDays',
				(at) =>
					asks('let-grow', {
						sinceOn: day(at),
						seasonBeganOn: null,
						observations: [look(day(3), { leafCover: 0.9 })]
					}),
				true
			]
		];
		for (const [what, key, asked, more] of edges) {
			const at = values[key];
			const within = key === 'decision.letGrowDays' ? at + 1 : at;
			const beyond = key === 'decision.letGrowDays' ? at : at + (more ? -1 : 1);
			expect(asked(within), what).toBe(true);
			expect(asked(beyond), what).toBe(false);
		}
		// Buds may move some weeks before the season is counted from; the season began on 10 April.
		const early = (days: number): boolean =>
			asks('look-closer', {
				sinceOn: '2026-01-02',
				observations: [
					look(addDays('2026-04-10', -days), { buds: 'swelling' }),
					look('2026-06-18', { buds: 'none' })
				]
			});
		expect(early(values['decision.budsEarlyDays'])).toBe(false);
		expect(early(values['decision.budsEarlyDays'] + 1)).toBe(true);
		// Of a tall tree a share of its height counts as nothing, of a small one some millimetres.
		const share = values['decision.deadShare'];
		expect(
			asks('call-dead', {
				heightMm: 10_000,
				observations: [look(day(3), { diebackLimitMm: 10_000 * share })]
			})
		).toBe(true);
		expect(
			asks('call-dead', {
				heightMm: 10_000,
				observations: [look(day(3), { diebackLimitMm: 10_000 * share + 1 })]
			})
		).toBe(false);
		// Two limits agree within some millimetres, or within a share of a long one.
		const steady = (before: number, now: number) =>
			steadyLimit(limit([day(30), before], [day(2), now]), values) !== null;
		expect(steady(100, 100 + values['decision.steadyLeastMm'])).toBe(true);
		expect(steady(100, 101 + values['decision.steadyLeastMm'])).toBe(false);
		expect(steady(10_000, 10_000 * (1 - values['decision.steadyShare']))).toBe(true);
		expect(steady(10_000, 10_000 * (1 - values['decision.steadyShare']) - 1)).toBe(false);
		// What is alive to nearly the top is not cut back.
		const cut = (mm: number): boolean => asks('re-cut', { observations: limit([day(30), mm], [day(2), mm]) });
		expect(cut(1000 * values['decision.recutShare'] - 1)).toBe(true);
		expect(cut(1000 * values['decision.recutShare'])).toBe(false);
	});
	it('stand in the order in which they press: held, water, death, cutting back', () => {
		const limits = ['2026-05-20', '2026-06-18'].map((on) =>
			look(on, { diebackLimitMm: 600, leafState: 'wilted', firmness: 'loose' })
		);
		expect(kinds({ observations: limits, dryness: 0.85, probability: 0.02 })).toEqual([
			'retie',
			'water-path',
			'call-dead',
			're-cut'
		]);
	});
	it('what others have to see is asked once: no second closer look beside it', () => {
		const observations = [look('2026-06-18', { firmness: 'firm' })];
		const flags = [{ title: 'An arborist has to see it', reason: 'Cavity at the base.', byOn: '2026-06-25' }];
		expect(kinds({ observations, probability: 0.2 })).toEqual(['look-closer']);
		const due = decisionsDue(facts({ observations, probability: 0.2, flags }), values);
		expect(due.map((one) => one.what)).toEqual(['An arborist has to see it.']);
	});
	it('living wood went down by more than two readings differ, everywhere alike', () => {
		const least = (before: number): number =>
			before * (1 - values['decision.steadyShare']) - values['decision.steadyMm'];
		for (const before of [100, 1000, 8000]) {
			expect(woodFell(before, least(before), values)).toBe(false);
			expect(woodFell(before, least(before) - 1, values)).toBe(true);
		}
	});
	it('is overruled only with a reason', () => {
		const decision = { decidedOn: '2026-06-20', advised: 're-cut', decided: 'carry-on' };
		expect(decisionInput.safeParse(decision).error?.issues[0]?.path).toEqual(['note']);
		expect(decisionInput.safeParse({ ...decision, note: 'wait for a second look' }).success).toBe(true);
		expect(decisionInput.safeParse({ ...decision, decided: 're-cut' }).success).toBe(true);
	});
});

describe('what a look asks', () => {
	const asked = (change: Partial<LookFacts> = {}) =>
		lookQuestions(
			{
				today: '2026-06-20',
				sinceOn: '2026-02-20',
				worked: true,
				seasonBeganOn: '2026-04-10',
				kind: { group: 'deciduous' },
				tree: { situation: 'potted', plantCount: 1 },
				progress: 0.35,
				nearSeason: true,
				evergreen: false,
				observations: [],
				wounded: false,
				rotWasCut: false,
				structuralCut: false,
				waits: [],
				suckersSeen: false,
				pestsSeen: false,
				...change
			},
			values
		).map((question) => question.part);
	it('the shoots of a healthy one near by, where its own have nothing to be read against', () => {
		const wanting: Partial<LookFacts> = {
			referenceWanting: true,
			progress: 0.6,
			observations: [look('2026-06-18', { shootExtensionMm: 90 })]
		};
		expect(asked(wanting)).toContain('healthyShoot');
		expect(asked({ ...wanting, referenceWanting: false })).not.toContain('healthyShoot');
		expect(asked({ ...wanting, progress: 0.1 })).not.toContain('healthyShoot');
		expect(asked({ ...wanting, observations: [] })).not.toContain('healthyShoot');
		expect(asked({ ...wanting, sinceOn: '2026-06-19' })).not.toContain('healthyShoot');
	});
	it('at most seven things, each for a reason', () => {
		expect(asked().length).toBeLessThanOrEqual(7);
		expect(asked({ rotWasCut: true, pestsSeen: true, suckersSeen: true, structuralCut: true }).length).toBe(
			7
		);
	});
	it('what waits for the tree, what was found, and what the place allows', () => {
		expect(asked({ waits: ['buds-move'], progress: 0, nearSeason: false })).toContain('buds');
		expect(asked({ progress: 0, nearSeason: false })).not.toContain('buds');
		expect(asked({ rotWasCut: true })).toContain('smell');
		expect(asked({ tree: { situation: 'in-ground', plantCount: 1 } })).not.toContain('weight');
		expect(
			asked({ tree: { situation: 'potted', plantCount: 40 } })[0] === 'lot' ||
				asked({ tree: { situation: 'potted', plantCount: 40 } }).includes('lot')
		).toBe(true);
		const fell = [look('2026-05-01', { diebackLimitMm: 900 }), look('2026-06-01', { diebackLimitMm: 700 })];
		expect(asked({ observations: fell })).toContain('dieback');
		expect(asked({ observations: [look('2026-06-18', { shootExtensionMm: 100 })] })).not.toContain('shoots');
	});
	it('how it stands, for as long as it moved when it was last tried', () => {
		const tried = (firmness: 'firm' | 'moves' | 'loose') => [look('2026-06-18', { firmness })];
		for (const firmness of ['moves', 'loose'] as const)
			for (const more of [{}, { rotWasCut: true, pestsSeen: true, waits: ['buds-move'], evergreen: true }])
				expect(asked({ ...more, observations: tried(firmness) })).toContain('firmness');
		expect(asked({ observations: tried('firm') })).not.toContain('firmness');
		expect(
			asked({ observations: [...tried('loose'), look('2026-06-19', { firmness: 'firm' })] })
		).not.toContain('firmness');
	});
	it('woundwood only where a root was cut, once a season', () => {
		const late = {
			sinceOn: '2025-11-20',
			progress: 0.6,
			observations: [look('2026-06-18', { firmness: 'firm' })]
		};
		expect(asked({ ...late, wounded: true })).toContain('woundwood');
		expect(asked(late)).not.toContain('woundwood');
		expect(
			asked({ ...late, wounded: true, observations: [look('2026-06-01', { woundwoodMm: 4 })] })
		).not.toContain('woundwood');
	});
	it('several shoots give a mean and a spread', () => {
		expect(shootsMean([40, 50, 60])).toEqual({ meanMm: 50, sdMm: 10 });
		expect(shootsMean([])).toBeNull();
		expect(shootsMean([40])?.sdMm).toBeNull();
	});
});

describe('the season by warmth', () => {
	const place = { kind: 'open' as const, latitudeDeg: 52, elevationM: 0, heldMinimumC: null };
	const seasons = seasonsOf(place, false, '2025-06-01', '2026-07-01', values);
	const series = (minC: number, maxC: number) =>
		Array.from({ length: 130 }, (_, i) => ({
			...bareDay(addDays('2026-03-01', i), { et0Mm: 1, rainMm: 0 }),
			minC,
			maxC
		}));
	it('a cold spring is not far on, a warm one is further than the calendar', () => {
		const at = (days: ReturnType<typeof series>) =>
			seasonPoint(seasons, '2026-06-10', '2025-06-01', days, values);
		const calendar = at([]);
		expect(calendar.by).toBe('calendar');
		const [cold, warm] = [at(series(3, 9)), at(series(14, 26))];
		expect(cold.by).toBe('warmth');
		expect(cold.progress).toBeLessThan(calendar.progress);
		expect(warm.progress).toBeGreaterThan(calendar.progress);
		// So many of its days so far have to be measured, and no fewer.
		const from =
			seasons.find(({ span }) => span.from <= '2026-06-10' && '2026-06-10' <= span.to)?.span.from ?? '';
		const soFar = daysBetween(from, '2026-06-10') + 1;
		const least = Math.ceil(values['season.measuredShare'] * soFar);
		const filled = (missing: number) =>
			series(14, 26).map((day) =>
				day.on >= from && day.on < addDays(from, missing) ? { ...day, how: 'filled' } : day
			);
		expect([at(filled(soFar - least)).by, at(filled(soFar - least + 1)).by]).toEqual(['warmth', 'calendar']);
		// Time in seasons goes by the calendar alone.
		expect(cold.seasons).toBeCloseTo(warm.seasons, 12);
		expect(cold.seasons).toBeGreaterThan(0.8);
	});
});

describe('shoots against warmth', () => {
	const season = { from: '2026-04-10', to: '2026-10-20' };
	const warm = (meanC: number) =>
		Array.from({ length: 120 }, (_, i) => ({
			...bareDay(addDays('2026-04-10', i), { et0Mm: 1, rainMm: 0 }),
			minC: meanC - 5,
			maxC: meanC + 5
		}));
	it('the same rate in a cold and a warm spring, though the shoots differ', () => {
		// 41 days at 10 °C over 5 are 410 less 205 = 205 °C days; at 15 °C twice as many.
		const at = (meanC: number, mm: number) =>
			shootGrowth([look('2026-05-20', { shootExtensionMm: mm })], [season], warm(meanC), values)[0];
		expect(at(10, 41)).toMatchObject({ year: 2026, warmth: 205, mmPer100: 20, growsTo: null });
		expect(at(15, 82)).toMatchObject({ warmth: 410, mmPer100: 20 });
		// Weather that nobody measured gives no rate.
		expect(
			shootGrowth([look('2026-05-20', { shootExtensionMm: 41 })], [season], [], values)[0]
		).toMatchObject({
			warmth: null,
			mmPer100: null
		});
	});
	it('a curve over warmth gives back what the shoots grow to', () => {
		const grown = [20, 40, 60, 80, 100].map((day) => {
			const degree = 10 * (day + 1);
			return look(addDays('2026-04-10', day), {
				shootExtensionMm: 300 / (1 + Math.exp((500 - degree) / 120))
			});
		});
		const [found] = shootGrowth(grown, [season], warm(15), values);
		expect(found?.growsTo?.mm).toBeCloseTo(300, 0);
		expect(found?.growsTo?.over).toBe('warmth');
		// It goes as far as warmth is known, rises all the way, and its error holds it.
		const curve = found?.curve ?? [];
		expect(curve[0]?.on).toBe(season.from);
		expect((curve.at(-1)?.on ?? '') <= addDays('2026-04-10', 150)).toBe(true);
		for (const [i, point] of curve.entries()) {
			expect(point.mm).toBeGreaterThanOrEqual(curve[i - 1]?.mm ?? 0);
			expect(point.low).toBeLessThanOrEqual(point.mm);
			expect(point.high).toBeGreaterThanOrEqual(point.mm);
		}
	});
	it('where nobody measured weather the curve goes over days, through the whole season, and says so', () => {
		const grown = [14, 35, 56, 77, 98].map((day) =>
			look(addDays('2026-04-10', day), { shootExtensionMm: 200 / (1 + Math.exp((50 - day) / 12)) })
		);
		const [found] = shootGrowth(grown, [season], [], values);
		expect(found?.growsTo).toMatchObject({ over: 'days', mm: expect.closeTo(200, 0) as number });
		expect(found?.curve.at(-1)?.mm).toBeCloseTo(200, 0);
		expect(shootGrowth(grown.slice(0, 3), [season], [], values)[0]).toMatchObject({
			growsTo: null,
			curve: []
		});
	});
});

describe('what moves', () => {
	const moving = (firmness: 'firm' | 'moves' | 'loose') => [
		look('2026-04-01', { firmness: 'loose' }),
		look('2026-04-10', { firmness, leafState: 'wilted' })
	];
	it('is held before all else, but before what others have to see', () => {
		for (const firmness of ['moves', 'loose'] as const) {
			const due = decisionsDue(facts({ observations: moving(firmness), dryness: 0.95 }), values);
			expect(due[0]).toMatchObject({ kind: 'retie', stage: 'replant' });
		}
		const flags = [{ title: 'Stability', reason: 'It leans.', byOn: '2026-04-20' }];
		expect(decisionsDue(facts({ observations: moving('loose'), flags }), values)[0]?.kind).toBe(
			'look-closer'
		);
	});
	it('held since it was seen it is to be tried, not to be held again', () => {
		const due = decisionsDue(facts({ observations: moving('loose'), heldOn: '2026-04-12' }), values);
		expect(due[0]).toMatchObject({
			kind: 'try-firm',
			stage: 'recovery',
			what: 'Held since 2026-04-12: try whether it stands firm.',
			presses: true
		});
		expect(due.map(({ what }) => what).join(' ')).not.toMatch(/hold it firm/);
		expect(
			decisionsDue(facts({ observations: moving('firm'), heldOn: '2026-04-12' }), values)[0]?.kind
		).not.toBe('retie');
	});
	it('set anew since it was seen it is to be tried, and says how it is held where it still moves', () => {
		const due = decisionsDue(facts({ observations: moving('loose'), setOn: '2026-04-12' }), values);
		expect(due[0]).toMatchObject({
			kind: 'try-firm',
			stage: 'recovery',
			what: 'Set anew on 2026-04-12: try whether it stands firm.',
			evidence: ['On 2026-04-10 it moved at the base; nobody has tried it since it was set anew.']
		});
		expect(due[0]?.first).toHaveLength(3);
		const held = decisionsDue(facts({ observations: moving('loose'), heldOn: '2026-04-12' }), values);
		expect(held[0]?.first).toHaveLength(1);
	});
	it('is held when it is set anew, where what presses takes it out of its pot first', () => {
		const asked = (stage: 'roots' | 'replant' | 'examine') => {
			const urgent = {
				subject: 'Root rot is',
				chance: 0.7,
				on: '2026-04-12',
				stage,
				meaning: 'Cut it back.'
			};
			const causes = { urgent, check: null };
			return decisionsDue(facts({ observations: moving('moves'), causes }), values).find(
				(one) => one.kind === 'retie'
			)?.what;
		};
		expect([asked('roots'), asked('replant'), asked('examine')]).toEqual([
			'It rocks a little: hold it firm when it is set anew.',
			'It rocks a little: hold it firm when it is set anew.',
			'It rocks a little: hold it firm before all else.'
		]);
	});
	it('held again it is not asked for; in the ground no tie is', () => {
		const kinds = (change: object) => decisionsDue(facts(change), values).map((one) => one.kind);
		expect(kinds({ observations: moving('firm') })).not.toContain('retie');
		expect(kinds({ observations: moving('loose'), potted: false })).not.toContain('retie');
	});
});

describe('outcomes', () => {
	const one = (i: number, change: Partial<OutcomeCase> = {}): OutcomeCase => ({
		treeId: `t${i}`,
		tag: `T-${i}`,
		group: 'deciduous',
		reserves: 'field-grown',
		state: 're-established',
		fromOn: '2024-03-01',
		closedOn: addDays('2024-03-01', 300 + i),
		livingLoss: 0.2,
		seasonFit: 'in-window',
		crownSchool: null,
		mixName: 'Pumice',
		...change
	});
	const many = (count: number, change: Partial<OutcomeCase> = {}, from = 0) =>
		Array.from({ length: count }, (_, i) => one(from + i, change));
	it('claim nothing from five trees, and count them all the same', () => {
		const [few] = outcomesBy(many(5), 'group', '2026-04-18', values);
		expect(few).toMatchObject({ count: 5, reEstablished: 5, curve: null, medianDays: null });
		const [enough] = outcomesBy(many(10), 'group', '2026-04-18', values);
		expect(enough?.medianDays).toBe(304);
	});
	it('a lost tree is never counted as merely no longer watched', () => {
		expect(followOf(one(1, { state: 'dead', closedOn: '2024-06-01' }), '2026-04-18', 900)).toEqual({
			days: 900,
			happened: false
		});
		const mixed = outcomesBy(
			[...many(10), ...many(10, { state: 'dead', closedOn: '2024-04-01' }, 10)],
			null,
			'2026-04-18',
			values
		)[0];
		expect(mixed?.curve?.at(-1)?.share).toBeCloseTo(0.5, 9);
	});
	it('says what went together: V by hand is 1 for one and the same, 0 for apart', () => {
		expect(
			cramersV([
				['a', 'x'],
				['a', 'x'],
				['b', 'y'],
				['b', 'y']
			])
		).toBeCloseTo(1, 12);
		expect(
			cramersV([
				['a', 'x'],
				['a', 'y'],
				['b', 'x'],
				['b', 'y']
			])
		).toBeCloseTo(0, 12);
		expect(
			cramersV([
				['a', 'x'],
				['a', 'y']
			])
		).toBeNull();
		// (3·1 − 1·3 …): chi² of [[3,1],[1,3]] is 2, so V = √(2/8) = 0.5.
		const square: [string, string][] = [
			['a', 'x'],
			['a', 'x'],
			['a', 'x'],
			['a', 'y'],
			['b', 'x'],
			['b', 'y'],
			['b', 'y'],
			['b', 'y']
		];
		expect(cramersV(square)).toBeCloseTo(0.5, 12);
		const cases = [
			...many(8, { group: 'conifer', mixName: 'Pumice' }),
			...many(8, { group: 'deciduous', mixName: 'Bark' }, 8)
		];
		expect(entangledWith(cases, 'group', values)).toMatchObject([
			{ factor: 'mix', v: 1, example: expect.stringContaining('8 of 8') as string }
		]);
	});
});

describe('a letter to the owner', () => {
	const letter = (change: Partial<LetterFacts> = {}) =>
		ownersLetter({
			treeName: 'Lime',
			kindName: 'Lime',
			place: 'Garden',
			today: '2026-04-18',
			trunkDiameterMm: 500,
			heightM: 14,
			byCompass: true,
			windows: [
				{ middleDeg: 0, share: 0.9 },
				{ middleDeg: 135, share: 0.8 }
			],
			wanted: 0.6,
			assumed: false,
			structuralCuts: 0,
			cuts: [],
			asked: [],
			carried: [],
			structuralRot: false,
			firmness: 'firm',
			firmnessOn: '10 April 2026',
			heldOn: null,
			referrals: [],
			results: [],
			probability: 0.8,
			probabilityLow: 0.6,
			probabilityHigh: 0.9,
			vigour: 'fair',
			ended: null,
			mayFall: true,
			inGround: true,
			structuralZoneM: 2.47,
			next: [],
			...change
		});
	it('on a small tree in a pot speaks of its hold, never of people under it or of its zone', () => {
		for (const change of [{}, { firmness: 'loose' as const }, { windows: [] }]) {
			const small = letter({ mayFall: false, heightM: 0.4, trunkDiameterMm: 40, ...change });
			const text = small.sections.flatMap((section) => [section.title, ...section.paragraphs]).join(' ');
			expect(text).not.toMatch(/fall\?|people|under it|parking|certificate/i);
			expect(small.sections[0]?.title).toBe('Does it hold in its pot?');
		}
		expect(letter({ mayFall: false, firmness: 'loose' }).answer).toMatch(/tie it or wedge it/);
		// Held since, it is to be tried.
		const anew = { mayFall: false, firmness: 'loose' } as const;
		// Set anew since, it is to be tried there; where what presses sets it anew, it is held then.
		expect(letter({ ...anew, setOn: '12 April 2026' }).answer).toContain(
			'it was set anew on 12 April 2026; try whether it stands firm, and tie it or wedge it where it does not, before anything else'
		);
		expect(letter({ ...anew, setsAnew: true }).answer).toMatch(
			/it is to be set anew; tie it or wedge it then\.$/
		);
		expect(letter({ ...anew, setsAnew: true }).answer).not.toContain('before anything else');
		const held = letter({ ...anew, heldOn: '12 April 2026', setsAnew: true }).answer;
		expect(held).toContain(
			'it has been held since 12 April 2026; try whether it stands firm before anything else'
		);
		expect(held).not.toMatch(/tie it or wedge it/);
		expect(letter({ mayFall: false, windows: [] }).answer).toMatch(/not known/);
		// What somebody has to see for another reason is no doubt of its hold.
		const referred = letter({ mayFall: false, referrals: ['A plant doctor has to see it.'] });
		expect(referred).toMatchObject({
			urgent: true,
			answer: expect.stringMatching(/nothing that was found/i) as string
		});
		for (const may of [true, false]) {
			const unseen = letter({ mayFall: may, windows: [] })
				.sections.flatMap((one) => one.paragraphs)
				.join(' ');
			expect(unseen).not.toMatch(/were laid open by hand|Only what was laid open/);
		}
		const tree = (situation: 'potted' | 'in-ground', heightM: number | null, trunkDiameterMm: number) =>
			mayFall({ situation, heightM, trunkDiameterMm }, values);
		expect(tree('potted', 0.4, 40)).toBe(false);
		expect(tree('in-ground', 0.4, 40)).toBe(true);
		expect(tree('potted', values['letter.fallsFromM'], 40)).toBe(true);
		// A measured height outranks the trunk.
		expect(tree('potted', 0.6, 400)).toBe(false);
		expect(tree('potted', null, values['letter.fallsFromTrunkMm'])).toBe(true);
		expect(tree('potted', null, values['letter.fallsFromTrunkMm'] - 1)).toBe(false);
	});
	it('of a large tree in a pot speaks of its pot, and of the ground round it only where it stands in it', () => {
		const text = (change: Partial<LetterFacts>) =>
			plain(
				letter(change)
					.sections.flatMap((section) => section.paragraphs)
					.join(' ')
			);
		const [ground, potted] = [text({}), text({ inGround: false })];
		expect(ground).toMatch(/heaved soil/);
		expect(ground).toMatch(/parking/);
		expect(ground).not.toMatch(/by its pot/);
		expect(potted).toMatch(/a pot that tips or splits/);
		expect(potted).toMatch(/Move it by its pot/);
		expect(potted).not.toMatch(/parking|heaved/);
	});
	it.each([
		['re-established', 'It is re-established: our care of it ended on 3 May 2026.'],
		['gone', 'It went to another home: our care of it ended on 3 May 2026.'],
		['dead', 'It died: our care of it ended on 3 May 2026.']
	] as const)('of a case that is closed says how it ended, and forecasts nothing: %s', (state, words) => {
		const does = letter({ ended: { state, on: '3 May 2026' } }).sections.find(
			({ title }) => title === 'How it does'
		);
		expect(does?.paragraphs[0]).toBe(words);
		expect(does?.paragraphs.join(' ')).not.toMatch(/thought to recover/);
	});
	it('says what holds the chance down where only time does, and nothing of it where the case is closed or nobody looked', () => {
		const slow = { through: 0.95, inTime: 0.53, by: '4 November 2029' };
		const said = (change: Parameters<typeof letter>[0]): string =>
			(letter(change).sections.find(({ title }) => title === 'How it does')?.paragraphs ?? []).join(' ');
		const words =
			'What holds the number down is time: it is thought to come through with 95 %, and its roots to be enough by 4 November 2029 with 53 %.';
		expect(said({ slow })).toContain(words);
		for (const change of [
			{ slow: null },
			{ slow, probability: null },
			{ slow, ended: { state: 'dead', on: '3 May 2026' } as const }
		])
			expect(said(change)).not.toMatch(/time:/);
	});
	it('ends with the work that is next, each on a line', () => {
		const next = [
			{ on: '3 May 2026', what: 'Look at its buds' },
			{ on: 'Now', what: 'Feel its water' }
		];
		const advice = letter({ next }).sections.find(({ title }) => title === 'What to do');
		expect(advice?.paragraphs.slice(-2)).toEqual(['3 May 2026: Look at its buds.', 'Now: Feel its water.']);
	});
	it('answers, gives method and limits, and never certifies', () => {
		const calm = letter();
		expect(calm.urgent).toBe(false);
		expect(calm.answer).toMatch(/not a certificate/);
		const text = plain(calm.sections.flatMap((section) => section.paragraphs).join(' '));
		expect(text).toMatch(/south-east, keeps 80 %/);
		expect(text).toMatch(/2\.5 m of the trunk/);
		expect(text).toMatch(/qualified arborist/);
		expect(text).not.toMatch(/\bis safe\b(?!\.)/);
	});
	it.each([
		['a short window', { windows: [{ middleDeg: 90, share: 0.4 }] }],
		['rot in a structural root', { structuralRot: true }],
		['it moves', { firmness: 'moves' as const }],
		['a referral', { referrals: ['Fungus brackets at the base.'] }]
	])('keeps people away and refers on: %s', (_, change) => {
		const urgent = letter(change);
		expect(urgent.urgent).toBe(true);
		expect(urgent.answer).toMatch(/Keep people from under it/);
	});
	it('asks root by root, keeps the answer with day and way, and says each cut with its reason and what is held over', () => {
		const root = 'towards north, 60 mm thick';
		const told = letter({
			asked: [
				{ root, why: 'girdles the trunk', answer: null, on: null, how: '' },
				{ root, why: '', answer: 'no', on: '3 April 2026', how: 'by telephone' }
			],
			cuts: [
				{ on: '4 April 2026', root, why: 'rotten.', despite: 'It was dying' },
				{ on: '5 April 2026', root, why: '', despite: '' }
			],
			carried: [
				{
					what: `The root ${root}`,
					why: 'planned for later',
					first: 'growth regained',
					fromOn: '1 March 2027'
				}
			]
		});
		const of = (title: string): string[] =>
			told.sections.find((section) => section.title === title)?.paragraphs ?? [];
		expect(of('Roots we ask you about').slice(1)).toEqual([
			`1. The root ${root}: girdles the trunk. Yes ☐  No ☐`,
			`2. The root ${root}. You said no on 3 April 2026, by telephone.`
		]);
		expect(of('What was cut, and why')).toEqual([
			`4 April 2026: the root ${root}, because: rotten. Something stood against cutting that day; why it was done all the same: It was dying.`,
			`5 April 2026: the root ${root}; no reason was written down.`
		]);
		expect(of('What is held over')).toEqual([
			`The root ${root}, from 1 March 2027: planned for later; first: growth regained.`
		]);
		expect(letter().sections.map((section) => section.title)).not.toContain('Roots we ask you about');
	});
	it('says nothing of its hold where nobody looked', () => {
		expect(letter({ windows: [] }).answer).toMatch(/nothing can be said/);
	});
});

describe('what nature does not do', () => {
	const season = { from: '2026-03-20', to: '2026-10-30' };
	const before = [
		look('2026-05-03', { shootExtensionMm: 42, diebackLimitMm: 900, woundwoodMm: 6, lostCount: 3 })
	];
	const said = (more: object): string[] =>
		unlikelyIn(observationInput.parse({ observedOn: '2026-05-20', ...more }), before, [season], values).map(
			(problem) => problem.message
		);

	it('asks why shoots shrink, and takes it with a note', () => {
		expect(said({ shootExtensionMm: 30 })[0]).toMatch(
			/42 mm\u{2063} on 2026-05-03, now \u{2063}30 mm\u{2063}, and shoots do not shrink/u
		);
		expect(said({ shootExtensionMm: 30, note: 'cut back after hail' })).toEqual([]);
		expect(said({ shootExtensionMm: 40 })).toEqual([]);
		expect(said({ shootExtensionMm: 80 })).toEqual([]);
	});
	it('asks why dead wood lives, woundwood narrows, or the dead come back', () => {
		expect(said({ diebackLimitMm: 1200 })).toHaveLength(1);
		expect(said({ diebackLimitMm: 500 })).toEqual([]);
		expect(said({ woundwoodMm: 4, lostCount: 2 })).toHaveLength(2);
		expect(said({ woundwoodMm: 8, lostCount: 4 })).toEqual([]);
	});
	it('begins anew with each season', () => {
		const next = { from: '2027-03-20', to: '2027-10-30' };
		const fresh = observationInput.parse({ observedOn: '2027-04-20', shootExtensionMm: 5 });
		expect(unlikelyIn(fresh, before, [next], values)).toEqual([]);
	});
	it('leaves a shorter reading out of the growth curve, and says so', () => {
		const shoots = (on: string, shootExtensionMm: number): Observation => look(on, { shootExtensionMm });
		const [grown] = shootGrowth(
			[shoots('2026-05-01', 40), shoots('2026-05-20', 20), shoots('2026-06-10', 60)],
			[season],
			[],
			values
		);
		expect(grown).toMatchObject({ readings: 2, shrunk: 1, lastMm: 60 });
	});
});

describe('the check to look closer with', () => {
	it('is one that was not made yet, and moves with what was found', () => {
		const kind = shippedKinds.find((one) => one.group === 'deciduous') as Kind;
		const records: Parameters<typeof checkNow>[0] = {
			tree: { situation: 'potted', vigour: 'weak' },
			kind,
			examinations: []
		};
		const first = checkNow(records, null, '2026-05-20', values);
		expect(first).not.toBeNull();
		const examined = {
			...examinationInput.parse({
				examinedOn: '2026-05-10',
				findings: first?.signIds.map((signId) => ({ signId, grade: 0 })) ?? []
			}),
			id: 'e',
			version: 1
		};
		const next = checkNow({ ...records, examinations: [examined] }, null, '2026-05-20', values);
		expect(next?.signIds.some((sign) => first?.signIds.includes(sign))).toBe(false);
		// An old look says nothing of today.
		const old = { ...examined, examinedOn: '2025-05-10' };
		expect(checkNow({ ...records, examinations: [old] }, null, '2026-05-20', values)).toEqual(first);
		// What is found on a day counts on it, and not on the day before.
		const on = examined.examinedOn;
		const of = (day: string) => checkNow({ ...records, examinations: [examined] }, null, day, values);
		expect(of(on)).not.toEqual(checkNow(records, null, on, values));
		expect(of(addDays(on, -1))).toEqual(checkNow(records, null, addDays(on, -1), values));
	});
});

describe('a chance under its limit', () => {
	const seen = [look('2026-06-18', { buds: 'open' })];
	const said = (change: Partial<DecisionFacts>): string =>
		decisionsDue(facts({ observations: seen, ...change }), values).find((one) => one.kind === 'look-closer')
			?.what ?? '';
	it('that has not fallen is not told as doing worse; one that fell is', () => {
		expect(said({ probability: 0.49, probabilityBefore: 0.47 })).toMatch(/^It is not sure to come back/);
		expect(said({ probability: 0.4, probabilityBefore: 0.8 })).toMatch(/^Its chance has fallen/);
		expect(said({ probability: 0.49, probabilityBefore: null })).toMatch(/^It is not sure/);
	});
	it('asks for nothing where it comes through, and only its roots need long', () => {
		const slow = { probability: 0.3, probabilityBefore: null, deadBy: null };
		expect(said({ ...slow, comesThrough: 0.49 })).toMatch(/^It is not sure/);
		expect(said({ ...slow, comesThrough: 0.5 })).not.toMatch(/not sure/);
		const kinds = (comesThrough: number): string[] =>
			decisionsDue(
				facts({
					observations: [look('2026-05-18', { buds: 'open' }), ...seen],
					...slow,
					probability: 0.02,
					comesThrough
				}),
				values
			).map(({ kind }) => kind);
		expect(kinds(0.9)).not.toContain('call-dead');
		expect(kinds(0.02)).toContain('call-dead');
	});
	it('takes of a forecast what it says', () => {
		expect(byForecast({ now: 0.3, through: 0.6, dead: ['no leaf'] })).toEqual({
			probability: 0.3,
			comesThrough: 0.6,
			deadBy: ['no leaf']
		});
	});
});
