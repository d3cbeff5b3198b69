import { resultAsked } from '$core/aftercare/tasks/result';
import { hasLapsed, releaseOf, timed, type ReleaseFacts } from '$core/aftercare/tasks/release';
import { describe, expect, it } from 'vitest';
import { aftercareTasks, firstBudsDays, type WorkDone } from '$core/aftercare/tasks/rules';
import { taskInput } from '$core/vocabulary/task';
import { wateringWays, wateringWaysFor } from '$core/aftercare/water/watering';
import { addDays, daysBetween } from '$core/maths/calendar';
import { budsFrom, growingSeason, growsFrom } from '$core/climate/normals';
import type { Group } from '$core/vocabulary/kind';
import { coldLimit, firstColdNight } from '$core/climate/cold-limit';
import { groups } from '$core/vocabulary/kind';
import { crownSupply, dryRestDays, usualCrownSchool, usualWaterSchool } from '$core/aftercare/crown/crown';
import { defaultValues, resolveValues } from '$core/values/values';
import { worked as work } from '../records';

const rulesOf = (change: Partial<WorkDone> = {}) => aftercareTasks({ ...work, ...change }, defaultValues);
const byRule = (change: Partial<WorkDone>, rule: string) =>
	rulesOf(change).find((task) => task.rule === rule);

describe('a tree that was just lifted', () => {
	it('has no old watering rhythm to be weighed against', () => {
		expect(byRule({}, 'water-by-weight')?.title).toMatch(/old watering rhythm/);
		const lifted = byRule({ lifted: true }, 'water-by-weight');
		expect(lifted?.title).toBe('Weigh it: how fast does it drink?');
		expect(lifted?.reason).toContain('65 % of what it had');
		expect(lifted?.reason).not.toMatch(/old/);
	});
});

describe('a pot that is too heavy for a scale', () => {
	it('is felt in the days in which it would have been weighed, and nobody is asked for its weight', () => {
		for (const change of [{}, { lifted: true }, { waterSchool: 'dry-rest', rotWasCut: true }] as const) {
			const [light, heavy] = [
				byRule(change, 'water-by-weight'),
				byRule({ ...change, tooHeavy: true }, 'water-by-feel')
			];
			expect([heavy?.fromOn, heavy?.toOn]).toEqual([light?.fromOn, light?.toOn]);
			expect(byRule(change, 'water-by-feel')).toBeUndefined();
			expect(byRule({ ...change, tooHeavy: true }, 'water-by-weight')).toBeUndefined();
			expect(rulesOf({ ...change, tooHeavy: true }).some(({ title }) => /weigh/i.test(title))).toBe(false);
		}
		expect(byRule({ lifted: true, tooHeavy: true }, 'water-by-feel')?.title).not.toMatch(/old/);
		expect(byRule({ tooHeavy: true }, 'water-by-feel')?.title).toMatch(/old watering rhythm/);
		expect(byRule({ tooHeavy: true, inGround: true }, 'water-by-feel')).toBeUndefined();
	});
});

