import { firmnessAsks, firmnessSaid, smellAsks, smellSaid, untriedSince } from '../examine/looks/seen-words';
import { needsNewLook } from '../examine/triage/triage';
import { addDays, daysBetween } from '../maths/calendar';
import { chanceSaid } from '../text/percent';
import type { Values } from '../values/values';
import { checkAsked, holds, setsAnew } from '../examine/diagnosis/open-causes';
import { counted } from '../text/plural';
import { common, countOf, daysInWords, rises, risesSlowly, type TodayItem, type TodayTree } from './item';

type Of<T> = (
	entry: TodayTree & { standing: NonNullable<TodayTree['standing']> },
	today: string,
	values: Values
) => T;

/** What the last look says to act on now. */
const urgentItem: Of<TodayItem[]> = (entry, today, values) => {
	const { urgent } = entry.standing;
	if (!urgent || urgent.untilOn < today) return [];
	return [
		{
			...common(entry),
			urgency: values['today.rank.actNow'],
			level: 'now',
			sentence: `${holds(urgent)}: act now`,
			reason: `Looked at on ${urgent.on}. ${urgent.meaning}`,
			figure: chanceSaid(urgent.chance),
			stage: urgent.stage,
			task: null
		}
	];
};

/** A likely cause that a quick check decides before it is acted on; beside what is to be acted on now it waits. */
const checkItem: Of<TodayItem[]> = (entry, today, values) => {
	const { check: asked, urgent } = entry.standing;
	if (!asked || urgent || daysBetween(asked.on, today) > values['urgent.days']) return [];
	const { chance, on, check } = asked;
	return [
		{
			...common(entry),
			urgency: values['today.rank.check'],
			level: 'due',
			sentence: `${holds(asked)}; ${checkAsked(asked)}`,
			reason: check
				? `Looked at on ${on}. ${check.how} ${counted(check.minutes, 'minute')}, and it may turn what is done.`
				: `Looked at on ${on}. Its records show since then what that look does not say.`,
			figure: chanceSaid(chance),
			stage: 'examine',
			task: null
		}
	];
};

/** A likely cause whose work waits for its window, days before that opens; a plan for it speaks for itself. */
const windowItem: Of<TodayItem[]> = (entry, today, values) => {
	const { waits, urgent, planned } = entry.standing;
	if (!waits || urgent || planned || waits.windowOn > addDays(today, values['today.aheadDays'])) return [];
	const until = daysBetween(today, waits.windowOn);
	return [
		{
			...common(entry),
			urgency: values['today.rank.soon'] - until,
			level: 'soon',
			sentence: `${holds(waits)}: the window for the work opens`,
			reason: `Looked at on ${waits.on}. ${waits.meaning}`,
			figure: `in ${daysInWords(until)}`,
			stage: waits.stage,
			task: null
		}
	];
};

/** A tree that is out of the ground, or heeled in. */
const outItem: Of<TodayItem[]> = (entry, today, values) => {
	const { out } = entry.standing;
	if (!out) return [];
	const since = daysBetween(out.on, today);
	const count = countOf(entry);
	const [them, their, many] = count > 1 ? ['them', 'their', `all ${count} of them`] : ['it', 'its', ''];
	const inTheAir = {
		urgency: values['today.rank.out'] + rises(since, values),
		level: 'now' as const,
		sentence: `Out of the ground: set ${many || 'it'} or heel ${them} in`,
		reason: `${out.how === 'wrapped' ? 'Wrapped' : 'Out'} since ${out.on}; roots in the air die by the hour.`
	};
	const heeledIn = {
		urgency: values['today.rank.heeled'] + risesSlowly(since, values),
		level: 'due' as const,
		sentence: `Heeled in: pot or plant ${many || 'it'} in ${count > 1 ? 'their' : 'its'} window`,
		reason: `Heeled in since ${out.on}; ${their} place there is for days or weeks, not for seasons.`
	};
	return [
		{
			...common(entry),
			...(out.how === 'heeled-in' ? heeledIn : inTheAir),
			figure: since === 0 ? 'today' : daysInWords(since),
			stage: 'replant',
			task: null
		}
	];
};

