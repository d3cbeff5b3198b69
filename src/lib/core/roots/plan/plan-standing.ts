import type { Kind } from '../../vocabulary/kind';
import { seasonFit, type SeasonFit } from '../../climate/windows';
import type { PlaceClimate } from '../../climate/normals';
import type { Tree } from '../../take-in/tree';
import type { Values } from '../../values/values';
import { allowance, allowanceGroup, type Allowance, type AllowanceGroup } from './allowance';
import { ledger, type Ledger, type LedgerMap } from './ledger';
import type { PlanInput } from './plan';

export interface PlanStanding {
	group: AllowanceGroup;
	/** Allowance of each stage, by the season its date falls in. */
	allowances: Allowance[];
	fits: SeasonFit[];
	ledger: Ledger;
}

/** Everything the ledger shows for a map and a plan of one tree at its place. */
export function planStanding(
	{ tree, kind }: { tree: Pick<Tree, 'situation' | 'trunkDiameterMm'>; kind: Kind },
	place: PlaceClimate,
	map: LedgerMap,
	plan: Pick<PlanInput, 'temper' | 'vigour' | 'reserves' | 'stageDates' | 'cuts'>,
	values: Values
): PlanStanding {
	const group = allowanceGroup(kind.group, tree.situation, tree.trunkDiameterMm, values);
	const fits = plan.stageDates.map((date) => seasonFit(kind, place, date, values));
	const allowances = fits.map((fit) =>
		allowance(
			{ group, temper: plan.temper, vigour: plan.vigour, reserves: plan.reserves, seasonFit: fit },
			values
		)
	);
	const active = plan.cuts.filter((cut) => cut.state !== 'left');
	return {
		group,
		allowances,
		fits,
		ledger: ledger(
			map,
			active,
			allowances.map((a) => a.share),
			values
		)
	};
}