describe('aftercare', () => {
	it('weighs how fast it drinks some days after its first water, be that at once or after a dry rest', () => {
		for (const waterSchool of ['at-once', 'dry-rest'] as const)
			for (const rotWasCut of [true, false]) {
				const change = { waterSchool, rotWasCut, group: 'succulent' } as const;
				const first = rulesOf(change).find(({ rule }) => rule === 'first-water' || rule === 'dry-rest');
				const weigh = byRule(change, 'water-by-weight');
				const { 'aftercare.weighFrom': from, 'aftercare.weighTo': to } = defaultValues;
				const firstTo = waterSchool === 'at-once' ? first?.fromOn : first?.toOn;
				expect([weigh?.fromOn, weigh?.toOn]).toEqual([
					addDays(first?.fromOn ?? '', from),
					addDays(firstTo ?? '', to)
				]);
			}
	});
	it('says of a dry rest what it follows on, and names no living root where none went', () => {
		const reason = (change: Partial<WorkDone>) =>
			byRule({ waterSchool: 'dry-rest', ...change }, 'first-water')?.reason;
		expect(reason({ livingLoss: 0 })).toBe('Cut surfaces dry and callus first (school: dry first).');
		expect(reason({ livingLoss: 0, rotWasCut: true })).toBe(
			'Cut surfaces dry and callus first; rot was cut (school: dry first).'
		);
		expect(reason({ livingLoss: 0.35, rotWasCut: true })).toMatch(
			/; rot was cut, and 35 % of the living root was taken \(/
		);
		expect(reason({ lifted: true })).toMatch(/; 35 % of the living root is gone with the lift \(/);
	});
	it('makes valid tasks with reasons for every group, school and kind of work, in order of their first day', () => {
		for (const group of groups)
			for (const crownSchool of ['balance', 'keep-leaves'] as const)
				for (const waterSchool of ['at-once', 'dry-rest'] as const)
					for (const rotWasCut of [true, false])
						for (const inGround of [true, false]) {
							const tasks = rulesOf({
								group,
								crownSchool,
								waterSchool,
								rotWasCut,
								inGround,
								structuralCut: inGround
							});
							const days = tasks.map((task) => task.fromOn);
							expect(days).toEqual([...days].sort());
							for (const { rule, ...task } of tasks) {
								expect(taskInput.safeParse(task).success, rule).toBe(true);
								expect(task.reason.length).toBeGreaterThan(20);
								// A tree in the ground has neither pot nor mix, and nobody weighs it.
								if (inGround)
									expect(`${task.title} ${task.reason}`, rule).not.toMatch(
										/\b(mix|pots?|drain holes|weigh|runs through)\b/i
									);
							}
						}
	});
	it('looks for growth when something grows: what falls into the winter waits for the next season', () => {
		const looked = (change: Partial<WorkDone>) =>
			['first-buds', 'clear-growth'].map((rule) => {
				const task = byRule(change, rule);
				return [task?.fromOn, task?.toOn];
			});
		const workOn = '2026-09-01';
		expect(looked({ workOn, budsOn: '2026-09-29' })).toEqual(looked({ workOn, budsOn: null }));
		expect(looked({ workOn, budsOn: null })).toEqual([
			['2026-09-29', '2026-10-13'],
			['2026-11-03', '2026-11-24']
		]);
		expect(looked({ workOn, budsOn: '2027-03-29' })).toEqual([
			['2027-03-29', '2027-04-12'],
			['2027-05-03', '2027-05-24']
		]);
		expect(byRule({ workOn, budsOn: '2027-03-29' }, 'first-buds')?.reason).toMatch(
			/not before it grows again/
		);
		expect(byRule({ workOn, budsOn: '2026-09-29' }, 'first-buds')?.reason).toMatch(/after the work\.$/);
		expect(firstBudsDays({ group: 'conifer', tender: false }, defaultValues)).toEqual({ from: 28, to: 42 });
		expect(
			firstBudsDays({ group: 'broadleaf-evergreen', tender: false }, defaultValues).from
		).toBeGreaterThan(42);
		expect(firstBudsDays({ group: 'broadleaf-evergreen', tender: true }, defaultValues).from).toBe(28);
	});
	it('buds still begin to move in a season, not in its last weeks, on both sides of the equator', () => {
		const at = (latitudeDeg: number) => ({
			kind: 'open' as const,
			latitudeDeg,
			elevationM: 0,
			heldMinimumC: null
		});
		const seasonOf = (latitudeDeg: number, year: number) => {
			const season = growingSeason(at(latitudeDeg), false, year, defaultValues);
			if (!season) throw new Error('it never grows');
			return season;
		};
		const season = seasonOf(53.6, 2026);
		const last = addDays(season.to, -defaultValues['season.warmBeforeEndDays']);
		const from = (on: string) => budsFrom(at(53.6), false, on, defaultValues);
		expect(from('2026-06-01')).toBe('2026-06-01');
		expect(from(last)).toBe(last);
		const next = seasonOf(53.6, 2027).from;
		expect(from(addDays(last, 1))).toBe(next);
		// By warmth alone it grows on.
		expect(growsFrom(at(53.6), false, addDays(last, 1), defaultValues)).toBe(addDays(last, 1));
		expect(from('2026-01-10')).toBe(season.from);
		const south = seasonOf(-53.6, 2026);
		expect(budsFrom(at(-53.6), false, '2026-07-20', defaultValues)).toBe(south.from);
		// Where it grows all year no bud waits.
		expect(budsFrom(at(2), true, '2026-11-20', defaultValues)).toBe('2026-11-20');
	});
	it('waters woody roots at once and lets cut fleshy ones dry one to three weeks and more (common practice, no source)', () => {
		expect(byRule({}, 'first-water')?.fromOn).toBe('2026-02-10');
		const dry = byRule({ group: 'succulent', waterSchool: 'dry-rest' }, 'first-water');
		expect(dry?.kind).toBe('dry-rest');
		expect(daysBetween('2026-02-10', dry?.fromOn ?? '')).toBeGreaterThanOrEqual(7);
		expect(daysBetween('2026-02-10', dry?.toOn ?? '')).toBeLessThanOrEqual(28);
	});
	it('follows the school on the crown with its number', () => {
		expect(byRule({ crownSchool: 'balance' }, 'crown')?.title).toMatch(/25 % of the leaf area/);
		expect(byRule({}, 'crown')).toBeUndefined();
		expect(byRule({}, 'shelter-on')?.reason).toMatch(/feed about 75 % of the crown/);
		expect(byRule({ inGround: true }, 'crown')).toBeUndefined();
		expect(byRule({}, 'shade')).toBeUndefined();
		expect(byRule({ inGround: true }, 'shade')).toMatchObject({
			kind: 'shelter',
			fromOn: byRule({}, 'crown')?.fromOn ?? '2026-02-10'
		});
		// Bare twigs ask for no shade: it is put up when their leaves are out.
		expect(byRule({ inGround: true, inLeaf: false, leafOutOn: null }, 'shade')).toBeUndefined();
		expect(byRule({ inGround: true, inLeaf: false, leafOutOn: '2026-04-20' }, 'shade')).toMatchObject({
			fromOn: '2026-04-20',
			release: { condition: 'leaves-out', byOn: '2026-04-20' }
		});
		expect(byRule({ inGround: true }, 'shade')?.release).toBeNull();
		// Cut back as far as is cut at once, what is left may still be more than its roots feed.
		const most = defaultValues['crown.takeMost'];
		const after = (left: number) =>
			byRule({ inGround: true, crownSchool: 'balance', crownExcess: most + left }, 'shade')?.title;
		expect(after(defaultValues['aftercare.crownExcess'] - 0.001)).toBeUndefined();
		expect(after(defaultValues['aftercare.crownExcess'] + 0.01)).toMatch(/for the leaves it keeps$/);
		// What was cut is not cut again, and the roots feed more of what is left.
		const cut = { inGround: true, crownTaken: 0.35, crownExcess: 0.06 };
		expect(byRule({ ...cut, crownSchool: 'balance' }, 'crown')).toBeUndefined();
		for (const crownSchool of ['balance', 'keep-leaves'] as const) {
			const shade = byRule({ ...cut, crownSchool }, 'shade');
			expect(shade?.title).toMatch(/for the leaves it keeps$/);
			expect(shade?.reason).toMatch(/about 94 % of the crown that is left/);
		}
		const supply = (left?: number) => crownSupply(0.5, defaultValues, left);
		expect(supply(0.5).supply).toBe(supply().supply);
		expect(supply(0.8).excess).toBeCloseTo(1 - supply().supply / 0.8, 12);
		expect([supply(supply().supply).excess, supply(0.1).excess, supply(0).excess]).toEqual([0, 0, 0]);
		expect(byRule({ crownSchool: 'balance', inLeaf: false }, 'crown')?.title).toMatch(/25 % of the buds/);
		expect(byRule({ crownExcess: 0 }, 'crown')).toBeUndefined();
	});
	it('nothing waits for growth in a time in which nothing moves: feeding and turning begin with the season', () => {
		const workOn = '2026-11-09';
		const days = (rule: string, budsOn: string | null, change: Partial<WorkDone> = {}) => {
			const task = byRule({ workOn, budsOn, ...change }, rule);
			return [task?.fromOn, task?.release?.byOn];
		};
		const first = firstBudsDays({ tender: false, group: 'deciduous' }, defaultValues).from;
		const rest = 100;
		const budsOn = addDays(workOn, first + rest);
		const fed = defaultValues['aftercare.feedUsual'];
		const span = 2 * defaultValues['aftercare.feedSpan'];
		expect(days('feeding', null)).toEqual([addDays(workOn, fed), addDays(workOn, fed + span)]);
		expect(days('feeding', budsOn)).toEqual([
			addDays(workOn, fed + rest),
			addDays(workOn, fed + rest + span)
		]);
		const turned = defaultValues['aftercare.turnFrom'];
		const every = defaultValues['aftercare.turnEvery'];
		expect(days('turning', null)).toEqual([addDays(workOn, turned), addDays(workOn, turned + 2 * every)]);
		expect(days('turning', budsOn)).toEqual([
			addDays(workOn, turned + rest),
			addDays(workOn, turned + rest + 2 * every)
		]);
		expect(byRule({ inGround: true }, 'turning')).toBeUndefined();
	});
	it('feeding is not asked late in a season, but in the next one, and again where nobody answered', () => {
		const place = { kind: 'open' as const, latitudeDeg: 51, elevationM: 100, heldMinimumC: null };
		const feed = (
			today: string,
			looks: ReleaseFacts['looks'],
			change: object = {},
			from: Partial<ReleaseFacts> = {}
		) =>
			timed(
				{
					fromOn: '2026-06-20',
					toOn: '2026-07-18',
					source: 'feeding@2026-03-01',
					release: { condition: 'flush-hardened', byOn: '2026-08-15', value: 0, after: '' } as const,
					...change
				},
				{
					looks,
					functionLow: [],
					evergreen: false,
					gate: null,
					closed: [],
					grows: { place, tender: false },
					...from
				},
				today,
				defaultValues
			);
		const shoots = (observedOn: string) => ({
			observedOn,
			buds: null,
			leafCover: null,
			leafState: null,
			shootExtensionMm: 90
		});
		const [season, next] = [2026, 2027].map((year) => growingSeason(place, false, year, defaultValues));
		const lateOn = addDays(
			season?.from ?? '',
			Math.floor(daysBetween(season?.from ?? '', season?.to ?? '') * defaultValues['aftercare.feedLatest'])
		);
		// Hardened in time it begins then; hardened late, or in its rest, it begins with the next season.
		const early = [shoots('2026-06-01'), shoots('2026-07-01')];
		expect(feed('2026-07-01', early)).toMatchObject({
			fromOn: '2026-07-01',
			released: { state: 'released' }
		});
		const late = [shoots('2026-08-01'), shoots(lateOn)];
		expect(feed(lateOn, late)).toMatchObject({ fromOn: lateOn, released: { state: 'released' } });
		for (const today of [addDays(lateOn, 1), '2026-12-20'])
			expect(feed(today, late)).toMatchObject({
				fromOn: next?.from,
				toOn: addDays(next?.from ?? '', 28),
				released: {
					state: 'held',
					on: lateOn,
					because: 'this season is too far on: what is fed late does not harden'
				}
			});
		expect(feed(next?.from ?? '', late)).toMatchObject({
			fromOn: next?.from,
			released: { state: 'released' }
		});
		// Never answered, it is asked as long after the beginning of the next season as it would have waited.
		expect(feed('2026-08-16', [])).toMatchObject({ fromOn: '2026-08-15', released: { state: 'overdue' } });
		expect(feed(addDays(lateOn, 1), []).released).toMatchObject({ state: 'held', on: null });
		const asked = addDays(next?.from ?? '', daysBetween('2026-06-20', '2026-08-15'));
		expect(feed(addDays(asked, -1), [])).toMatchObject({
			fromOn: asked,
			released: { because: 'the season is young, and nobody saw it yet' }
		});
		expect(feed(asked, [])).toMatchObject({ fromOn: asked, released: { state: 'overdue' } });
		// What waits for no growth moves all the same; other work, and what grows all year, does not.
		expect(feed('2026-12-20', [], { release: null })).toMatchObject({ fromOn: next?.from, released: null });
		expect(feed('2026-07-01', [], { release: null }).fromOn).toBe('2026-06-20');
		expect(feed('2026-12-20', late, { source: 'turning@2026-03-01' }).fromOn).toBe(lateOn);
		const warm = { place: { ...place, latitudeDeg: 5 }, tender: false };
		expect(feed('2026-12-20', late, {}, { grows: warm }).fromOn).toBe(lateOn);
		// Under the equator its seasons are the other half of the year's.
		const south = { place: { ...place, latitudeDeg: -51 }, tender: false };
		expect(feed('2026-12-20', late, {}, { grows: south }).fromOn > '2026-09-01').toBe(true);
		expect(feed('2026-12-20', late, {}, { grows: south }).released?.state).toBe('released');
	});
	it('cuttings come off where something comes off: a crown that is cut, or roots at the bench, not those that stayed in the ground', () => {
		const title = (change: Partial<WorkDone>) => byRule({ livingLoss: 0.5, ...change }, 'backup')?.title;
		expect(title({})).toMatch(/^Strike cuttings from what comes off/);
		expect(title({ lifted: true })).toMatch(/^Take a cutting or two/);
		expect(title({ lifted: true, crownTaken: 0.2 })).toMatch(/^Strike cuttings from what comes off/);
		expect(title({ lifted: true, crownSchool: 'balance' })).toMatch(/^Strike cuttings from what comes off/);
		expect(byRule({ livingLoss: 0.5, lifted: true }, 'backup')?.reason).toMatch(/^With so few roots left/);
	});
	it('a loss counts from its working value on, and a crown asks for shelter only beyond its own', () => {
		const counts = defaultValues['aftercare.lossCounts'];
		const watered = (livingLoss: number) =>
			byRule({ livingLoss, waterSchool: 'at-once' }, 'first-water')?.reason;
		expect(watered(counts)).toMatch(/^Roots are watered in at once/);
		expect(watered(counts / 2)).toMatch(/^No living root was cut/);
		const excess = defaultValues['aftercare.crownExcess'];
		const shelter = (crownExcess: number) => byRule({ inGround: true, inLeaf: true, crownExcess }, 'shade');
		expect(shelter(excess)).toBeUndefined();
		expect(shelter(excess + 0.01)?.kind).toBe('shelter');
	});
	it('work of the days and of the season after root work is over for good when it is that late, other work never', () => {
		const lapsed = (source: string, late: number, everyDays: number | null = null) =>
			hasLapsed(
				{ toOn: '2026-03-09', source: `${source}@2026-03-02`, everyDays },
				addDays('2026-03-09', late),
				defaultValues
			);
		const [days, season] = [
			defaultValues['aftercare.lapsesDays'],
			defaultValues['aftercare.lapsesSeasonDays']
		];
		expect([days, days + 1].map((late) => lapsed('backup', late))).toEqual([false, true]);
		for (const rule of [
			'neighbours',
			'neighbours-again',
			'rot-recheck',
			'water-by-weight',
			'first-buds',
			'feeding',
			'ground.ties'
		])
			expect(
				[season, season + 1].map((late) => lapsed(rule, late)),
				rule
			).toEqual([false, true]);
		for (const rule of ['repot-need', 'collar-again', 'arborist'])
			expect(lapsed(rule, 900), rule).toBe(false);
		// Of work done again and again the next turn has come and gone too, and a month at the least.
		for (const [every, most] of [
			[days - 7, days],
			[days + 7, days + 7]
		] as const)
			expect(
				[most, most + 1].map((late) => lapsed('again', late, every)),
				`every ${every} days`
			).toEqual([false, true]);
	});
	it('work that waits is held on its last day, and brought up the day after', () => {
		const facts = { looks: [], functionLow: [], evergreen: false, gate: null, closed: [] };
		const release = { condition: 'buds-move', value: 0, byOn: '2026-05-11', after: '' } as const;
		expect(releaseOf(release, facts, '2026-05-11', defaultValues).state).toBe('held');
		expect(releaseOf(release, facts, '2026-05-12', defaultValues).state).toBe('overdue');
		expect(
			releaseOf({ ...release, condition: 'growth-regained' }, facts, '2026-05-12', defaultValues).state
		).toBe('held');
	});
	it('what somebody looked for and did not find yet is asked for again some days later, not at once', () => {
		const blank = { buds: null, leafCover: null, leafState: null, shootExtensionMm: null };
		const facts = { looks: [], functionLow: [], evergreen: false, gate: null, closed: [] };
		const again = defaultValues['release.askAgainDays'];
		const stateOn = (
			condition: 'buds-move' | 'leaves-out' | 'flush-hardened' | 'root-function',
			look: object,
			on: string,
			{ before = {}, ...change }: { before?: object; evergreen?: boolean } = {}
		) =>
			releaseOf(
				{ condition, value: 0.8, byOn: '2026-05-11', after: '' },
				{
					...facts,
					looks: [
						{ ...blank, observedOn: '2026-05-01', ...before },
						{ ...blank, observedOn: '2026-05-12', ...look }
					],
					...change
				},
				on,
				defaultValues
			);
		const last = addDays('2026-05-12', again);
		for (const [condition, look, change] of [
			['buds-move', { buds: 'none' }, {}],
			['leaves-out', { leafCover: 0.25 }, {}],
			['leaves-out', { buds: 'swelling' }, { evergreen: true }],
			['leaves-out', { shootExtensionMm: 0 }, { evergreen: true }],
			['flush-hardened', { shootExtensionMm: 80 }, { before: { shootExtensionMm: 40 } }],
			['root-function', { leafState: 'wilted' }, {}]
		] as const) {
			expect(stateOn(condition, look, last, change), condition).toMatchObject({ state: 'held' });
			expect(stateOn(condition, look, last, change).because).toMatch(/; on 2026-05-12 it was not so yet$/);
			expect(stateOn(condition, look, addDays(last, 1), change), condition).toMatchObject({
				state: 'overdue',
				because: expect.stringMatching(/^waited .*; on 2026-05-12 it was not so yet$/)
			});
		}
		// A look at something else answers nothing, nor does one long before the last day.
		for (const [condition, look, change] of [
			['buds-move', { leafCover: 0.2 }, {}],
			['leaves-out', { leafState: 'turgid' }, {}],
			['leaves-out', { leafCover: 0.9 }, { evergreen: true }],
			['flush-hardened', { buds: 'open' }, { before: { shootExtensionMm: 40 } }],
			['flush-hardened', { shootExtensionMm: 80 }, { before: { buds: 'open' } }],
			['root-function', { buds: 'open' }, {}],
			['root-function', { leafState: 'turgid' }, {}],
			['buds-move', { buds: 'none', observedOn: addDays('2026-05-11', -again) }, {}]
		] as const)
			expect(stateOn(condition, look, '2026-05-12', change), condition).toMatchObject({
				state: 'overdue',
				because: expect.stringMatching(/by 2026-05-11 nobody saw it$/)
			});
		const task = {
			fromOn: '2026-04-24',
			toOn: '2026-04-26',
			source: 'shade@2026-04-01',
			release: { condition: 'leaves-out', value: 0, byOn: '2026-05-11', after: '' } as const
		};
		const looks = [{ ...blank, observedOn: '2026-05-12', leafCover: 0.25 }];
		const asked = timed(task, { ...facts, looks }, addDays(last, 1), defaultValues);
		expect([asked.fromOn, asked.toOn]).toEqual([last, addDays(last, 2)]);
	});
	it('ground is watered from above alone, and what was written stays to be read', () => {
		expect(wateringWaysFor(true)).toEqual(wateringWays);
		expect(wateringWaysFor(false)).toEqual(['all-round', 'twice', 'sparingly']);
		expect(wateringWaysFor(false, 'from-below')).toEqual(['all-round', 'from-below', 'twice', 'sparingly']);
	});
	it('brings up neighbours, backups and a second smell after rot, and none of it otherwise', () => {
		const rot = rulesOf({ rotWasCut: true }).map((task) => task.rule);
		expect(rot).toEqual(expect.arrayContaining(['neighbours', 'backup', 'rot-recheck']));
		// Only dead root went and every leaf stays: nothing comes off that strikes.
		const title = (change: Parameters<typeof byRule>[0]) =>
			byRule({ rotWasCut: true, ...change }, 'backup')?.title;
		expect(title({ livingLoss: 0, crownSchool: 'keep-leaves' })).toMatch(/^Take a cutting or two/);
		const least = defaultValues['aftercare.crownExcess'];
		for (const [crownExcess, said] of [
			[0, /^Take a cutting or two/],
			[least, /^Take a cutting or two/],
			[least + 0.01, /from what comes off/]
		] as const)
			expect(title({ livingLoss: 0, crownSchool: 'balance', crownExcess })).toMatch(said);
		expect(title({ livingLoss: 0.2, crownSchool: 'keep-leaves' })).toMatch(/from what comes off/);
		expect(rulesOf({ livingLoss: 0.1 }).map((task) => task.rule)).not.toEqual(
			expect.arrayContaining(['neighbours'])
		);
	});
	it('sees collar work again at 60 days (common practice, no source) and calls an arborist for structural cuts', () => {
		const again = byRule({ inGround: true, collarWork: true }, 'collar-again');
		expect(daysBetween('2026-02-10', again?.fromOn ?? '')).toBeLessThanOrEqual(60);
		expect(daysBetween('2026-02-10', again?.toOn ?? '')).toBeGreaterThanOrEqual(60);
		// Others have to say what they found: until then it stands on every page.
		expect(byRule({ inGround: true, structuralCut: true }, 'arborist')).toMatchObject({
			kind: 'referral',
			title: 'A qualified arborist has to judge whether it may fall'
		});
		expect(resultAsked({ kind: 'collar', source: 'arborist@2026-04-18' })).toBe('referral');
		expect(resultAsked({ kind: 'collar', source: 'collar-again@2026-04-18' })).toBeNull();
	});
	it('follows the owner’s own days and weeks', () => {
		const own = resolveValues({ 'aftercare.clearGrowthFrom': 40, 'aftercare.shelter.deciduous.most': 9 });
		const task = (rule: string) => aftercareTasks(work, own).find((made) => made.rule === rule);
		expect(daysBetween(work.workOn, task('clear-growth')?.fromOn ?? '')).toBe(40);
		expect(daysBetween(work.workOn, task('shelter')?.toOn ?? '')).toBe(63);
		expect(daysBetween(work.workOn, byRule({}, 'shelter')?.toOn ?? '')).toBe(28);
	});
	it('puts shelter on before half of it comes off, and half before the rest, for every group in leaf or bare', () => {
		for (const group of groups)
			for (const inLeaf of [true, false])
				for (const waterSchool of ['at-once', 'dry-rest'] as const) {
					const change = { group, inLeaf, waterSchool, leafOutOn: inLeaf ? null : '2026-04-20' };
					const on = byRule(change, 'shelter-on');
					const half = byRule(change, 'shelter-half');
					const rest = byRule(change, 'shelter');
					expect(on?.fromOn).toBe(work.workOn);
					if (group === 'succulent' && waterSchool === 'dry-rest') {
						expect(on?.title).toMatch(/dry and airy/);
						expect([half, rest]).toEqual([undefined, undefined]);
						continue;
					}
					expect([half?.release?.after, rest?.release?.after]).toEqual(['shelter-on', 'shelter-half']);
					expect((half?.fromOn ?? '') < (rest?.fromOn ?? '')).toBe(true);
					expect(half?.release?.condition).toBe(inLeaf ? 'buds-move' : 'leaves-out');
					if (!inLeaf) {
						expect(on?.title).toBe('Shelter it from wind, and its stem from sun');
						// Demand begins with the leaves, and so do its weeks of shelter.
						expect((half?.fromOn ?? '') > '2026-04-20').toBe(true);
						expect([half?.title, rest?.title].join()).not.toMatch(/shade/i);
					}
				}
		expect(byRule({ livingLoss: 0.01 }, 'shelter-on')).toBeUndefined();
	});
	it('settles its winter place ahead of the first night below its limit, in either hemisphere', () => {
		const first = (latitudeDeg: number, workOn: string) =>
			firstColdNight(
				{ kind: 'open', latitudeDeg, elevationM: 0, heldMinimumC: null },
				workOn,
				() => 0,
				defaultValues
			);
		const north = first(52, '2026-06-20');
		const south = first(-52, '2026-12-19');
		expect(daysBetween('2026-06-20', north ?? '')).toBeCloseTo(daysBetween('2026-12-19', south ?? ''), -1);
		const due = byRule({ workOn: '2026-06-20', coldFromOn: north }, 'cold');
		expect(daysBetween(due?.toOn ?? '', north ?? '')).toBe(7);
		expect(byRule({ coldFromOn: null }, 'cold')).toBeUndefined();
		expect(byRule({ coldFromOn: work.workOn }, 'cold')?.toOn).toBe('2026-02-12');
	});
	it('roots cut in spring or summer have grown by winter; cut in autumn, or of a tender kind, they are kept from its cold', () => {
		const first = (workOn: string, kind: { group: Group; coldestC: number }, latitudeDeg = 52) => {
			const place = { kind: 'open', latitudeDeg, elevationM: 0, heldMinimumC: null } as const;
			return firstColdNight(
				place,
				workOn,
				(on) =>
					coldLimit({ kind, place, lastCutOn: workOn, inGround: false, newShoots: 'none' }, on, defaultValues)
						.limitC,
				defaultValues
			);
		};
		const hardy = { group: 'deciduous', coldestC: -15 } as const;
		expect(first('2026-06-20', hardy)).toBe(null);
		expect(first('2026-03-10', hardy)).toBe('2026-03-10');
		for (const workOn of ['2026-10-05', '2026-11-20', '2027-01-15']) {
			const on = first(workOn, hardy) ?? '';
			expect(on >= workOn && on < '2027-04-01', workOn).toBe(true);
		}
		// Half a year on in the south.
		expect(first('2026-12-20', hardy, -52)).toBe(null);
		for (const workOn of ['2026-04-06', '2026-05-22', '2026-07-15']) {
			const on = first(workOn, hardy, -52) ?? '';
			expect(on >= workOn && on < '2026-10-01', workOn).toBe(true);
		}
		const tropical = { group: 'tropical', coldestC: 8 } as const;
		const autumn = first('2026-06-20', tropical) ?? '';
		expect(autumn > '2026-06-19' && autumn < '2026-10-20').toBe(true);
	});
	it('places the next root stage on its day', () => {
		expect(byRule({}, 'next-stage')?.fromOn).toBe('2027-02-01');
		expect(byRule({ nextStageOn: null }, 'next-stage')).toBeUndefined();
	});
});

describe('the crown', () => {
	it('supply is what is left × 1.15, and the rest exceeds it (our own default)', () => {
		expect(crownSupply(0.6, defaultValues).supply).toBeCloseTo(0.69, 12);
		expect(crownSupply(0.6, defaultValues).excess).toBeCloseTo(0.31, 12);
		expect(crownSupply(0.95, defaultValues)).toEqual({ supply: 1, excess: 0 });
	});
	it('rests dry as long as the wounds ask: not at all uncut, longest after rot surgery and much cut', () => {
		const school = (group: 'succulent' | 'deciduous', rot: boolean, loss: number) =>
			usualWaterSchool(group, rot, loss, defaultValues);
		expect(school('succulent', false, 0)).toBe('at-once');
		expect(school('succulent', false, 0.1)).toBe('dry-rest');
		const days = (group: 'succulent' | 'deciduous', rotWasCut: boolean, livingLoss: number) =>
			dryRestDays({ group, rotWasCut, livingLoss }, defaultValues);
		// Cut fleshy roots dry 1 to 3 weeks, a rotted fleshy stump 2 to 4 (common practice, no source).
		expect(days('succulent', false, 0.02).from).toBe(7);
		expect(days('succulent', false, 0.5)).toEqual({ from: 14, to: 21 });
		expect(days('succulent', true, 0.02).from).toBe(14);
		expect(days('succulent', true, 0.9)).toEqual({ from: 21, to: 28 });
		expect(days('deciduous', true, 0.3).to).toBeLessThan(days('succulent', false, 0.3).to);
	});
	it('takes its school from the group and the rot', () => {
		expect(usualCrownSchool('conifer')).toBe('keep-leaves');
		expect(usualCrownSchool('tropical')).toBe('balance');
		expect(usualWaterSchool('deciduous', true, 0.2, defaultValues)).toBe('dry-rest');
		expect(usualWaterSchool('deciduous', false, 0.2, defaultValues)).toBe('at-once');
	});
});
