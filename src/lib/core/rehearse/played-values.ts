import type { Values } from '../values/values';

/** The numbers that a tree is played by. */
const playedBy = [
	'crown.reserve',
	'crown.takeMost',
	'degreeDays.rootBaseC',
	'forecast.crownPace',
	'forecast.leastRoots',
	'forecast.lossOdds',
	'guard.freshHeatC',
	'guard.heatC',
	'rehearse.airByTrigger',
	'rehearse.airLeast',
	'rehearse.callusDays',
	'rehearse.callusOdds',
	'rehearse.coldEats',
	'rehearse.collapsedAir',
	'rehearse.coldMost',
	'rehearse.coldOdds',
	'rehearse.crownSlows',
	'rehearse.dryDays',
	'rehearse.dryEats',
	'rehearse.dryFrom',
	'rehearse.dryGrows',
	'rehearse.dryOdds',
	'rehearse.girdledOdds',
	'rehearse.heatOdds',
	'rehearse.leafBearsMm',
	'rehearse.leaflessDry',
	'rehearse.outAgain',
	'rehearse.rotBack',
	'rehearse.rotEats',
	'rehearse.rotOdds',
	'rehearse.rotWet',
	'rehearse.seasonAt',
	'rehearse.shadeCools',
	'rehearse.shadeDemand',
	'rehearse.shadeSlows',
	'rehearse.stageRoots',
	'rehearse.thirstOdds',
	'rehearse.waitDays',
	'rehearse.usualDayMm',
	'rehearse.wetColdC',
	'rehearse.wetDays',
	'rehearse.wetEats',
	'rehearse.wetGrows',
	'rehearse.wetOdds',
	'rehearse.wetWarmC',
	'rootFunction.few',
	'rootFunction.perDegreeDay',
	'shelter.greenhouseC',
	'triage.rot',
	'water.crossing',
	'water.crownFactor',
	'water.groundFree',
	'water.rootInDegreeDays',
	'water.surfaceFactor'
] as const;
export type PlayedValues = Pick<Values, (typeof playedBy)[number]>;

/**
 * Only the numbers that a tree is played by, in an object of its own: among all of them each takes ten times as long to find, and
 * a rehearsal asks for them a hundred million times.
 */
export function playedValues(values: Values): PlayedValues {
	const few = {} as Record<(typeof playedBy)[number], number>;
	for (const key of playedBy) few[key] = values[key];
	// Written down and read again it is laid out as one that was written by hand.
	return JSON.parse(JSON.stringify(few)) as PlayedValues;
}
