import { taskSchema } from '$core/vocabulary/task';
import { describe, expect, it } from 'vitest';
import { groundPlanSchema } from '$core/replant/ground/ground-plan';
import { liftSchema } from '$core/replant/lifting/lift';
import { ownersLetter } from '$core/recovery/owner-letter';
import { isStructural } from '$core/roots/map/shares';
import type { TreeRecords } from '$core/tree/case';
import { letterFacts, type LetterFrom } from '$core/tree/letter-facts';
import { recoveryCase } from '$core/tree/recovery-case';
import { standingOf } from '$core/tree/standing';
import { createFormat, defaultFormatSettings, plain } from '$core/text/format';
import { defaultValues as values } from '$core/values/values';
import { observationSchema } from '$core/examine/looks/observation';
import { cut, plantingOn, seatHeldBy, treeRecords } from '../records';

const today = '2026-04-18';
const facts = (records: TreeRecords, deciding: LetterFrom['deciding'] = null) => {
	const [place] = records.places;
	if (!place) throw new Error('no place');
	const around = { place, series: [], course: [], referenceShootMm: null };
	return letterFacts(
		{
			records,
			place,
			stands: standingOf(records, today, values),
			case: recoveryCase(records, around, today, values),
			deciding,
			say: createFormat(defaultFormatSettings)
		},
		today,
		values
	);
};
const sour = observationSchema.parse({ id: 'o', version: 1, observedOn: '2026-04-10', smell: 'sour' });
const deciding: NonNullable<LetterFrom['deciding']> = {
	potted: true,
	today,
	sinceOn: '2026-03-02',
	seasonBeganOn: '2026-04-10',
	inSeason: true,
	evergreen: false,
	tender: false,
	heightMm: 1000,
	observations: [sour],
	probabilityBefore: 0.8,
	dryness: null,
	gate: null,
	stagesLeft: 0,
	referenceShootMm: null,
	reEstablished: false
};
/** The hornbeam with its dead root as an anchor. */
const withDeadAnchor = (cuts = [] as ReturnType<typeof cut>[]): TreeRecords => {
	const records = treeRecords({}, cuts);
	const map = records.rootMap;
	if (!map) throw new Error('no map');
	return {
		...records,
		rootMap: {
			...map,
			segments: map.segments.map((root) =>
				root.condition === 'dead' ? { ...root, rootClass: 'anchor' as const } : root
			)
		}
	};
};

