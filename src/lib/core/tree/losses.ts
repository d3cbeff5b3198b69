import type { TreeRecords } from './case';
import { daysBetween } from '../maths/calendar';
import { rootsSevered } from '../aftercare/book/effects';
import { liftKept, type LiftKept } from '../replant/lifting/lift-cost';
import type { RootLoss } from '../recovery/expected';
import { isStructural, removedBy, rootShares } from '../roots/map/shares';
import { planStanding } from '../roots/plan/plan-standing';
import { ballToWork } from './ball';
import type { Values } from '../values/values';
import { usualCrownWidthMm } from '../replant/pots/demand';

/** A loss that work brought about: a day of cutting, or a lift. */
export interface WorkLoss extends RootLoss {
	/** ball: work on the ball as a whole, or a share that was said. */
	by: 'cut' | 'lift' | 'ball';
	/** Band of the share; the share itself at both ends where it was counted on the map. */
	low: number;
	high: number;
}

export interface RootLosses {
	/** Roots found dead, on the day they were mapped. */
	found: RootLoss[];
	/** Work that was done, by day. */
	done: WorkLoss[];
	/** Cuts that are planned, on their stage’s date. */
	planned: RootLoss[];
}

export type LossRecords = Pick<
	TreeRecords,
	'tree' | 'kind' | 'places' | 'rootMap' | 'plan' | 'lifts' | 'plantings' | 'groundPlans' | 'book'
>;

/** Lifts that were done, with what came along of the roots it had before. */
export function liftsDone(
	records: Pick<TreeRecords, 'tree' | 'rootMap' | 'lifts'>,
	values: Values
): { id: string; on: string; kept: LiftKept }[] {
	const { tree, rootMap } = records;
	return records.lifts
		.flatMap(({ id, log }) => {
			if (!log) return [];
			// A map of the ground drawn before the lift shows what was cut off; one drawn after it shows what came along.
			const before = rootMap?.frame === 'ground' && rootMap.mappedOn <= log.liftedOn ? rootMap : null;
			const of = {
				trunkDiameterMm: tree.trunkDiameterMm,
				crownWidthMm: usualCrownWidthMm(tree, values)
			};
			return [{ id, on: log.liftedOn, kept: liftKept(log, of, before, values) }];
		})
		.sort((a, b) => a.on.localeCompare(b.on));
}

/**
 * Root losses of a tree by day: roots found dead, cuts and lifts that were done, cuts that are planned. Each is a share of what lived just
 * before it, so that they multiply.
 */
export function rootLosses(records: LossRecords, values: Values): RootLosses {
	const { tree, kind, rootMap, plan } = records;
	const lifted = liftsDone(records, values).map(({ on, kept }): WorkLoss => ({
		on,
		share: 1 - kept.share,
		low: 1 - kept.high,
		high: 1 - kept.low,
		by: 'lift'
	}));
	const place = records.places.find((candidate) => candidate.id === tree.placeId);
	const doneOn = new Map<string, number>();
	const plannedOn = new Map<string, number>();
	if (rootMap && plan && place) {
		const { cutCost } = planStanding({ tree, kind }, place, rootMap, plan, values).ledger;
		for (const cut of plan.cuts) {
			const share = cutCost.get(cut.segmentId) ?? 0;
			if (cut.state === 'left') continue;
			const on = cut.state === 'done' ? cut.doneOn : plan.stageDates[cut.stage];
			if (!on) continue;
			const into = cut.state === 'done' ? doneOn : plannedOn;
			into.set(on, (into.get(on) ?? 0) + share);
		}
	}
	const listed = (byDay: Map<string, number>): RootLoss[] =>
		[...byDay]
			.map(([on, share]) => ({ on, share: Math.min(1, share) }))
			.sort((a, b) => a.on.localeCompare(b.on));
	const cuts = listed(doneOn).map((loss): WorkLoss => ({
		...loss,
		low: loss.share,
		high: loss.share,
		by: 'cut'
	}));
	// Of one day in the order in which they were kept: each on the ball that the one before left.
	const book = [...records.book].sort((a, b) => a.on.localeCompare(b.on));
	const worked = book.flatMap((entry, i): WorkLoss[] => {
		const before = { ...records, book: book.slice(0, i) };
		const lost = rootsSevered(entry, ballToWork(before, entry.on, values), values);
		return lost && lost.share > 0 ? [{ on: entry.on, ...lost, by: 'ball' }] : [];
	});
	const deadShare = rootMap && plan && place ? rootShares(rootMap.segments, values).deadShare : 0;
	return {
		found: rootMap && deadShare > 0 ? [{ on: rootMap.mappedOn, share: deadShare }] : [],
		// Of one day the lift came before the cuts on the bench.
		done: [...lifted, ...cuts, ...worked].sort((a, b) => a.on.localeCompare(b.on)),
		planned: listed(plannedOn)
	};
}

