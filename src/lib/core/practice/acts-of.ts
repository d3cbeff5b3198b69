import type { BookEntry } from '../aftercare/book/book';
import { ruleOf, workedOn } from '../aftercare/tasks/source';
import { daysBetween } from '../maths/calendar';
import { claimOf, type ClaimKind } from '../roots/plan/claims';
import { rootLosses } from '../tree/losses';
import type { TreeRecords } from '../tree/case';
import type { Task } from '../vocabulary/task';
import { dayOf, type PracticeTree } from './practice-tree';
import type { PlayedRound } from './played';
import type { PracticeAct, Remedy } from './round';
import { scenePotOf } from './truth';

/** What an entry of the field book is to a practice tree. */
const byBook: Readonly<Record<string, Remedy>> = {
	'ball-scored': 'open-ball',
	'ball-sliced': 'open-ball',
	'ball-shaved': 'open-ball',
	'roots-teased': 'open-ball',
	'rot-cut-out': 'cut-rot',
	'mix-part-replaced': 'new-mix',
	'leaves-washed': 'wash',
	covered: 'shelter',
	warmed: 'shelter',
	'night-moved': 'shelter',
	turned: 'turn'
};

/** Where what it is treated with reaches what sits on it or in its soil. */
const sprayed: ReadonlySet<string> = new Set(['leaves', 'stem', 'soil']);

/** Day of the round of the first water after a planting that was left dry; null where it was watered in. */
function restOf(tree: PracticeTree, { tasks }: TreeRecords, on: string): number | null {
	const rest = tasks.find(
		(task) =>
			task.kind === 'dry-rest' && ruleOf(task.source) === 'first-water' && workedOn(task.source) === on
	);
	return rest && rest.fromOn > on ? dayOf(tree, rest.fromOn) : null;
}

/** Rules of aftercare whose work puts shade on. */
const shadeOn: ReadonlySet<string> = new Set(['shelter-on', 'shade', 'crown', 'rehearsed-shade']);

/** What a task that was done is to it: what is asked or looked for by one is nothing to the tree. */
function ofTask(task: Task, tree: PracticeTree, day: number): PracticeAct[] {
	const rule = ruleOf(task.source);
	const act = (remedy: Remedy, untilDay: number | null = null): PracticeAct[] => [
		{ day, what: 'treat', remedy, untilDay, loss: 0 }
	];
	if (task.kind === 'shelter') {
		// Shelter comes off as its last step says; cut fleshy roots are not shaded.
		if (rule === 'shelter') return act('shade', day);
		if (!shadeOn.has(rule) || tree.truth.kind.group === 'succulent') return [];
		return act(
			'shade',
			rule === 'rehearsed-shade' ? day + Math.round(tree.values['rehearse.shadeDays']) : null
		);
	}
	if (task.kind === 'turning') return act('turn');
	return task.kind === 'referral' ? act('refer') : [];
}

/**
 * What was done to a practice tree on a day, as its records tell it: by whatever page it was written.
 * @param on calendar day that is over
 * @param placeBefore where it stood when the day began
 * @param begun the pot that it stood in when the day began and how dry, for water that was measured
 */
export function actsOfDay(
	tree: PracticeTree,
	records: TreeRecords,
	on: string,
	{ placeBefore, begun }: { placeBefore: string; begun: Pick<PlayedRound, 'pot' | 'dryness'> }
): PracticeAct[] {
	const { truth, values } = tree;
	const day = dayOf(tree, on);
	const acts: PracticeAct[] = [];
	const decided = records.triages.filter((one) => one.decidedOn === on).at(-1);
	if (decided)
		acts.push({
			day,
			what: 'decide',
			decision:
				decided.decision === 'go'
					? 'now'
					: decided.decision === 'leave' || decided.decision === 'nurse'
						? 'leave'
						: 'later'
		});
	const cut = cutOf(tree, records, on);
	if (cut) acts.push({ day, what: 'cut', ...cut });
	for (const planting of records.plantings)
		if (planting.plantedOn === on)
			acts.push({
				day,
				what: 'plant',
				pot: scenePotOf(planting, truth, values),
				restUntilDay: restOf(tree, records, on)
			});
	for (const entry of records.book) if (entry.on === on) acts.push(...ofBook(entry, day, on));
	for (const task of records.tasks)
		if (task.state === 'done' && task.closedOn === on) acts.push(...ofTask(task, tree, day));
	for (const plan of records.groundPlans) {
		if (plan.doneOn !== on) continue;
		const did = (remedy: Remedy): void =>
			void acts.push({ day, what: 'treat', remedy, untilDay: null, loss: 0 });
		if (plan.collar) did('open-collar');
		if (plan.loosening) did('loosen');
		if (plan.hole) did('drain');
	}
	if (records.tree.placeId !== placeBefore) acts.push(...ofMove(records, placeBefore, day));
	const poured = records.waterings.filter((one) => one.wateredOn === on);
	if (poured.length > 0) {
		const { pot, dryness } = begun;
		const missing = pot ? (pot.rootedMostL + pot.unrootedMostL) * dryness : null;
		const litres = poured.reduce<number | null>(
			(sum, one) => (sum === null || one.litres === null ? null : sum + one.litres - (one.ranOutL ?? 0)),
			0
		);
		const share = litres === null || missing === null ? 1 : Math.min(1, litres / Math.max(0.01, missing));
		acts.push({ day, what: 'water', share });
		if (poured.some((one) => one.way === 'from-below' || one.way === 'twice'))
			acts.push({ day, what: 'treat', remedy: 'soak', untilDay: null, loss: 0 });
	}
	return acts;
}