describe('what a letter is written from', () => {
	it('of a case that is closed orders none of the work that was left open, and tells how it ended', () => {
		const base = treeRecords({
			tasks: [
				taskSchema.parse({
					id: 't',
					version: 1,
					kind: 'look',
					title: 'Look at it',
					fromOn: today,
					toOn: '2026-05-01',
					state: 'open',
					closedOn: null,
					skipReason: ''
				})
			]
		});
		expect(facts(base)).toMatchObject({ ended: null, next: [{ what: 'Look at it' }] });
		const tree = { ...base.tree, state: 're-established' as const, closedOn: today };
		expect(facts({ ...base, tree })).toMatchObject({
			ended: { state: 're-established', on: '18 April 2026' },
			next: []
		});
		const stood = (situation: 'potted' | 'in-ground') =>
			facts({ ...base, tree: { ...base.tree, situation } }).inGround;
		expect([stood('potted'), stood('in-ground')]).toEqual([false, true]);
	});
	it('a dead root that holds it is a doubt until it is cut out, and then none', () => {
		const dead = withDeadAnchor();
		const id =
			dead.rootMap?.segments.find((root) => root.condition === 'dead' && isStructural(root))?.id ?? '';
		expect(id).not.toBe('');
		expect(facts(dead).structuralRot).toBe(true);
		expect(ownersLetter(facts(dead)).urgent).toBe(true);
		const cutOut = facts(withDeadAnchor([cut(id, 0, '2025-02-10')]));
		expect(cutOut.structuralRot).toBe(false);
		expect(cutOut.structuralCuts).toBe(1);
		expect(ownersLetter(cutOut).urgent).toBe(false);
		// Rotten from a place on, it is sound when it was cut there or nearer, and not when it was cut beyond.
		const from = (atMm: number) => {
			const records = withDeadAnchor([{ ...cut(id, 0, '2025-02-10'), atMm }]);
			const map = records.rootMap;
			const segments =
				map?.segments.map((root) => (root.id === id ? { ...root, deadFromMm: 40 } : root)) ?? [];
			return facts({ ...records, rootMap: map && { ...map, segments } });
		};
		expect([30, 40, 41].map((atMm) => from(atMm).structuralRot)).toEqual([false, false, true]);
		// A doubt says its reason.
		const said = ownersLetter(from(41))
			.sections.flatMap(({ paragraphs }) => paragraphs)
			.join(' ');
		expect(said).toContain('reason to doubt its hold');
		expect(said).toContain('(a structural root is rotten)');
		// One that is only planned is still in the tree.
		expect(facts(withDeadAnchor([cut(id, 0)])).structuralRot).toBe(true);
	});
	it('says what was done in its ground, oldest first, and nothing that was only planned', () => {
		const work = (id: string, doneOn: string | null, parts: object) =>
			groundPlanSchema.parse({ id, version: 1, plannedOn: '2026-03-01', doneOn, ...parts });
		const collar = { collar: { openMm: 400, depthMm: 140, tool: 'hand' } };
		const mulch = { mulch: { innerM: 0.2, outerM: 2, depthMm: 75 } };
		const groundPlans = [
			work('b', '2026-04-02', mulch),
			work('a', '2026-03-20', {
				...collar,
				loosening: { method: 'trenches', innerM: 1.5, outerM: 2, depthMm: 400, widthMm: 200 },
				...mulch
			}),
			work('c', null, collar),
			work('d', '2026-04-03', {
				hole: { widthMm: 900, depthMm: 350, ballDiameterMm: 450, ballDepthMm: 320 },
				sulphur: { phNow: 6.5, phAim: 5, soil: 'loam', areaM2: 6 }
			})
		];
		const section = ownersLetter(facts(treeRecords({ groundPlans }))).sections.find(
			({ title }) => title === 'What was done in its ground'
		);
		expect(
			section?.paragraphs.map((text) => plain(createFormat(defaultFormatSettings).inWords(text)))
		).toEqual([
			'20 March 2026: collar opened 400 mm from the bark, 140 mm deep; soil loosened by radial trenches, 1.5 to 2 m from the middle, 400 mm deep; mulched 0.2 to 2 m from the middle, 75 mm deep.',
			'2 April 2026: mulched 0.2 to 2 m from the middle, 75 mm deep.',
			'3 April 2026: planted in a hole 900 mm wide and 350 mm deep, its ball 450 mm by 320 mm and acidified, from a pH of 6.5 toward 5.'
		]);
		expect(ownersLetter(facts(treeRecords())).sections.map(({ title }) => title)).not.toContain(
			'What was done in its ground'
		);
	});
	it('of a tree that was lifted says what the lift cut, and never that no structural root was', () => {
		const lift = (liftedOn: string, thickMm: readonly number[], assumed: readonly string[] = []) =>
			liftSchema.parse({
				id: `l-${liftedOn}`,
				version: 1,
				plannedOn: liftedOn,
				school: 'field',
				reading: 'across',
				ballDiameterMm: 560,
				ballDepthMm: 350,
				route: {},
				ticks: [],
				log: {
					liftedOn,
					ballDiameterMm: 560,
					ballDepthMm: 350,
					assumed,
					cutRoots: thickMm.map((diameterMm, i) => ({ azimuthDeg: 90 * i, diameterMm, how: 'saw' }))
				}
			});
		const said = (lifts: ReturnType<typeof lift>[]) =>
			ownersLetter(facts(treeRecords({ rootMap: null, plan: null, lifts }))).sections[0]?.paragraphs.map(
				(text) => plain(createFormat(defaultFormatSettings).inWords(text))
			);
		const none = 'Its roots were not mapped: whether a structural root was cut before is not known.';
		expect(said([])).toContain(none);
		const now = said([lift('2026-03-20', [12, 22, 15]), lift('2024-03-01', [40])]);
		expect(now).toContain(
			'It was lifted on 20 March 2026: all roots beyond a ball 560 mm across were cut, among them 22 mm, 15 mm and 12 mm thick.'
		);
		expect(now).not.toContain(none);
		expect(now).not.toContain('');
		expect(said([lift('2026-03-20', [], ['ballDiameterMm'])])).toContain(
			'It was lifted on 20 March 2026: all roots beyond its ball were cut.'
		);
		expect(said([lift('2026-03-20', [])])).toContain(
			'It was lifted on 20 March 2026: all roots beyond a ball 560 mm across were cut.'
		);
	});
	it('of roots that nobody laid open nothing is said, and a chance that nobody looked after is none', () => {
		const blank = facts(treeRecords({ rootMap: null, plan: null }));
		expect(blank).toMatchObject({ windows: [], assumed: false, structuralCuts: null, cuts: [], asked: [] });
		expect(blank.probability).toBeNull();
		const looked = facts(
			treeRecords({
				observations: [
					observationSchema.parse({ id: 'o', version: 1, observedOn: '2026-04-10', firmness: 'loose' })
				]
			})
		);
		expect(looked).toMatchObject({
			firmness: 'loose',
			firmnessOn: '10 April 2026',
			heldOn: null,
			setOn: null
		});
		expect(looked.probability).not.toBeNull();
		expect(looked.slow ?? null).toBeNull();
	});
	it('says since when what rocked stands anew or is held, and whether what presses sets it anew first', () => {
		const observations = [
			observationSchema.parse({ id: 'o', version: 1, observedOn: '2026-04-10', firmness: 'loose' })
		];
		const set = (holding: 'own-stance' | 'wires') =>
			facts(
				treeRecords({ observations, plantings: [plantingOn('2026-04-12', { seat: seatHeldBy(holding) })] })
			);
		expect(set('own-stance')).toMatchObject({ heldOn: null, setOn: '12 April 2026' });
		expect(set('wires')).toMatchObject({ heldOn: '12 April 2026', setOn: null });
		const anew = (stage: 'roots' | 'examine', situation: 'potted' | 'in-ground') => {
			const records = treeRecords({ observations, tree: { ...treeRecords().tree, situation } });
			const urgent = { subject: 'Root rot is', chance: 0.7, on: today, stage, meaning: '' };
			return facts(records, { ...deciding, causes: { urgent, check: null } }).setsAnew;
		};
		expect([anew('roots', 'potted'), anew('examine', 'potted'), anew('roots', 'in-ground')]).toEqual([
			true,
			false,
			false
		]);
	});
	it('what presses by the looks comes first, work whose days are over is due now, and what lapsed or waits is not named', () => {
		const step = (title: string, fromOn: string, toOn: string, more: object = {}) =>
			taskSchema.parse({
				id: fromOn,
				version: 1,
				kind: 'look',
				title,
				fromOn,
				toOn,
				state: 'open',
				closedOn: null,
				skipReason: '',
				...more
			});
		const release = { condition: 'buds-move', value: 0, byOn: '2026-05-30', after: '' };
		const tasks = [
			step('Smell the holes', '2026-03-16', '2026-03-23'),
			step('Take a cutting', '2026-03-02', '2026-03-04', { source: 'backup@2026-03-02' }),
			step('Turn it', '2026-04-01', '2026-04-30', { source: 'turn@2026-03-02', release }),
			step('Measure shoots', '2026-05-04', '2026-05-25')
		];
		expect(facts(treeRecords({ tasks, observations: [sour] }), deciding).next).toEqual([
			{ on: 'Now', what: 'Its pot smells sour: let air in, and water only what has dried.' },
			{ on: 'Now, due since 23 March 2026', what: 'Smell the holes' },
			{ on: '4 May 2026', what: 'Measure shoots' }
		]);
		// What pressed on the last day of its case is no order any more either.
		const base = treeRecords({ tasks, observations: [sour] });
		const tree = { ...base.tree, state: 'gone' as const, closedOn: today };
		expect(facts({ ...base, tree }, deciding).next).toEqual([]);
	});
	it('names each cut with its day and its reason, and the next four steps in their order', () => {
		const id = 'r2';
		const records = treeRecords({}, [
			{ ...cut(id, 0, '2025-02-10'), reason: 'it girdles', because: 'agreed' }
		]);
		const [made] = facts(records).cuts;
		expect(made).toMatchObject({ on: '10 February 2025', why: 'it girdles', despite: 'agreed' });
		expect(made?.root).toMatch(/^towards .*, 30 mm thick$/);
		const task = (day: string) =>
			({
				id: day,
				state: 'open',
				fromOn: day,
				toOn: day,
				title: `Step of ${day}`,
				kind: 'look',
				source: ''
			}) as never;
		const days = ['2026-05-05', '2026-05-01', '2026-05-04', '2026-05-02', '2026-05-03'];
		expect(facts({ ...records, tasks: days.map(task) }).next.map((one) => one.what)).toEqual(
			['2026-05-01', '2026-05-02', '2026-05-03', '2026-05-04'].map((day) => `Step of ${day}`)
		);
	});

	it('tells sides by the front of what was taken out of the ground, by the compass of what stands in it', () => {
		const framed = (frame: 'container' | 'ground') => {
			const records = treeRecords({}, [cut('r4', 0, '2025-02-10')]);
			const { rootMap } = records;
			if (!rootMap) throw new Error('no map');
			return JSON.stringify(ownersLetter(facts({ ...records, rootMap: { ...rootMap, frame } })).sections);
		};
		expect(framed('container')).toMatch(/towards (the )?(front|back|left|right)/);
		expect(framed('container')).not.toMatch(/north|south|east|west/);
		expect(framed('ground')).toMatch(/towards (north|south|east|west)/);
	});
});
