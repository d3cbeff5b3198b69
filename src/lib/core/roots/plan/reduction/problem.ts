import type { Values } from '../../../values/values';
import type { Segment } from '../../map/root-map';
import {
	beyondShare,
	removedBy,
	rootShares,
	tornOnly,
	usualCutPlace,
	type RootShares
} from '../../map/shares';
import { claimOf, type Claim } from '../claims';
import type { LedgerCut, LedgerMap } from '../ledger';
import { roman } from '../plan';
import type { ReductionPlanInput } from './question';

/** A place where a root may be cut, and what that takes. */
export interface Candidate {
	segmentId: string;
	atMm: number;
	/** Roots that go whole by it. */
	removes: readonly string[];
	/** Part of what its own root absorbs that goes, where the root itself stays; else 0. */
	shortens: number;
	/** Share of the benefit of its claim. */
	worth: number;
}

/** A must that no cut may answer, and what bars it. */
interface Barred {
	segmentId: string;
	name: string;
	because: string;
}

export interface Must {
	segmentId: string;
	byStage: number;
	/** Candidates that answer it, in the stages up to `byStage`, or in just one. */
	only: number | null;
	name: string;
}

/** Everything the model is made of, before it is written for the solver. */
export interface Problem {
	map: LedgerMap;
	byId: ReadonlyMap<string, Segment>;
	shares: RootShares;
	claims: ReadonlyMap<string, Claim>;
	candidates: Candidate[];
	allowances: readonly number[];
	firstStage: number;
	lostDone: number[];
	gone: ReadonlySet<string>;
	earliest: ReadonlyMap<string, number>;
	musts: Must[];
	/** What must go and may not be cut at all. */
	barred: Barred[];
	keptBecause: KeptBecause;
	values: Values;
}

/** Why roots are kept, by id, where it was not the person at the map who locked them. */
type KeptBecause = ReadonlyMap<string, string>;

/** A root as it is spoken of. */
const rootName = ({ segments }: LedgerMap, segmentId: string): string =>
	`root ${segments.findIndex((segment) => segment.id === segmentId) + 1}`;
/** A root of the map as it is spoken of, by its place in the list. */
export const nameOf = ({ map }: Problem, segmentId: string): string => rootName(map, segmentId);

/** Why a root may not be cut at all; null where it may. */
export const barred = (segment: Segment, claim: Claim, keptBecause: KeptBecause): string | null =>
	segment.keep
		? (keptBecause.get(segment.id) ?? 'you locked it to be kept')
		: !segment.sourceKnown
			? 'its source is not known: trace it further'
			: segment.seenToMm === 0
				? 'it lies in soil still: lay it open first'
				: // Of a torn anchor only the tear comes off.
					segment.rootClass === 'anchor' &&
					  claim.kind !== 'rot' &&
					  claim.kind !== 'girdling' &&
					  !tornOnly(segment)
					? 'anchors are kept unless rotten or girdling'
					: null;

/** Why a cut that the owner wants is not planned. */
const barredWish = (segment: Segment, keptBecause: KeptBecause): string =>
	segment.keep
		? (keptBecause.get(segment.id) ?? 'you locked it to be kept: lift one of the two')
		: !segment.sourceKnown
			? 'its source is not known: trace it further'
			: 'the place to cut lies in soil still: lay it open first';

/** What a cut at a place takes. */
function takenAt(
	segment: Segment,
	atMm: number,
	byId: ReadonlyMap<string, Segment>,
	shares: RootShares,
	values: Values
): Omit<Candidate, 'worth'> {
	const removes = removedBy({ segmentId: segment.id, atMm }, byId, shares, values);
	return {
		segmentId: segment.id,
		atMm,
		removes,
		shortens: removes.includes(segment.id) ? 0 : beyondShare(segment, atMm, values)
	};
}

