import { needsNewLook } from '../examine/triage/triage';
import { addDays, daysBetween } from '../maths/calendar';
import { chanceSaid } from '../text/percent';
import type { Values } from '../values/values';
import { common, daysInWords, rises, risesSlowly, type TodayItem, type TodayTree } from './item';

/** What its standing itself asks for: to be set when it is out of the ground, to be held firm. */
export function standingItems(entry: TodayTree, today: string, values: Values): TodayItem[] {
	const { standing, tree } = entry;
	if (!standing) return [];
	const items: TodayItem[] = [];
	if (standing.urgent && daysBetween(standing.urgent.on, today) <= values['urgent.days']) {
		const { label, chance, on, stage, meaning } = standing.urgent;
		items.push({
			...common(entry),
			urgency: values['today.rank.actNow'],
			level: 'now',
			sentence: `${label} is likely: act now`,
			reason: `Looked at on ${on}. ${meaning}`,
			figure: chanceSaid(chance),
			stage,
			task: null
		});
	}
	if (standing.out) {
		const since = daysBetween(standing.out.on, today);
		const safe = standing.out.how === 'heeled-in';
		const many = tree.plantCount > 1 ? `all ${tree.plantCount} of them ` : '';
		items.push({
			...common(entry),
			urgency: safe
				? values['today.rank.heeled'] + risesSlowly(since, values)
				: values['today.rank.out'] + rises(since, values),
			level: safe ? 'due' : 'now',
			sentence: safe
				? `Heeled in: pot or plant ${many ? `${many}in their window` : 'it in its window'}`
				: `Out of the ground: set ${many || 'it '}or heel ${many ? 'them' : 'it'} in`,
			reason: safe
				? `Heeled in since ${standing.out.on}; ${many ? 'their' : 'its'} place there is for days or weeks, not for seasons.`
				: `${standing.out.how === 'wrapped' ? 'Wrapped' : 'Out'} since ${standing.out.on}; roots in the air die by the hour.`,
			figure: since === 0 ? 'today' : daysInWords(since),
			stage: 'replant',
			task: null
		});
	}
	const { planned } = standing;
	// What is out of the ground is asked for above; a decision that is old asks for a new look first.
	if (planned?.undated && !needsNewLook({ decidedOn: planned.on }, today, values))
		items.push({
			...common(entry),
			urgency: values['today.rank.undated'],
			level: 'soon',
			sentence: `${planned.what}: give it a day`,
			reason: `Decided on ${planned.on}.`,
			figure: 'no day yet',
			stage: planned.stage,
			task: null
		});
	if (
		planned &&
		!planned.undated &&
		!standing.out &&
		planned.on <= addDays(today, values['today.aheadDays'])
	) {
		const late = daysBetween(planned.on, today);
		items.push({
			...common(entry),
			urgency:
				late >= 0 ? values['today.rank.planned'] + rises(late, values) : values['today.rank.soon'] + late,
			level: late >= 0 ? 'due' : 'soon',
			sentence: planned.what,
			reason: `Planned for ${planned.on}.`,
			figure: late > 0 ? `${daysInWords(late)} late` : late === 0 ? 'today' : `in ${daysInWords(-late)}`,
			stage: planned.stage,
			task: null
		});
	}
	if (standing.firmness && daysBetween(standing.firmness.on, today) <= values['look.overdueDays'])
		items.push({
			...common(entry),
			urgency: values['today.rank.loose'],
			level: 'now',
			sentence:
				standing.firmness.value === 'loose'
					? 'It is loose: tie it again'
					: 'It moves at the base: hold it firm',
			reason: `Seen on ${standing.firmness.on}. Roots that are moved tear as they grow: wires, where, and over which roots, before all else.`,
			figure: standing.firmness.value,
			stage: 'replant',
			task: null
		});
	return items;
}
