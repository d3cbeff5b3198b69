import { ballAfter } from '../aftercare/book/effects';
import type { TreeRecords } from './case';
import { guessedRadiusMm } from '../roots/map/root-map';
import type { Values } from '../values/values';
import type { BookEntry } from '../aftercare/book/book';
import { inOrder, latest, ref, say, within, type Fact, type Said } from './fact';

export interface BallFacts {
	ballWidthMm: Fact<number>;
	ballDepthMm: Fact<number>;
}

type BallRecords = Pick<TreeRecords, 'tree' | 'rootMap' | 'lifts' | 'plantings' | 'groundPlans' | 'book'> &
	Partial<Pick<TreeRecords, 'triages'>>;

/** One ball: as it was last measured, lifted, mapped or set, and what was sliced or shaved off it since. */
export function ballOf(records: BallRecords, on: string, values: Values): BallFacts {
	const alike = {
		widths: within(values['standing.sameSize']),
		depths: within(values['standing.sameBallDepth'])
	};
	const newestOf = (of: Sizes, day: string): BallFacts => ({
		ballWidthMm: newest(of.widths, day, alike.widths, values),
		ballDepthMm: newest(of.depths, day, alike.depths, values)
	});
	let sizes: Sizes = {
		widths: sizesGiven(records, 'ballDiameterMm', values),
		depths: sizesGiven(records, 'ballDepthMm', values)
	};
	for (const entry of [...records.book].sort((a, b) => a.on.localeCompare(b.on)))
		if (entry.kind === 'ball-sliced' || entry.kind === 'ball-shaved')
			// Of one day the ball is set after it was worked on, with the size it has then.
			if (!records.plantings.some((one) => one.plantedOn === entry.on))
				sizes = workedOn(sizes, newestOf(sizes, entry.on), entry);
	return newestOf(sizes, on);
}

interface Sizes {
	widths: Said<number>[];
	depths: Said<number>[];
}

/** What records say of its width or depth; as a form suggested it, nobody measured it. */
function sizesGiven(
	records: BallRecords,
	size: 'ballDiameterMm' | 'ballDepthMm',
	values: Values
): Said<number>[] {
	const { rootMap } = records;
	const wide = size === 'ballDiameterMm';
	// The size that the form suggests from the trunk; left so, nobody measured it.
	const guess = Math.round(records.tree.trunkDiameterMm * values['lifting.trunks-least']);
	const mapped = rootMap && (wide ? rootMap.ballRadiusMm * 2 : rootMap.ballDepthMm);
	// A map begins with the ball as it was lifted; left so, it says nothing new.
	const asLifted = records.lifts.some(
		({ log }) => log && mapped !== null && Math.abs(log[size] - mapped) < 1
	);
	return [
		// Meant and not yet dug: nothing more than a plan.
		...(records.tree.situation === 'in-ground'
			? [
					...(records.triages ?? []).flatMap((one) =>
						one.purpose === 'lift'
							? say(one[size], one.decidedOn, 'assumed', ref('decision', one), 'as meant before the work')
							: []
					),
					...records.lifts.flatMap((one) =>
						one.log
							? []
							: say(one[size], one.plannedOn, 'assumed', ref('lift', one), 'as its lift is planned')
					)
				]
			: []),
		...records.lifts.flatMap(({ id, log }) => {
			if (!log) return [];
			const asPlanned = log.assumed.some((one) => one === size);
			return say(
				log[size],
				log.liftedOn,
				asPlanned ? 'assumed' : 'measured',
				{ record: 'lift', id },
				asPlanned ? 'as its lift was planned' : 'as lifted'
			);
		}),
		...(rootMap?.frame === 'container' && rootMap.segments.length > 0 && !asLifted
			? say(
					mapped,
					rootMap.mappedOn,
					wide && rootMap.ballRadiusMm === guessedRadiusMm({ ...records.tree, situation: 'potted' })
						? 'assumed'
						: 'measured',
					ref('root-map', rootMap),
					'as mapped'
				)
			: []),
		...records.plantings.flatMap((one) =>
			say(
				one[size],
				one.plantedOn,
				(one.assumed ? one.assumed.includes(size) : one.ballDiameterMm === guess) ? 'assumed' : 'measured',
				ref('planting', one),
				'as planted'
			)
		),
		...records.groundPlans.flatMap((one) =>
			one.doneOn && one.hole
				? say(one.hole[size], one.doneOn, 'measured', ref('ground-works', one), 'as planted')
				: []
		)
	];
}

/** Its size after work on it, beside what was said before; nothing where its size was not known or did not change. */
function workedOn(sizes: Sizes, before: BallFacts, entry: BookEntry): Sizes {
	const [wasWide, wasDeep] = [before.ballWidthMm.value, before.ballDepthMm.value];
	const after = ballAfter(entry, { widthMm: wasWide ?? 0, depthMm: wasDeep ?? 0 });
	const add = (list: Said<number>[], was: number | null, is: number): Said<number>[] =>
		was === null || was === is
			? list
			: [
					...list,
					...say(
						is,
						entry.on,
						'worked-out',
						ref('book', entry),
						entry.kind === 'ball-sliced' ? 'sliced' : 'shaved'
					)
				];
	return {
		widths: add(sizes.widths, wasWide, after.widthMm),
		depths: add(sizes.depths, wasDeep, after.depthMm)
	};
}

/** What is worked out from a measured ball and what was taken off it outranks that measure, being later. */
function newest(
	said: readonly Said<number>[],
	on: string,
	same: (a: number, b: number) => boolean,
	values: Values
): Fact<number> {
	const known = inOrder(said).filter((one) => one.on <= on);
	const days = values['standing.sameTimeDays'];
	const fact = latest(known, on, days, same);
	const worked = known.findLast((one) => one.known === 'worked-out');
	if (!worked || (fact.on !== null && fact.on > worked.on)) return fact;
	return { ...latest([worked], on, days, same), against: [] };
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
