import type { TreeRecords } from '../case/case';
import type { RootLoss } from '../recovery/expected';
import type { Values } from '../values/values';
import { removedBy, rootShares } from './shares';
import { planStanding } from './standing';

/**
 * Root losses of a tree by day: roots found dead on the day they were mapped, done cuts on the day they were done,
 * planned ones on their stage's date.
 */
export function rootLosses(
	records: Pick<TreeRecords, 'tree' | 'kind' | 'places' | 'rootMap' | 'plan'>,
	values: Values
): { found: RootLoss[]; done: RootLoss[]; planned: RootLoss[] } {
	const { tree, kind, rootMap, plan } = records;
	const place = records.places.find((candidate) => candidate.id === tree.placeId);
	if (!rootMap || !plan || !place) return { found: [], done: [], planned: [] };
	const doneOn = new Map<string, number>();
	const plannedOn = new Map<string, number>();
	const { cutCost } = planStanding(tree, kind, place, rootMap, plan, values).ledger;
	for (const cut of plan.cuts) {
		const share = cutCost.get(cut.segmentId) ?? 0;
		if (cut.state === 'left') continue;
		const on = cut.state === 'done' ? cut.doneOn : plan.stageDates[cut.stage];
		if (!on) continue;
		const into = cut.state === 'done' ? doneOn : plannedOn;
		into.set(on, (into.get(on) ?? 0) + share);
	}
	const listed = (byDay: Map<string, number>): RootLoss[] =>
		[...byDay]
			.map(([on, share]) => ({ on, share: Math.min(1, share) }))
			.sort((a, b) => (a.on < b.on ? -1 : 1));
	const { deadShare } = rootShares(rootMap.segments, values);
	return {
		found: deadShare > 0 ? [{ on: rootMap.mappedOn, share: deadShare }] : [],
		done: listed(doneOn),
		planned: listed(plannedOn)
	};
}

/** Ids of the roots whose tips are off, by the cuts that were made. */
export function rootsGone(
	{ rootMap, plan }: Pick<TreeRecords, 'rootMap' | 'plan'>,
	values: Values
): string[] {
	if (!rootMap || !plan) return [];
	const byId = new Map(rootMap.segments.map((segment) => [segment.id, segment]));
	const shares = rootShares(rootMap.segments, values);
	const done = plan.cuts.filter((cut) => cut.state === 'done');
	return [...new Set(done.flatMap((cut) => removedBy(cut, byId, shares)))];
}

/** What the last day of cutting took: the input of aftercare. */
export interface LastWork {
	on: string;
	livingLoss: number;
	rotWasCut: boolean;
	structuralCut: boolean;
	nextStageOn: string | null;
}

/** The last root work that was done, or null when none was. */
export function lastRootWork(
	records: Pick<TreeRecords, 'tree' | 'kind' | 'places' | 'rootMap' | 'plan'>,
	values: Values
): LastWork | null {
	const { rootMap, plan } = records;
	const last = rootLosses(records, values).done.at(-1);
	if (!last || !rootMap || !plan) return null;
	const byId = new Map(rootMap.segments.map((segment) => [segment.id, segment]));
	const cutThen = plan.cuts.flatMap((cut) => {
		const segment = byId.get(cut.segmentId);
		return cut.doneOn === last.on && segment ? [segment] : [];
	});
	const later = plan.cuts
		.filter((cut) => cut.state === 'planned')
		.map((cut) => plan.stageDates[cut.stage])
		.filter((on): on is string => on !== undefined && on > last.on)
		.sort();
	return {
		on: last.on,
		livingLoss: last.share,
		rotWasCut: cutThen.some((s) => s.condition === 'dead'),
		structuralCut: cutThen.some((s) => s.rootClass === 'anchor' || s.rootClass === 'scaffold'),
		nextStageOn: later[0] ?? null
	};
}