/** Work that was planned or decided on. What is out of the ground is asked for above; an old decision asks for a new look first. */
const plannedItem: Of<TodayItem[]> = (entry, today, values) => {
	const { planned, out } = entry.standing;
	if (!planned) return [];
	if (planned.undated)
		return needsNewLook({ decidedOn: planned.on }, today, values)
			? []
			: [
					{
						...common(entry),
						urgency: values['today.rank.undated'],
						level: 'soon',
						sentence: `${planned.what}: give it a day`,
						reason: `Decided on ${planned.on}.`,
						figure: 'no day yet',
						stage: planned.stage,
						task: null
					}
				];
	if (out || planned.on > addDays(today, values['today.aheadDays'])) return [];
	const late = daysBetween(planned.on, today);
	return [
		{
			...common(entry),
			urgency:
				late >= 0 ? values['today.rank.planned'] + rises(late, values) : values['today.rank.soon'] + late,
			level: late >= 0 ? 'due' : 'soon',
			sentence: planned.what,
			reason: `Planned for ${planned.on}.`,
			figure: late > 0 ? `${daysInWords(late)} late` : late === 0 ? 'today' : `in ${daysInWords(-late)}`,
			stage: planned.stage,
			task: null
		}
	];
};

/** A tree that moves in its pot or at its base. */
const looseItem: Of<TodayItem[]> = (entry, today, values) => {
	const { firmness, urgent } = entry.standing;
	const anew = setsAnew(urgent, entry.tree.situation === 'potted');
	if (!firmness || daysBetween(firmness.on, today) > values['look.overdueDays']) return [];
	const since = untriedSince(firmness);
	if (since)
		return [
			{
				...common(entry),
				urgency: values['today.rank.loose'],
				level: 'due',
				sentence: firmnessAsks(firmness),
				reason: `On ${firmness.on} it ${firmnessSaid[firmness.value].then}; nobody has tried it since ${since}. What still moves tears its new roots.`,
				figure: 'to be tried',
				stage: 'recovery',
				task: null
			}
		];
	return [
		{
			...common(entry),
			urgency: values['today.rank.loose'],
			level: 'now',
			sentence: `${firmnessAsks(firmness)}${anew ? ' when it is set anew' : ''}`,
			reason: `Seen on ${firmness.on}. Roots that are moved tear as they grow: ${entry.tree.situation === 'in-ground' ? 'stakes or guys, with a tie that gives' : 'wires, where, and over which roots'}, ${anew ? 'once what presses is done' : 'before all else'}.`,
			figure: firmnessSaid[firmness.value].now,
			stage: 'replant',
			task: null
		}
	];
};

/** A root zone that smells since the work; of what an examination says to act on now that is said already. */
const smellItem: Of<TodayItem[]> = (entry, today, values) => {
	const { smell, urgent, pottedOn } = entry.standing;
	if (!smell || urgent || daysBetween(smell.on, today) > values['decision.smellDays']) return [];
	return [
		{
			...common(entry),
			urgency: values['today.rank.smell'],
			level: 'now',
			sentence: smellAsks(smell.value, pottedOn ? 'pot' : 'soil'),
			reason: `Smelt on ${smell.on}. Air is short there, or rot goes on: smell again within two weeks.`,
			figure: `smells ${smellSaid[smell.value]}`,
			stage: 'recovery',
			task: null
		}
	];
};

/** What its standing itself asks for: to be acted on, set, worked as planned, held firm. */
export function standingItems(entry: TodayTree, today: string, values: Values): TodayItem[] {
	const { standing } = entry;
	if (!standing) return [];
	return [urgentItem, checkItem, windowItem, outItem, plannedItem, looseItem, smellItem].flatMap((of) =>
		of({ ...entry, standing }, today, values)
	);
}
