import { daysBetween } from '../../maths/calendar';
import { expectedOn, expectedRootFunction } from '../../recovery/expected';
import { ballOf, type BallFacts } from '../ball';
import { ref, say, unknownFact, type Fact } from '../fact';
import { liftsDone, rootLosses } from '../losses';
import { type Sayings } from './said';

/** Its roots, and the ball they are in. */
export interface RootFacts extends BallFacts {
	/** Living absorbing roots, of what it had before anything was lost. */
	rootsLiving: Fact<number>;
	/** Roots on the map, in number. */
	rootsMapped: Fact<number>;
	ballKg: Fact<number>;
}

/** What is known of the roots. */
export function rootFacts(sayings: Sayings): RootFacts {
	const { records, fact, lifts, on, values } = sayings;
	const { rootMap } = records;
	return {
		rootsLiving: livingRoots(sayings),
		rootsMapped:
			rootMap && rootMap.segments.length > 0
				? fact(
						say(rootMap.segments.length, rootMap.mappedOn, 'measured', ref('root-map', rootMap), 'root map')
					)
				: unknownFact(),
		...ballOf(records, on, values),
		ballKg: fact(
			lifts.flatMap(({ id, log }) =>
				say(log.massKg, log.liftedOn, 'measured', { record: 'lift', id }, 'scale')
			)
		)
	};
}

/** Living absorbing roots as expected from what was lost and what grew since; unknown where nothing was ever counted. */
function livingRoots({ records, place, on, values }: Sayings): Fact<number> {
	const { found, done } = rootLosses(records, values);
	const losses = [...found, ...done].filter((loss) => loss.on <= on);
	const days = losses.map((loss) => loss.on).sort();
	const [first] = days;
	if (!first || !place) return unknownFact();
	// Growth between two days is exact: only the day itself is asked for.
	const span = Math.max(1, daysBetween(first, on));
	const now = (of: readonly { on: string; share: number }[]): number => {
		const upToNow = of.filter((loss) => loss.on <= on);
		return (
			expectedOn(expectedRootFunction(upToNow, place, { from: first, to: on, stepDays: span }, values), on)
				?.expected ?? 1
		);
	};
	const lift = liftsDone(records, values).findLast((one) => one.on <= on);
	const cut = done.some((loss) => loss.by === 'cut' && loss.on <= on);
	const named = [
		...(found.length > 0 ? ['roots found dead'] : []),
		...(lift ? [lift.kept.from === 'map' ? 'the lift, by the map' : 'the lift, by its ball'] : []),
		...(cut ? ['cuts'] : []),
		...(done.some((loss) => loss.by === 'ball' && loss.on <= on) ? ['work on its ball'] : [])
	];
	return {
		...unknownFact<number>(),
		value: now(losses),
		low: now([...found, ...done.map((loss) => ({ ...loss, share: loss.high }))]),
		high: now([...found, ...done.map((loss) => ({ ...loss, share: loss.low }))]),
		on: days.at(-1) ?? first,
		known: 'worked-out',
		from: lift ? { record: 'lift', id: lift.id } : records.rootMap ? ref('root-map', records.rootMap) : null,
		by: `${named.join(', ')}, and the warmth since`
	};
}
