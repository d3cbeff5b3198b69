import { openFlags, referralResults, type OpenFlag } from '../aftercare/tasks/flags';
import { putOff } from '../aftercare/book/book';
import { groundWorksDone } from '../replant/ground/ground-said';
import { sideName } from '../text/sides';
import { redFlags } from '../examine/diagnosis/red-flags';
import { addDays } from '../maths/calendar';
import { headed, hasLapsed, timed } from '../aftercare/tasks/release';
import { setsAnew } from '../examine/diagnosis/open-causes';
import { setSince, sinceParts } from './held';
import { byForecast, decisionsDue, type DecisionFacts } from '../recovery/decisions';
import { releaseFacts } from './gate';
import { recoveryForecast, type RecoveryCase } from '../recovery/forecast';
import { mayFall, type LetterFacts } from '../recovery/owner-letter';
import { startAzimuth, type Segment } from '../roots/map/root-map';
import { isStructural, usualCutPlace } from '../roots/map/shares';
import { ownersRoots } from '../roots/plan/consent';
import { carryOver } from '../roots/plan/done';
import { planStanding } from '../roots/plan/plan-standing';
import { structuralRootZoneRadiusM } from '../roots/plan/zones';
import type { Format } from '../text/format';
import { atStart } from '../text/mid-sentence';
import type { Values } from '../values/values';
import type { Place } from '../vocabulary/place';
import { contextFor } from './carried';
import type { TreeRecords } from './case';
import type { Standing } from './standing';

/** What a letter is written from. */
export interface LetterFrom {
	records: TreeRecords;
	place: Place;
	stands: Standing;
	case: RecoveryCase;
	/** What is to be decided is worked out from them; null where nothing of the like is known. */
	deciding: Omit<DecisionFacts, 'probability'> | null;
	/** How days and measures are said in it. */
	say: Pick<Format, 'date' | 'measure'>;
}

/** Tasks of the next steps that a letter names, at most. */
const NEXT_STEPS = 4;

/** Its last lift, with the thickest of what was cut first. */
function lastLift({ lifts }: TreeRecords, say: LetterFrom['say']): LetterFacts['lifted'] {
	const log = lifts
		.flatMap((lift) => lift.log ?? [])
		.sort((a, b) => a.liftedOn.localeCompare(b.liftedOn))
		.at(-1);
	return log
		? {
				on: say.date(log.liftedOn),
				ballMm: log.assumed.includes('ballDiameterMm') ? null : log.ballDiameterMm,
				rootsMm: log.cutRoots.map(({ diameterMm }) => diameterMm).toSorted((a, b) => b - a)
			}
		: null;
}

/** All that a letter to the owner says of a tree, from its records as they stand today. */
export function letterFacts(from: LetterFrom, today: string, values: Values): LetterFacts {
	const { records, place, stands, say } = from;
	const { tree, kind, rootMap, plan } = records;
	const forecast = recoveryForecast(from.case, values, { bands: false });
	const { heldOn, setOn } = sinceParts(setSince(records, stands));
	return {
		treeName: tree.name,
		kindName: kind.commonName,
		place: place.name,
		today,
		trunkDiameterMm: tree.trunkDiameterMm,
		heightM: tree.heightM,
		...holdFacts(from, values),
		byCompass: byCompass(records),
		wanted: values['anchorage.wantedShare'],
		cuts: doneCuts(records).flatMap((cut) => {
			const segment = rootOf(records, cut.segmentId);
			return segment
				? [
						{
							on: say.date(cut.doneOn ?? today),
							root: rootWords(segment, from),
							why: cut.reason,
							despite: cut.because
						}
					]
				: [];
		}),
		lifted: lastLift(records, say),
		groundWorks: groundWorksDone(records.groundPlans).map(({ on, what }) => ({ on: say.date(on), what })),
		asked:
			rootMap && plan
				? ownersRoots(rootMap, plan, { permission: stands.permission.value ?? tree.permission }, values).map(
						({ segment, cut, consent }) => ({
							root: rootWords(segment, from),
							why: cut?.reason ?? '',
							answer: consent?.answer ?? null,
							on: consent ? say.date(consent.on) : null,
							how: consent?.how ?? ''
						})
					)
				: [],
		carried: heldOver(from, today),
		firmness: stands.firmness.value,
		firmnessOn: stands.firmness.on ? say.date(stands.firmness.on) : null,
		heldOn: heldOn ? say.date(heldOn) : null,
		setOn: setOn ? say.date(setOn) : null,
		setsAnew: setsAnew(from.deciding?.causes?.urgent, tree.situation === 'potted'),
		referrals: flagsOf(records, place, values).map(
			({ title, reason, byOn }) => `${title}, by ${say.date(byOn)}. ${reason}`
		),
		results: referralResults(records.tasks).map((one) => ({ ...one, on: say.date(one.on) })),
		probability: forecast.known && forecast.lastSeenOn !== null ? forecast.now : null,
		probabilityLow: forecast.low,
		probabilityHigh: forecast.high,
		slow:
			forecast.inTime < values['forecast.timeTold']
				? { through: forecast.through, inTime: forecast.inTime, by: say.date(forecast.horizonOn) }
				: null,
		vigour: tree.vigour,
		ended: tree.state === 'in-care' ? null : { state: tree.state, on: say.date(tree.closedOn ?? today) },
		mayFall: mayFall(tree, values),
		inGround: tree.situation === 'in-ground',
		structuralZoneM: structuralRootZoneRadiusM(tree.trunkDiameterMm / 1000, values),
		// Of a case that is closed nothing is ordered any more.
		next:
			tree.state === 'in-care'
				? [
						...(from.deciding ? pressing({ ...from.deciding, ...byForecast(forecast) }, values) : []),
						...nextSteps(from, today, values)
					]
				: []
	};
}

