import { diebackLimit } from '../../examine/measuring/dieback';
import type { Observation } from '../../examine/looks/observation';
import { firmnessOfGrade } from '../../examine/looks/seen-words';
import { ref, say, within, type Fact, type Said } from '../fact';
import { movedDays } from '../looks';
import { inTerms, near, type Sayings } from './said';

/** What lives of it, as far as it was seen. */
export interface LifeFacts {
	/** Share of the crown in leaf. */
	leafCover: Fact<number>;
	leafState: Fact<NonNullable<Observation['leafState']>>;
	buds: Fact<NonNullable<Observation['buds']>>;
	/** A scratched twig is green or moist white. */
	twigAlive: Fact<boolean>;
	/** Height to which wood lives. */
	livingLimitMm: Fact<number>;
	firmness: Fact<NonNullable<Observation['firmness']>>;
	/** At the drain holes or the collar. */
	smell: Fact<NonNullable<Observation['smell']>>;
}

/** Signs of life: buds, leaves, shoots, living wood and what lives on it. */
export function lifeFacts({ fact, grade, looked, taps, told, records, on, values }: Sayings): LifeFacts {
	const moved =
		[...movedDays(records)]
			.filter((day) => day <= on)
			.sort()
			.at(-1) ?? '';
	// That it stood firm where it stood before says nothing; that it did not, holds until somebody finds it firm.
	const holds = ({ value, on, from }: Said<NonNullable<Observation['firmness']>>): boolean =>
		value !== 'firm' || on > moved || (on === moved && from?.record === 'look');
	return {
		leafCover: fact(
			looked((look) => look.leafCover),
			near(values['standing.sameCover'])
		),
		leafState: fact(looked((look) => look.leafState)),
		buds: fact<NonNullable<Observation['buds']>>([
			...looked((look) => look.buds),
			...inTerms(grade('buds-late'), (found) => (found > 0 ? ('none' as const) : null))
		]),
		twigAlive: fact<boolean>([
			...inTerms(grade('no-green-bark'), (found) => found === 0),
			...taps.flatMap((one) =>
				say(
					one.raw.points.some((point) => point.reading === 'alive'),
					one.on,
					'measured',
					ref('measurement', one),
					'scratch and tap'
				)
			),
			...looked((look) => (look.diebackLimitMm === null ? null : look.diebackLimitMm > 0)),
			...told((one) => one.scratchAlive)
		]),
		livingLimitMm: fact<number>(
			[
				...looked((look) => look.diebackLimitMm),
				...taps.map((one) => {
					const { limitMm, lowMm, highMm } = diebackLimit(one.raw, values);
					return {
						value: limitMm,
						low: lowMm,
						high: highMm,
						on: one.on,
						known: 'measured' as const,
						from: ref('measurement', one),
						by: 'scratch and tap'
					};
				})
			],
			within(values['standing.sameSize'])
		),
		firmness: fact<NonNullable<Observation['firmness']>>(
			[...looked((look) => look.firmness), ...inTerms(grade('leans-rocks'), firmnessOfGrade)].filter(holds)
		),
		smell: fact<NonNullable<Observation['smell']>>([
			...looked((look) => look.smell),
			...inTerms(grade('sour-smell'), (found) => (found > 0 ? ('sour' as const) : ('none' as const)))
		])
	};
}
