import { addDays } from '../maths/calendar';
import type { RehearsedPlan } from '../recovery/rehearsal/plan';
import { STAGE_LIMIT, type PlanInput } from '../roots/plan/plan';
import { planStanding } from '../roots/plan/plan-standing';
import { crownSupply } from '../aftercare/crown/crown';
import { counted } from '../text/plural';
import { percent } from '../text/percent';
import type { TreeRecords } from '../tree/case';
import type { Place } from '../vocabulary/place';
import { once, type Task, type TaskInput } from '../vocabulary/task';
import type { Values } from '../values/values';
import { prepared } from './prepared';
import type { RehearsalScene } from './scene';

/** A task of a plan that was taken over; one rule of one day is never made twice. */
export type TakenTask = TaskInput & Pick<Task, 'source'>;

/** Whether there is root work ahead in a plan of reduction. */
const isAhead = (plan: PlanInput, stage: number): boolean =>
	plan.cuts.some((cut) => cut.stage === stage && cut.state === 'planned');

/**
 * The stages of the reduction plan as a rehearsed plan does them.
 * @returns null where nothing of it changes
 */
export function stagesTaken(
	records: Pick<TreeRecords, 'tree' | 'kind' | 'rootMap' | 'plan'>,
	place: Place,
	taken: RehearsedPlan,
	today: string,
	values: Values
): PlanInput | null {
	const { plan, rootMap } = records;
	if (!plan || !rootMap || taken.roots === 'as-planned') return null;
	const { id: _id, version: _version, ...before } = plan;
	const first = before.stageDates.findIndex((_, stage) => isAhead(before, stage));
	if (first < 0) return null;
	const later = (on: string): string => addDays(on < today ? today : on, values['rehearse.waitDays']);
	const postponed = before.stageDates.map((on, stage) => (stage >= first ? later(on) : on));
	if (taken.roots !== 'half-now') return { ...before, stageDates: postponed };

	const { cutCost } = planStanding(records, place, rootMap, before, values).ledger;
	const cost = (cut: { segmentId: string }): number => cutCost.get(cut.segmentId) ?? 0;
	const dead = new Set(rootMap.segments.filter((one) => one.condition === 'dead').map((one) => one.id));
	const ofStage = before.cuts.filter((cut) => cut.stage === first && cut.state === 'planned');
	const half = ofStage.reduce((sum, cut) => sum + cost(cut), 0) / 2;
	// Dead roots come off first, then what costs least, until half of the living share is reached.
	const sorted = [...ofStage].sort(
		(a, b) => Number(dead.has(b.segmentId)) - Number(dead.has(a.segmentId)) || cost(a) - cost(b)
	);
	let sum = 0;
	const now = new Set<string>();
	for (const cut of sorted) {
		sum += cost(cut);
		if (!dead.has(cut.segmentId) && now.size > 0 && sum > half + 1e-9) break;
		now.add(cut.id);
	}
	const roomy = before.stageDates.length < STAGE_LIMIT;
	const stageDates = roomy
		? [...before.stageDates.slice(0, first + 1), ...before.stageDates.slice(first).map((on) => later(on))]
		: before.stageDates.map((on, stage) => (stage > first ? later(on) : on));
	const last = stageDates.length - 1;
	const cuts = before.cuts.map((cut) => {
		if (cut.state !== 'planned') return cut;
		const stays = cut.stage < first || now.has(cut.id);
		return stays
			? cut
			: { ...cut, stage: Math.min(last, cut.stage === first || roomy ? cut.stage + 1 : cut.stage) };
	});
	return { ...before, stageDates, cuts };
}

/** What a plan that is taken over asks to be done otherwise than is planned, as tasks, besides the stages of its roots. */
export function tasksTaken(
	scene: RehearsalScene,
	{ taken, planned }: { taken: RehearsedPlan; planned: RehearsedPlan },
	today: string,
	values: Values
): TakenTask[] {
	const days = Array.from({ length: values['rehearse.days'] }, (_, i) => addDays(today, i + 1));
	const to = prepared(scene, taken, days, values);
	const on = (day: number): string => days[Math.max(0, day)] ?? today;
	const workOn = on(to.works[0]?.day ?? Math.max(0, to.replantDay));
	const tasks: TakenTask[] = [];
	const add = (
		rule: string,
		task: Pick<TaskInput, 'kind' | 'title' | 'fromOn' | 'toOn' | 'minutes'> & Partial<TaskInput>
	): void =>
		void tasks.push({
			stage: 'aftercare',
			mark: 'ours',
			reason: `Taken over from the rehearsal of ${today}: “${taken.name}”.`,
			...once,
			...task,
			// The owner may set times to parts of a minute; a task is told whole ones.
			minutes: Math.round(task.minutes),
			source: `rehearsed-${rule}@${today}`
		});
	const week = (from: string): string => addDays(from, 7);
	if (taken.roots === 'treat')
		add('treat', {
			kind: 'other',
			stage: 'roots',
			title: 'Open its roots and cut back to sound wood',
			fromOn: on(0),
			toOn: week(on(0)),
			minutes: values['rehearse.minutes.roots']
		});
	const [work] = to.works;
	const excess = work ? crownSupply(1 - work.share, values).excess : 0;
	if (taken.crown === 'balance' && planned.crown !== 'balance' && work && excess > 0)
		add('crown', {
			kind: 'crown',
			title: `Take about ${percent(excess)} of the crown, what its roots cannot feed`,
			fromOn: workOn,
			toOn: week(workOn),
			minutes: 30
		});
	if (to.replantDay >= 0 && to.potAfter && taken.potId !== planned.potId)
		add('replant', {
			kind: 'other',
			stage: 'replant',
			title: `Replant it: ${to.potAfter.label}`,
			fromOn: on(to.replantDay),
			toOn: addDays(on(to.replantDay), 14),
			minutes: values['rehearse.minutes.replant']
		});
	const place = scene.places[to.placeAt];
	if (to.placeAt > 0 && place && taken.placeId !== planned.placeId)
		add('place', {
			kind: 'shelter',
			stage: 'take-in',
			title: `Move it: ${place.label}`,
			fromOn: today,
			toOn: week(today),
			minutes: values['rehearse.minutes.shelter']
		});
	if (taken.shade && !planned.shade)
		add('shade', {
			kind: 'shelter',
			title: `Shade cloth over it for ${counted(to.shade[1] - to.shade[0], 'day')}`,
			fromOn: on(to.shade[0]),
			toOn: week(on(to.shade[0])),
			minutes: values['rehearse.minutes.shelter']
		});
	if (taken.water === 'every-days')
		add('water', {
			kind: 'water',
			title: `Water it every ${counted(taken.everyDays, 'day')}`,
			fromOn: on(0),
			toOn: on(0),
			minutes: values['rehearse.minutes.water'],
			everyDays: taken.everyDays
		});
	if (taken.water === 'dry-first' && planned.water !== 'dry-first')
		add('rest', {
			kind: 'dry-rest',
			title: 'First water after the dry rest',
			fromOn: on(to.restUntil),
			toOn: addDays(on(to.restUntil), 3),
			minutes: values['rehearse.minutes.water']
		});
	if (taken.backups > 0)
		add('backups', {
			kind: 'backup',
			title: `Take ${counted(taken.backups, 'cutting')} of it`,
			fromOn: today,
			toOn: addDays(today, 14),
			minutes: Math.min(2000, Math.round(taken.backups * values['rehearse.minutes.backup']))
		});
	return tasks;
}