/** What looks press for now; what others have to see stands among the referrals. */
const pressing = (deciding: DecisionFacts, values: Values): LetterFacts['next'] =>
	decisionsDue({ ...deciding, flags: [] }, values)
		.filter((one) => one.presses)
		.map(({ what }) => ({ on: 'Now', what }));

/** The work ahead as the tree times it; what waits for the tree is not next, and what lapsed is no order any more. */
const nextSteps = ({ records, say }: LetterFrom, today: string, values: Values): LetterFacts['next'] => {
	const facts = releaseFacts(records, [], null, values);
	return records.tasks
		.filter((task) => task.state === 'open')
		.map((task) => timed(task, facts, today, values))
		.filter((task) => task.released?.state !== 'held' && !hasLapsed(task, today, values))
		.sort((a, b) => a.fromOn.localeCompare(b.fromOn))
		.slice(0, NEXT_STEPS)
		.map((task) => ({
			on: task.toOn < today ? `Now, due since ${say.date(task.toOn)}` : say.date(task.fromOn),
			what: headed(task)
		}));
};

const rootOf = ({ rootMap }: TreeRecords, id: string): Segment | undefined =>
	rootMap?.segments.find((segment) => segment.id === id);
const rootWords = (segment: Segment, { records, say }: LetterFrom): string =>
	`towards ${sideName(startAzimuth(segment), byCompass(records))}, ${say.measure(segment.diameterStartMm, 'mm')} thick`;
const doneCuts = ({ plan }: TreeRecords) => plan?.cuts.filter((cut) => cut.state === 'done') ?? [];

/** Out of the ground it was turned: only its front is known. */
const byCompass = ({ rootMap }: TreeRecords): boolean => rootMap?.frame === 'ground';

/** What its roots hold, by the map and what was cut since; rot that was cut out, or back to sound wood, is no doubt any more. */
function holdFacts(
	{ records, place }: LetterFrom,
	values: Values
): Pick<LetterFacts, 'windows' | 'assumed' | 'structuralCuts' | 'structuralRot'> {
	const { tree, kind, rootMap, plan } = records;
	if (!rootMap) return { windows: [], assumed: false, structuralCuts: null, structuralRot: false };
	const cuts = doneCuts(records);
	const structural = rootMap.segments.filter(isStructural);
	const ledger = plan && planStanding({ tree, kind }, place, rootMap, { ...plan, cuts }, values).ledger;
	return {
		windows:
			ledger?.windows.flatMap(({ azimuthDeg, left }) =>
				left === null ? [] : [{ middleDeg: azimuthDeg, share: left }]
			) ?? [],
		assumed: rootMap.segments.some((root) => root.seenToMm !== null),
		structuralCuts: cuts.filter((cut) => structural.some((root) => root.id === cut.segmentId)).length,
		structuralRot: structural.some(
			(root) =>
				root.condition === 'dead' &&
				!ledger?.gone.has(root.id) &&
				!cuts.some((cut) => cut.segmentId === root.id && cut.atMm <= usualCutPlace(root, values))
		)
	};
}

/** Roots and work that are held over, and what must happen first. */
function heldOver(from: LetterFrom, today: string): LetterFacts['carried'] {
	const { say } = from;
	const { rootMap, plan, book } = from.records;
	const roots = rootMap && plan ? carryOver(rootMap, plan, null) : [];
	return [
		...roots.flatMap(({ segmentId, why, first, fromOn }) => {
			const segment = rootOf(from.records, segmentId);
			return segment
				? [{ what: `The root ${rootWords(segment, from)}`, why, first, fromOn: fromOn && say.date(fromOn) }]
				: [];
		}),
		...putOff(book, today).map(({ what, first, fromOn }) => ({
			what: atStart(what),
			why: '',
			first,
			fromOn: fromOn && say.date(fromOn)
		}))
	];
}

/** What others have to see: as it stands on the list, or of a look that was kept before such things were put there. */
function flagsOf(
	records: TreeRecords,
	place: Place,
	values: Values
): Pick<OpenFlag, 'title' | 'reason' | 'byOn'>[] {
	const open = openFlags(records.tasks);
	const look = records.examinations.at(-1);
	if (!look || open.length > 0 || records.tasks.some((task) => task.source === `referral@${look.id}`))
		return open;
	const { context } = contextFor(records, look.examinedOn, look.events, look.id, values);
	return redFlags({ tree: records.tree, kind: records.kind, place }, look, context, values).map((one) => ({
		...one,
		byOn: addDays(look.examinedOn, one.inDays)
	}));
}
