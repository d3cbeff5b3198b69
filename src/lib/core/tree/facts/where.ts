import type { PottingMix } from '../../replant/mixes/bench-test';
import { liftAfters } from '../../replant/lifting/lift';
import type { Pot } from '../../replant/pots/volume';
import { feltInLooks } from '../looks';
import { ofThePot, potWeights, weighedFullKg } from '../shared-pot';
import { inOrder, latest, ref, say, unknownFact, type Fact } from '../fact';
import { latestWord, near, type Sayings } from './said';

export type LiftAfter = (typeof liftAfters)[number];
/** Where its roots are: in a pot, in the ground, or out of it since a lift. */
export type Stands = 'potted' | 'in-ground' | LiftAfter;

/** Where it stands, what its roots stand in, and when its water was last known. */
export interface WhereFacts {
	stands: Fact<Stands>;
	pot: Fact<Pot>;
	mix: Fact<PottingMix>;
	place: Fact<string>;
	ph: Fact<number>;
	/** Day its water was last poured, weighed, felt or probed, as the value. */
	waterSeen: Fact<string>;
}

/** Where a tree stands and in what. */
export function whereFacts(sayings: Sayings): WhereFacts {
	const { records, fact, values } = sayings;
	return {
		stands: standsOf(sayings),
		...potOf(sayings),
		place: placeOf(sayings),
		ph: fact(
			records.groundPlans.flatMap((one) =>
				say(one.sulphur?.phNow, one.plannedOn, 'measured', ref('ground-works', one), 'ground works')
			),
			near(values['standing.samePh'])
		),
		waterSeen: waterSeenOf(sayings)
	};
}

/** Where its roots are since the last work that moved them. */
function standsOf({ records, lifts, grounded, on, values }: Sayings): Fact<Stands> {
	const { tree } = records;
	const moves = inOrder<Stands>([
		...say<Stands>(
			tree.situation === 'just-lifted' ? 'out' : tree.situation,
			tree.takenInOn,
			'seen',
			ref('tree', tree),
			'taking in'
		),
		...lifts.flatMap(({ id, log }) =>
			say<Stands>(log.after, log.liftedOn, 'seen', { record: 'lift', id }, 'lifted')
		),
		// One that was set beside it moved nothing of it: what stands with it anew is written down for itself.
		...records.plantings.flatMap((one) =>
			say<Stands>('potted', one.plantedOn, 'seen', ref('planting', one), 'planted')
		),
		...grounded.flatMap((one) =>
			say<Stands>('in-ground', one.on, 'seen', ref('ground-works', one), 'planted')
		)
	]);
	// Where it stands was said anew at taking in when that was changed later: the tree itself has the last word on pot or ground.
	const last = latest(moves, on, values['standing.sameTimeDays'], latestWord);
	const out = last.value === 'out' || last.value === 'wrapped' || last.value === 'heeled-in';
	if (out === (tree.situation === 'just-lifted')) return last;
	return {
		...last,
		value: tree.situation === 'just-lifted' ? 'out' : tree.situation,
		from: ref('tree', tree),
		by: 'taking in'
	};
}

/** The pot it stands in and what is in it; neither for a tree that stands in none. */
function potOf({ records, on }: Sayings): Pick<WhereFacts, 'pot' | 'mix'> {
	const planting = ofThePot(records)
		.plantings.filter((one) => one.plantedOn <= on)
		.at(-1);
	if (!planting || records.tree.situation !== 'potted') return { pot: unknownFact(), mix: unknownFact() };
	const common = {
		...unknownFact<never>(),
		on: planting.plantedOn,
		from: ref('planting', planting)
	};
	return {
		pot: {
			...common,
			value: planting.pot,
			known: planting.assumed?.includes('pot') ? 'assumed' : 'measured',
			by: 'planting'
		},
		mix: {
			...common,
			value: planting.mix,
			known: planting.mix.measured ? 'measured' : 'seen',
			by: planting.mix.measured ? 'bench test' : 'planting'
		}
	};
}

/** Its place, since it was last set there or taken in. */
function placeOf({ records, grounded, place, on }: Sayings): Fact<string> {
	const { tree } = records;
	if (!place) return unknownFact();
	const setOn = [
		...records.plantings.filter((one) => one.placeId === place.id).map((one) => one.plantedOn),
		...grounded.map((one) => one.on)
	]
		.filter((day) => day <= on)
		.sort()
		.at(-1);
	return {
		...unknownFact<string>(),
		value: place.name,
		on: setOn ?? tree.takenInOn,
		known: 'seen',
		from: ref('tree', tree),
		by: ''
	};
}

const waterBy: Record<string, string> = {
	weighing: 'weighed',
	moisture: 'felt or probed',
	outflow: 'watered'
};

/** Day of the last planting until a day; empty where there is none. */
const plantedBy = (plantings: readonly { plantedOn: string }[], on: string): string =>
	plantings.findLast(({ plantedOn }) => plantedOn <= on)?.plantedOn ?? '';

/** When its water was last poured, weighed, felt or probed, at its pot for any tree in it or in a look. */
function waterSeenOf({ records, pot, fact }: Sayings): Fact<string> {
	return fact<string>(
		[
			...pot.waterings.flatMap((one) =>
				say(one.wateredOn, one.wateredOn, 'seen', ref('watering', one), 'watered')
			),
			...pot.measurements.flatMap((one) => {
				const by = waterBy[one.raw.tool];
				return by === undefined
					? []
					: say(one.measuredOn, one.measuredOn, 'measured', ref('measurement', one), by);
			}),
			...feltInLooks({ ...records, ...pot }).flatMap(({ id, on }) =>
				say(on, on, 'seen', { record: 'examination', id }, 'felt')
			),
			// A weight that nothing is read against tells no water.
			...potWeights(records).flatMap(({ id, on }) =>
				weighedFullKg(pot.waterings, plantedBy(pot.plantings, on), on) === null
					? []
					: say(on, on, 'measured', { record: 'look', id }, 'weighed')
			)
		],
		latestWord
	);
}
