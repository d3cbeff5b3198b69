import type { Span } from '../maths/calendar';
import type { FieldProblem } from '../vocabulary/fields';
import { measured } from '../text/measured';
import type { Values } from '../values/values';
import {
	readingsOf,
	type MeasureKey,
	type Observation,
	type ObservationInput
} from '../examine/looks/observation';

/** Measures that do not fall by themselves: shoots within a season, woundwood, and the dead of a lot; living wood does not rise. */
const rules: {
	key: MeasureKey | 'lostCount';
	/** Of a length in mm as the reader measures, else a count. */
	length: boolean;
	/** What the measure does not do. */
	never: 'falls' | 'rises';
	withinSeason: boolean;
	what: string;
	perhaps: string;
}[] = [
	{
		key: 'shootExtensionMm',
		length: true,
		never: 'falls',
		withinSeason: true,
		what: 'shoots do not shrink',
		perhaps: 'cut back, tips died, or other shoots measured'
	},
	{
		key: 'woundwoodMm',
		length: true,
		never: 'falls',
		withinSeason: false,
		what: 'woundwood does not grow back',
		perhaps: 'another cut measured, or its edge died'
	},
	{
		key: 'diebackLimitMm',
		length: true,
		never: 'rises',
		withinSeason: false,
		what: 'dead wood does not come alive',
		perhaps: 'scratched elsewhere, or new shoots counted in'
	},
	{
		key: 'lostCount',
		length: false,
		never: 'falls',
		withinSeason: false,
		what: 'the dead stay dead',
		perhaps: 'counted wrongly before, or one budded from its base'
	}
];

/**
 * Whether one reading goes the way its measure does not go, by more than reading error.
 * @param before, now two readings of one measure, in its unit
 */
export const goesWrong = (never: 'falls' | 'rises', before: number, now: number, values: Values): boolean => {
	const error = values['look.readingError'];
	return never === 'falls' ? now < before * (1 - error) - 0.5 : now > before * (1 + error) + 0.5;
};

/**
 * What a look says against the looks before it that nature does not do. Such a reading is taken when its note says why.
 * @param observations looks of the tree, in any order
 * @param seasons growing seasons of its place
 * @returns a problem of the note for each, empty when a note was written
 */
export function unlikelyIn(
	look: ObservationInput,
	observations: readonly Observation[],
	seasons: readonly Span[],
	values: Values
): FieldProblem[] {
	if (look.note.trim() !== '') return [];
	const season = seasons.find((span) => span.from <= look.observedOn && look.observedOn <= span.to);
	return rules.flatMap(({ key, length, never, withinSeason, what, perhaps }) => {
		const now = look[key];
		const said = (value: number): string => (length ? measured(value, 'mm') : String(Math.round(value)));
		if (now === null || (withinSeason && !season)) return [];
		const earlier = observations.filter(
			(one) => one.observedOn < look.observedOn && (!withinSeason || one.observedOn >= (season?.from ?? ''))
		);
		const before =
			key === 'lostCount'
				? earlier
						.flatMap((one) => (one.lostCount === null ? [] : [{ on: one.observedOn, value: one.lostCount }]))
						.sort((a, b) => a.on.localeCompare(b.on))
						.at(-1)
				: readingsOf(earlier, key).at(-1);
		if (!before || !goesWrong(never, before.value, now, values)) return [];
		return [
			{
				field: 'note',
				message: `must say why: ${said(before.value)} on ${before.on}, now ${said(now)}, and ${what} (${perhaps}?)`
			}
		];
	});
}
