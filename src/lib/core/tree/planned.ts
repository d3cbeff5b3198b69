import type { TreeRecords } from './case';
import { roman } from '../roots/plan/plan';
import type { Stage } from '../vocabulary/words';
import { needsNewLook } from '../examine/triage/triage';
import type { Values } from '../values/values';

/** Work that a person planned or decided on and that was not done yet. */
export interface Planned {
	/** The day it is planned for; of a mere decision the day it was taken. */
	on: string;
	what: string;
	stage: Stage;
	/** Decided on, without a day of its own. */
	undated: boolean;
}

type PlannedRecords = Pick<
	TreeRecords,
	'tree' | 'lifts' | 'plan' | 'replantPlan' | 'plantings' | 'groundPlans' | 'triages'
>;

/**
 * Planned work that is no task of its own, the earliest first: a lift, the first root work, a planting; where none of it has a day, the
 * decision to go, or the new look that an old one asks for. A later root stage waits for its gate, and ground works stand on the list already.
 */
export function plannedWork(records: PlannedRecords, on: string, values: Values): Planned[] {
	const { tree, lifts, plan, replantPlan, plantings, groundPlans, triages } = records;
	if (tree.state !== 'in-care') return [];
	const lift = lifts.find((one) => one.log === null);
	const begun = plan?.cuts.some((cut) => cut.state === 'done') ?? false;
	const first = plan?.cuts.filter((cut) => cut.state === 'planned').sort((a, b) => a.stage - b.stage)[0];
	const cutOn = first && plan?.stageDates[first.stage];
	const count = plan?.cuts.filter((cut) => cut.state === 'planned' && cut.stage === first?.stage).length ?? 0;
	const dated: Omit<Planned, 'undated'>[] = [
		...(lift && tree.situation === 'in-ground'
			? [{ on: lift.plannedOn, what: 'Lift it, as planned', stage: 'replant' as const }]
			: []),
		...(first && cutOn && !begun
			? [
					{
						on: cutOn,
						what: `Cut ${count === 1 ? 'one root' : `${count} roots`}, stage ${roman(first.stage)}`,
						stage: 'roots' as const
					}
				]
			: []),
		...(replantPlan
			? [{ on: replantPlan.planting.plantedOn, what: 'Plant it, as planned', stage: 'replant' as const }]
			: [])
	].sort((a, b) => a.on.localeCompare(b.on));
	if (dated.length > 0) return dated.map((one) => ({ ...one, undated: false }));
	const decided = triages.at(-1);
	if (!decided || (decided.decision !== 'go' && decided.decision !== 'first')) return [];
	const doneOn = [
		...lifts.flatMap(({ log }) => (log ? [log.liftedOn] : [])),
		...(plan?.cuts ?? []).flatMap((cut) => (cut.doneOn === null ? [] : [cut.doneOn])),
		...plantings.map((one) => one.plantedOn),
		...groundPlans.flatMap((one) => (one.doneOn === null ? [] : [one.doneOn]))
	];
	if (doneOn.some((day) => day >= decided.decidedOn)) return [];
	const lifting = decided.purpose === 'lift';
	const old = needsNewLook(decided, on, values);
	if (lifting && tree.situation !== 'in-ground') return [];
	return [
		{
			on: decided.decidedOn,
			what: old
				? 'Look again before the work: decided'
				: lifting
					? 'Lift it, as decided'
					: 'Treat it where it stands, as decided',
			stage: old ? 'examine' : lifting ? 'replant' : 'roots',
			undated: true
		}
	];
}
