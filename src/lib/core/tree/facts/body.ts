import { usualCrownWidthMm } from '../../replant/pots/demand';
import { ref, say, within, type Fact, type Said } from '../fact';
import { latestWord, type Sayings } from './said';

/** Its size, how it leans and which way it faces. */
export interface BodyFacts {
	trunkMm: Fact<number>;
	heightMm: Fact<number>;
	crownWidthMm: Fact<number>;
	/** Share of the leaf area that was last cut or burnt off. */
	crownTaken: Fact<number>;
	lean: Fact<{ towardDeg: number; deg: number }>;
	/** How far it was tilted when it was last set, as somebody saw it. */
	tiltDeg: Fact<number>;
	/** Side that the light comes from. */
	lightDeg: Fact<number>;
}

/** Sizes and body of a tree: trunk, height, crown, ball, pot and weight. */
export function bodyFacts(sayings: Sayings): BodyFacts {
	const { records, booked, fact, taps, values } = sayings;
	const { tree, rootMap } = records;
	const ofTree = ref('tree', tree);
	return {
		trunkMm: fact<number>(
			[
				...say(tree.trunkDiameterMm, tree.takenInOn, 'measured', ofTree, 'taking in'),
				...(rootMap && rootMap.segments.length > 0
					? say(rootMap.trunkDiameterMm, rootMap.mappedOn, 'measured', ref('root-map', rootMap), 'root map')
					: [])
			],
			within(values['standing.sameTrunk'])
		),
		heightMm: fact<number>(
			[
				...say(
					tree.heightM === null ? null : tree.heightM * 1000,
					tree.takenInOn,
					'seen',
					ofTree,
					'taking in'
				),
				...booked('crown-cut', ({ heightMm }) => heightMm),
				...booked('stem-sawn', ({ heightMm }) => heightMm),
				...taps.flatMap((one) =>
					say(one.raw.heightMm, one.on, 'measured', ref('measurement', one), 'scratch and tap')
				)
			],
			within(values['standing.sameSize'])
		),
		crownWidthMm: fact<number>([
			...crownWidths(sayings),
			...say(
				usualCrownWidthMm(tree, values),
				tree.takenInOn,
				'assumed',
				ofTree,
				tree.heightM === null ? 'from its trunk' : 'from its height'
			)
		]),
		crownTaken: fact<number>(
			[
				...booked('crown-cut', ({ share, choice }) => (choice === 'dead' ? null : share)),
				...booked('crown-burnt', ({ share }) => share)
			],
			latestWord
		),
		lean: fact<{ towardDeg: number; deg: number }>(
			[
				...(rootMap
					? say(rootMap.lean, rootMap.mappedOn, 'measured', ref('root-map', rootMap), 'root map')
					: []),
				...booked('leans', ({ bearingDeg, leanDeg }) =>
					bearingDeg === null || leanDeg === null ? null : { towardDeg: bearingDeg, deg: leanDeg }
				)
			],
			(a, b) => Math.abs(a.deg - b.deg) <= values['standing.sameLeanDeg']
		),
		tiltDeg: fact<number>(
			records.plantings.flatMap((one) =>
				say(one.seat?.tiltDeg, one.plantedOn, 'measured', ref('planting', one), 'planting')
			),
			latestWord
		),
		lightDeg: fact<number>(
			[
				...booked('light-from', ({ bearingDeg }) => bearingDeg),
				...booked('turned', ({ bearingDeg }) => bearingDeg)
			],
			latestWord
		)
	};
}

/** Crown widths given with plantings: as the form suggested it, nobody measured it. */
const crownWidths = ({ records, values }: Sayings): Said<number>[] =>
	records.plantings.flatMap((one) =>
		say(
			one.crownWidthMm,
			one.plantedOn,
			(
				one.assumed
					? one.assumed.includes('crownWidthMm')
					: one.crownWidthMm === Math.round(usualCrownWidthMm(records.tree, values))
			)
				? 'assumed'
				: 'seen',
			ref('planting', one),
			'planting'
		)
	);