/** Places to cut a claimed root: at its base or the edge of rot, and back to each living side root before the trouble. */
export function candidatesOf(
	segment: Segment,
	claim: Claim,
	byId: ReadonlyMap<string, Segment>,
	shares: RootShares,
	values: Values
): Candidate[] {
	const at = (atMm: number, worth: number): Candidate => ({
		...takenAt(segment, atMm, byId, shares, values),
		worth
	});
	const seenToMm = segment.seenToMm ?? Infinity;
	if (claim.kind === 'rot' || tornOnly(segment)) {
		const place = usualCutPlace(segment, values);
		return place <= seenToMm ? [at(place, 1)] : [];
	}
	const backTo = (shares.children.get(segment.id) ?? [])
		.filter((side) => (shares.absorbing.get(side.id) ?? 0) > 0)
		.map((side) => Math.round(side.attachMm + side.diameterStartMm / 2 + 2))
		.filter((mm) => mm <= claim.fromMm && mm <= seenToMm);
	return [at(0, 1), ...[...new Set(backTo)].map((mm) => at(mm, values['plan.stubShare']))];
}

/** Why a claimed root has no place where it may be cut. */
export const noPlace = (segment: Segment, values: Values): string =>
	usualCutPlace(segment, values) > (segment.seenToMm ?? Infinity)
		? 'the place to cut lies in soil still: lay it open first'
		: 'a root that you keep would go with it';

const keptByOwner = (removes: readonly string[], byId: ReadonlyMap<string, Segment>): boolean =>
	removes.some((removed) => byId.get(removed)?.keep);

/** What earlier stages have taken: which roots are gone, what each stage lost, and what is left of each. */
function afterDone(
	{ allowances, done }: ReductionPlanInput,
	byId: ReadonlyMap<string, Segment>,
	whole: RootShares,
	values: Values
): { gone: Set<string>; lostDone: number[]; shares: RootShares } {
	const gone = new Set<string>();
	const lostDone = allowances.map(() => 0);
	// What a cut that was made took of a root can be lost only once.
	const absorbing = new Map(whole.absorbing);
	for (const cut of [...done].sort((a, b) => a.stage - b.stage)) {
		const segment = byId.get(cut.segmentId);
		if (!segment) continue;
		const { removes, shortens } = takenAt(segment, cut.atMm, byId, whole, values);
		const take = (id: string, part: number): void => {
			const left = Math.min(absorbing.get(id) ?? 0, (1 - part) * (whole.absorbing.get(id) ?? 0));
			if (cut.stage < lostDone.length)
				lostDone[cut.stage] = (lostDone[cut.stage] ?? 0) + (absorbing.get(id) ?? 0) - left;
			absorbing.set(id, left);
		};
		for (const removed of removes) {
			gone.add(removed);
			take(removed, 1);
		}
		if (shortens > 0) take(segment.id, shortens);
	}
	return { gone, lostDone, shares: { ...whole, absorbing } };
}

/** What is known of the map while it is asked root by root what may be cut. */
type Asked = Pick<
	Problem,
	'map' | 'byId' | 'shares' | 'gone' | 'earliest' | 'firstStage' | 'keptBecause' | 'values'
>;

/** What was found of one root: its places to cut, what has to go, what bars it. */
interface Found {
	candidates: Candidate[];
	musts: Must[];
	barred: Barred[];
}

const WISH = 'what you want cut';
const still = (removes: readonly string[], gone: ReadonlySet<string>): string[] =>
	removes.filter((removed) => !gone.has(removed));

/** A cut that the person asked for, where it may be made; null where it may not. */
function wishedCut(
	segment: Segment,
	own: LedgerCut,
	{ map, byId, shares, gone, values }: Asked
): Found | null {
	const open = segment.seenToMm !== 0 && own.atMm <= (segment.seenToMm ?? Infinity);
	if (segment.keep || !segment.sourceKnown || !open) return null;
	const taken = takenAt(segment, own.atMm, byId, shares, values);
	const removes = still(taken.removes, gone);
	const locked = removes.find((removed) => byId.get(removed)?.keep);
	if (locked !== undefined)
		return {
			candidates: [],
			musts: [],
			barred: [
				{
					segmentId: segment.id,
					name: WISH,
					because: `${rootName(map, locked)}, which is kept, would go with it: lift one of the two`
				}
			]
		};
	return {
		candidates: [{ ...taken, removes, worth: 1 }],
		musts: [{ segmentId: segment.id, byStage: own.stage, only: own.stage, name: WISH }],
		barred: []
	};
}