const ofBook = ({ kind, details }: BookEntry, day: number, on: string): PracticeAct[] => {
	if (kind === 'crown-cut') return [{ day, what: 'crown', share: details.share ?? 0 }];
	// Powder on a cut is no treatment of the tree.
	const remedy = kind === 'treated' && sprayed.has(details.choice ?? '') ? 'wash' : byBook[kind];
	if (!remedy) return [];
	return [
		{
			day,
			what: 'treat',
			remedy,
			untilDay: details.untilOn === null ? null : day + daysBetween(on, details.untilOn),
			// What of its roots went with it is counted among its losses.
			loss: 0
		}
	];
};

/** It was carried to another place: to more light, under cover, or out again. */
function ofMove({ tree, places }: TreeRecords, placeBefore: string, day: number): PracticeAct[] {
	const [before, after] = [placeBefore, tree.placeId].map((id) => places.find((one) => one.id === id));
	if (!after) return [];
	const lit = { sun: 2, part: 1, shade: 0 };
	const light = (place: typeof after | undefined): number => (place?.light ? lit[place.light] : 1);
	const covered = after.kind === 'heated' || after.kind === 'indoors' || after.kind === 'greenhouse';
	return [
		...(light(after) > light(before)
			? ([{ day, what: 'treat', remedy: 'light', untilDay: null, loss: 0 }] as const)
			: []),
		...(after.light === 'shade'
			? ([{ day, what: 'treat', remedy: 'shade', untilDay: null, loss: 0 }] as const)
			: []),
		{ day, what: 'treat', remedy: 'shelter', untilDay: covered ? null : day, loss: 0 }
	];
}

/** What was cut of its roots on a day: living root that went, and what of its rot, its girdling and its circling roots. */
function cutOf(
	{ truth, values }: PracticeTree,
	records: TreeRecords,
	on: string
): Pick<Extract<PracticeAct, { what: 'cut' }>, 'share' | 'rot' | 'girdles' | 'bound'> | null {
	const { rootMap, plan } = records;
	const share = rootLosses(records, values)
		// What came lifted had lost its roots before it came, whenever its lift is written down.
		.done.filter((loss) => loss.on === on && (loss.by !== 'lift' || truth.situation === 'in-ground'))
		.reduce((sum, loss) => sum + loss.share, 0);
	const cuts = plan?.cuts.filter((one) => one.doneOn === on) ?? [];
	if (cuts.length === 0 && share === 0) return null;
	const claims = (rootMap?.segments ?? []).map((segment) => {
		const claim = rootMap && claimOf(segment, rootMap, values);
		// A cut beyond where the trouble begins leaves it there.
		const cut = cuts.some((one) => one.segmentId === segment.id && one.atMm <= (claim?.fromMm ?? 0));
		return { cut, thick: segment.diameterStartMm ** 2, kind: claim?.kind };
	});
	/** Of the roots that lie so, by the area of their sections. */
	const part = (kind: ClaimKind): number => {
		const faulty = claims.filter((one) => one.kind === kind);
		const thick = (list: typeof faulty): number => list.reduce((sum, one) => sum + one.thick, 0);
		return faulty.length > 0 ? thick(faulty.filter((one) => one.cut)) / thick(faulty) : 0;
	};
	return { share: Math.min(1, share), rot: part('rot'), girdles: part('girdling'), bound: part('circling') };
}
