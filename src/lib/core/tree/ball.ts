import { ballAfter } from '../aftercare/book/effects';
import type { TreeRecords } from './case';
import type { Guessable } from '../replant/pots/replant-plan';
import { guessedRadiusMm } from '../roots/map/root-map';
import type { Values } from '../values/values';
import { inOrder, latest, within, type Fact, type RecordRef, type Said } from './fact';

export interface BallFacts {
	ballWidthMm: Fact<number>;
	ballDepthMm: Fact<number>;
}

type BallRecords = Pick<TreeRecords, 'tree' | 'rootMap' | 'lifts' | 'plantings' | 'groundPlans' | 'book'>;

/** One ball: as it was last measured, lifted, mapped or set, and what was sliced or shaved off it since. */
export function ballOf(records: BallRecords, on: string, values: Values): BallFacts {
	const { rootMap } = records;
	// The size that the form suggests from the trunk; left so, nobody measured it.
	const guess = Math.round(records.tree.trunkDiameterMm * values['lifting.trunks-least']);
	const said = (width: number | null, day: string, from: RecordRef, by: string): Said<number>[] =>
		width === null ? [] : [{ value: width, on: day, known: 'measured', from, by }];
	const each = (
		pick: (ball: { width: number; depth: number | null }) => number | null,
		size: Guessable
	): Said<number>[] => [
		...records.lifts.flatMap(({ id, log }) =>
			log
				? said(
						pick({ width: log.ballDiameterMm, depth: log.ballDepthMm }),
						log.liftedOn,
						{ record: 'lift', id },
						'as lifted'
					).map((ball): Said<number> =>
						log.assumed.some((one) => one === size)
							? { ...ball, known: 'assumed', by: 'as its lift was planned' }
							: ball
					)
				: []
		),
		...(rootMap?.frame === 'container' && rootMap.segments.length > 0
			? said(
					pick({ width: rootMap.ballRadiusMm * 2, depth: rootMap.ballDepthMm }),
					rootMap.mappedOn,
					{ record: 'root-map', id: rootMap.id },
					'as mapped'
				).map((ball): Said<number> =>
					size === 'ballDiameterMm' &&
					rootMap.ballRadiusMm === guessedRadiusMm({ ...records.tree, situation: 'potted' })
						? { ...ball, known: 'assumed' }
						: ball
				)
			: []),
		...records.plantings.flatMap((one) =>
			said(
				pick({ width: one.ballDiameterMm, depth: one.ballDepthMm }),
				one.plantedOn,
				{ record: 'planting', id: one.id },
				'as planted'
			).map((ball): Said<number> =>
				(one.assumed ? one.assumed.includes(size) : one.ballDiameterMm === guess)
					? { ...ball, known: 'assumed' }
					: ball
			)
		),
		...records.groundPlans.flatMap((one) =>
			one.doneOn && one.hole
				? said(
						pick({ width: one.hole.ballDiameterMm, depth: one.hole.ballDepthMm }),
						one.doneOn,
						{ record: 'ground-works', id: one.id },
						'as planted'
					)
				: []
		)
	];
	let widths = each((ball) => ball.width, 'ballDiameterMm');
	let depths = each((ball) => ball.depth, 'ballDepthMm');
	for (const entry of [...records.book].sort((a, b) => a.on.localeCompare(b.on))) {
		if (entry.kind !== 'ball-sliced' && entry.kind !== 'ball-shaved') continue;
		// Of one day the ball is set after it was worked on, with the size it has then.
		const before = {
			widthMm: newest(widths, entry.on, within(0.15)).value,
			depthMm: newest(depths, entry.on, within(0.2)).value
		};
		const after = ballAfter(entry, { widthMm: before.widthMm ?? 0, depthMm: before.depthMm ?? 0 });
		const setThen = records.plantings.some((one) => one.plantedOn === entry.on);
		const add = (list: Said<number>[], was: number | null, is: number): Said<number>[] =>
			was === null || was === is || setThen
				? list
				: [
						...list,
						{
							value: is,
							on: entry.on,
							known: 'worked-out',
							from: { record: 'book', id: entry.id },
							by: entry.kind === 'ball-sliced' ? 'sliced' : 'shaved'
						}
					];
		widths = add(widths, before.widthMm, after.widthMm);
		depths = add(depths, before.depthMm, after.depthMm);
	}
	return {
		ballWidthMm: newest(widths, on, within(0.15)),
		ballDepthMm: newest(depths, on, within(0.2))
	};
}

/** What is worked out from a measured ball and what was taken off it outranks that measure, being later. */
function newest(
	said: readonly Said<number>[],
	on: string,
	same: (a: number, b: number) => boolean
): Fact<number> {
	const known = inOrder(said).filter((one) => one.on <= on);
	const fact = latest(known, on, same);
	const worked = known.findLast((one) => one.known === 'worked-out');
	if (!worked || (fact.on !== null && fact.on > worked.on)) return fact;
	return { ...latest([worked], on, same), against: [] };
}

/** The ball to reckon work on it with: as it stood on a day, or as one of its trunk usually is. */
export function ballToWork(
	records: BallRecords,
	on: string,
	values: Values
): { widthMm: number; depthMm: number } {
	const { ballWidthMm, ballDepthMm } = ballOf(records, on, values);
	const widthMm = ballWidthMm.value ?? records.tree.trunkDiameterMm * values['lifting.trunks-least'];
	return { widthMm, depthMm: ballDepthMm.value ?? widthMm * values['pot.ballDepthShare'] };
}