/** Where a claimed root may be cut, by when it has to go, and why it cannot. */
function claimedCut(segment: Segment, claim: Claim, asked: Asked): Found {
	const { byId, shares, gone, earliest, firstStage, keptBecause, values } = asked;
	const deny = (because: string): Barred[] =>
		claim.byStage === null ? [] : [{ segmentId: segment.id, name: claim.reason, because }];
	const bar = barred(segment, claim, keptBecause);
	if (bar) return { candidates: [], musts: [], barred: deny(bar) };
	const candidates = candidatesOf(segment, claim, byId, shares, values)
		.map((candidate) => ({ ...candidate, removes: still(candidate.removes, gone) }))
		.filter((candidate) => !keptByOwner(candidate.removes, byId));
	if (candidates.length === 0) return { candidates, musts: [], barred: deny(noPlace(segment, values)) };
	if (claim.byStage === null) return { candidates, musts: [], barred: [] };
	const by = Math.max(claim.byStage, firstStage);
	const notBefore = earliest.get(segment.id) ?? 0;
	if (notBefore > by)
		return {
			candidates,
			musts: [],
			barred: deny(
				`it has to go by stage ${roman(by)}, and you do not want it before stage ${roman(notBefore)}`
			)
		};
	return {
		candidates,
		musts: [{ segmentId: segment.id, byStage: by, only: null, name: claim.reason }],
		barred: []
	};
}

/** What is asked, with all places where a root may be cut, what has to go, and what bars it. */
export function problemOf(input: ReductionPlanInput, values: Values): Problem {
	const { map, allowances, done, wanted } = input;
	const byId = new Map(map.segments.map((segment) => [segment.id, segment]));
	const { gone, lostDone, shares } = afterDone(input, byId, rootShares(map.segments, values), values);
	const asked: Asked = {
		map,
		byId,
		shares,
		gone,
		firstStage:
			done.length > 0 ? Math.min(allowances.length - 1, Math.max(...done.map((cut) => cut.stage)) + 1) : 0,
		earliest: new Map(input.notBefore.map((entry) => [entry.segmentId, entry.stage])),
		keptBecause: new Map(input.keptBecause.map((one) => [one.segmentId, one.because])),
		values
	};
	const treated = new Set(done.map((cut) => cut.segmentId));
	const wantedOf = new Map(wanted.map((cut) => [cut.segmentId, cut]));
	const claims = new Map<string, Claim>();
	const found: Found = { candidates: [], musts: [], barred: [] };
	const add = (one: Found): void => {
		found.candidates.push(...one.candidates);
		found.musts.push(...one.musts);
		found.barred.push(...one.barred);
	};
	for (const segment of map.segments) {
		if (treated.has(segment.id) || gone.has(segment.id)) continue;
		const claim = claimOf(segment, map, values);
		if (claim) claims.set(segment.id, claim);
		const own = wantedOf.get(segment.id);
		const wish = own ? wishedCut(segment, own, asked) : null;
		if (wish) {
			add(wish);
			continue;
		}
		if (own)
			found.barred.push({
				segmentId: segment.id,
				name: WISH,
				because: barredWish(segment, asked.keptBecause)
			});
		if (claim) add(claimedCut(segment, claim, asked));
	}
	return { ...asked, claims, allowances, lostDone, ...found };
}

/** A root that an earlier or the same stage takes whole with its parent needs no cut of its own. */
export function withoutNeedless(cuts: readonly LedgerCut[], { byId, shares, values }: Problem): LedgerCut[] {
	return cuts.filter(
		(cut) =>
			!cuts.some(
				(other) =>
					other.segmentId !== cut.segmentId &&
					other.stage <= cut.stage &&
					removedBy(other, byId, shares, values).includes(cut.segmentId)
			)
	);
}
