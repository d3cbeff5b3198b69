import { nextWindowDay, seasonFit } from '../climate/windows';
import { isLarge } from '../examine/diagnosis/referral';
import { needsNewLook, type TriageLook, type TriageSubject } from '../examine/triage/triage';
import type { Values } from '../values/values';
import type { Kind } from '../vocabulary/kind';
import type { Place } from '../vocabulary/place';
import type { TreeRecords } from './case';
import { isEvidence, type Fact } from './fact';
import { rotLeft } from './rot-known';
import { standingOf } from './standing';
import { urgentOf } from './urgent';

/**
 * What a look before the work begins with: what was told or seen before. What was seen in the weeks that a decision stands for is taken
 * over; anything older is asked for anew. Hands are those of the last look: they are planned, not seen.
 */
export function beforeWorkBegin(records: TreeRecords, today: string, values: Values): TriageLook {
	const last = records.triages.at(-1);
	const stands = standingOf(records, today, values);
	const lately = <T>(fact: Fact<T>): T | null =>
		fact.on !== null && isEvidence(fact.known) && !needsNewLook({ decidedOn: fact.on }, today, values)
			? fact.value
			: null;
	return {
		decidedOn: today,
		// A tree that may hurt someone is treated where it stands, unless someone says otherwise.
		purpose:
			last?.purpose ??
			(records.tree.situation === 'in-ground' && !isLarge(records.tree, values) ? 'lift' : 'treat'),
		vitality: last?.vitality ?? records.tree.vigour,
		scratchAlive: lately(stands.twigAlive),
		permission: stands.permission.value ?? records.tree.permission,
		protectedSpecies: stands.protectedSpecies.value,
		servicesLocated: lately(stands.servicesLocated),
		pests: lately(stands.pests) ?? 'unknown',
		rootsKept: last?.rootsKept ?? null,
		ballDiameterMm: last?.ballDiameterMm ?? null,
		ballDepthMm: last?.ballDepthMm ?? null,
		helpers: last?.helpers ?? 0,
		machine: last?.machine ?? false,
		dyingInPlace: false
	};
}

/** What is known of a tree beside the look that is being taken on `on`. */
export const triageSubjectOf = (
	records: TreeRecords,
	kind: Kind,
	place: Place | null,
	on: string,
	values: Values
): TriageSubject => ({
	group: kind.group,
	potted: records.tree.situation === 'potted',
	reserves: records.tree.reserves,
	trunkDiameterMm: records.tree.trunkDiameterMm,
	seasonFit: place ? seasonFit(kind, place, on, values) : 'shoulder',
	windowOn: place ? nextWindowDay(kind, place, on, values) : null,
	rotChance: rotLeft(records, on, values)?.chance ?? null,
	pressing: pressingOn(records, on, values)
});
/** What presses by work at roots, pot or mix: what care answers, or leaving its roots alone, is no reason to begin any. */
function pressingOn(records: TreeRecords, on: string, values: Values): TriageSubject['pressing'] {
	const urgent = urgentOf(records, on, values);
	return urgent === null || urgent.stage === 'examine'
		? null
		: { subject: urgent.subject, chance: urgent.chance };
}