/** Ids of the roots that are gone whole, by the cuts that were made. */
export function rootsGone(
	{ rootMap, plan }: Pick<TreeRecords, 'rootMap' | 'plan'>,
	values: Values
): string[] {
	if (!rootMap || !plan) return [];
	const byId = new Map(rootMap.segments.map((segment) => [segment.id, segment]));
	const shares = rootShares(rootMap.segments, values);
	const done = plan.cuts.filter((cut) => cut.state === 'done');
	return [...new Set(done.flatMap((cut) => removedBy(cut, byId, shares, values)))];
}

/** What the last work took: the input of aftercare. Two shares are kept apart (handbook 16). */
export interface LastWork {
	on: string;
	by: 'cut' | 'lift' | 'lift-and-cut';
	/** Of what it had before the work: what its water, crown, shade and chance go by. */
	livingLoss: number;
	/** Of what is in the ball now: what its pot goes by. */
	ofBall: number;
	/** Rot was cut out: dead root that was rotten, or of a tree whose roots were seen dark and soft; a root that was only dead is none. */
	rotWasCut: boolean;
	structuralCut: boolean;
	nextStageOn: string | null;
}

/** The last work at the roots that was done, a lift and the cuts that followed it close by together; null when there was none. */
export function lastRootWork(
	records: LossRecords & Pick<TreeRecords, 'examinations'>,
	values: Values
): LastWork | null {
	const { rootMap, plan } = records;
	const { done } = rootLosses(records, values);
	const last = done.at(-1);
	if (!last) return null;
	const together = done.filter(
		(loss) =>
			loss.on === last.on ||
			(loss.by === 'lift' && daysBetween(loss.on, last.on) <= values['work.togetherDays'])
	);
	const lost = (of: readonly WorkLoss[]): number => 1 - of.reduce((left, loss) => left * (1 - loss.share), 1);
	const cuts = together.filter((loss) => loss.by !== 'lift');
	const byId = new Map(rootMap?.segments.map((segment) => [segment.id, segment]));
	const cutThen = (plan?.cuts ?? []).flatMap((cut) => {
		const segment = byId.get(cut.segmentId);
		return cut.doneOn === last.on && segment ? [segment] : [];
	});
	// Dead roots of a tree whose roots were seen dark and soft of late are the rot that was seen.
	const softSeen = records.examinations.some(
		(look) =>
			look.examinedOn <= last.on &&
			daysBetween(look.examinedOn, last.on) <= values['urgent.days'] &&
			look.findings.some((found) => found.signId === 'roots-dark-soft' && found.grade > 0)
	);
	const later = (plan?.cuts ?? [])
		.filter((cut) => cut.state === 'planned')
		.map((cut) => plan?.stageDates[cut.stage])
		.filter((on): on is string => on !== undefined && on > last.on)
		.sort();
	return {
		on: last.on,
		by: cuts.length === 0 ? 'lift' : cuts.length < together.length ? 'lift-and-cut' : 'cut',
		livingLoss: lost(together),
		ofBall: lost(cuts),
		rotWasCut:
			cutThen.some((s) => s.condition === 'dead' && (s.flaws.includes('rotten') || softSeen)) ||
			records.book.some((one) => one.kind === 'rot-cut-out' && one.on === last.on),
		structuralCut: cutThen.some(isStructural),
		nextStageOn: later[0] ?? null
	};
}

/**
 * Day on which its roots were last wounded: living root went with the work, or rot was cut back to sound wood. A dead root that is taken off
 * leaves nothing that a cold night would touch.
 * @returns null where they never were
 */
export function woundedOn(
	records: LossRecords & Pick<TreeRecords, 'examinations'>,
	values: Values
): string | null {
	const last = lastRootWork(records, values);
	if (last?.rotWasCut) return last.on;
	return (
		rootLosses(records, values).done.findLast(({ share }) => share >= values['aftercare.lossCounts'])?.on ??
		null
	);
}

/**
 * Share of the living root that a tree lost in all works on it where it grew, 0 … 1; null of one that was dug, planted or stood in a pot
 * since it came, or of which nobody says that it grew in the field.
 */
export function stoodLoss(records: LossRecords, values: Values): number | null {
	const { tree, plantings, groundPlans } = records;
	const { done } = rootLosses(records, values);
	const moved =
		tree.situation !== 'in-ground' ||
		tree.reserves !== 'field-grown' ||
		plantings.length > 0 ||
		groundPlans.some(({ hole, doneOn }) => hole !== null && doneOn !== null) ||
		done.some(({ by }) => by === 'lift');
	return moved
		? null
		: Math.min(
				1,
				done.reduce((sum, { share }) => sum + share, 0)
			);
}
