import { driedTo } from '../aftercare/water/pot-state';
import { groundDay, potDay, type GroundWater, type PotStores, type PotWater } from '../replant/pots/balance';
import { rootedIn } from '../replant/pots/stores';
import type { Future } from './futures';
import type { PlayedValues } from './played-values';
import type { RehearsalScene, ScenePot } from './scene';

const within = (low: number, value: number, high: number): number => Math.min(high, Math.max(low, value));

/** A pot or the ground as it dries and is filled, day by day. */
export class Holder {
	/** How dry it is, 0 drained … 1 dry, and water that is missing to full, L or mm. */
	dryness = 0;
	missing = 0;
	/** Air that the mix keeps when it has drained, and water it takes up, shares of its volume. */
	airSpace = 1;
	held = 0;
	private stores: PotStores | null = null;
	private pot: PotWater = { rootedL: 0, unrootedL: 0 };
	private ground: GroundWater = { ballMm: 0, backfillMm: 0 };

	constructor(
		private readonly scene: Pick<RehearsalScene, 'ground'>,
		private readonly future: Pick<Future, 'demand' | 'holds'>,
		pot: ScenePot | null,
		dryness: number,
		/** Of the air of its mix so much is left. */
		air: number
	) {
		if (pot) {
			this.into(pot, dryness);
			this.airSpace *= air;
		} else if (scene.ground) {
			const { ballMm, backfillMm } = scene.ground;
			this.groundIs({ ballMm: ballMm * (1 - dryness), backfillMm: backfillMm * (1 - dryness) });
		}
	}

	/** The same pot or ground, to be played on its own from here. */
	copy(): Holder {
		const same = new Holder(this.scene, this.future, null, 0, 1);
		same.stores = this.stores;
		same.airSpace = this.airSpace;
		same.held = this.held;
		same.pot = this.pot;
		same.ground = this.ground;
		same.dryness = this.dryness;
		same.missing = this.missing;
		return same;
	}

	/** Into another pot, its mix as dry as said. */
	into(pot: ScenePot, dryness: number): void {
		this.stores = {
			rootedMostL: pot.rootedMostL * this.future.holds,
			unrootedMostL: pot.unrootedMostL * this.future.holds,
			surfaceM2: pot.surfaceM2,
			crownM2: pot.crownM2 * this.future.demand
		};
		this.airSpace = pot.airSpace;
		this.held = pot.held;
		this.potIs(driedTo(dryness, this.stores), dryness);
	}

	private potIs(water: PotWater, dryness: number): void {
		this.pot = water;
		this.dryness = dryness;
		if (this.stores)
			this.missing = this.stores.rootedMostL + this.stores.unrootedMostL - water.rootedL - water.unrootedL;
	}

	private groundIs(water: GroundWater): void {
		const most = this.scene.ground?.ballMm ?? 1;
		this.ground = water;
		this.dryness = within(0, 1 - water.ballMm / most, 1);
		this.missing = most - water.ballMm;
	}

	/** One day. @param crown share of its crown that asks for water; `pours` share of the missing water that is poured */
	day(
		day: { on: string; et0Mm: number; rainMm: number },
		{ roots, inLeaf, crown, pours }: { roots: number; inLeaf: boolean; crown: number; pours: number },
		values: PlayedValues
	): void {
		const poured = pours * this.missing;
		if (this.stores) {
			const stores = crown === 1 ? this.stores : { ...this.stores, crownM2: this.stores.crownM2 * crown };
			const after = potDay(
				this.pot,
				stores,
				{ day, rootFunction: roots, inLeaf, irrigationL: poured },
				values
			);
			this.potIs(after.water, after.dryness);
			return;
		}
		const { ground } = this.scene;
		if (!ground) return;
		const stores = { ...ground, crownRatio: ground.crownRatio * crown * this.future.demand };
		this.groundIs(
			groundDay(this.ground, stores, { day, rootFunction: roots, inLeaf, irrigationMm: poured }, values).water
		);
	}

	/** Roots grow into the mix; the water there becomes theirs. */
	rootIn(degreeDays7: number, values: PlayedValues): void {
		const { stores, pot } = this;
		if (!stores || degreeDays7 <= 0 || stores.unrootedMostL <= 0) return;
		this.stores = rootedIn(stores, degreeDays7, values);
		const moved = (pot.unrootedL * (this.stores.rootedMostL - stores.rootedMostL)) / stores.unrootedMostL;
		this.pot = { rootedL: pot.rootedL + moved, unrootedL: pot.unrootedL - moved };
	}
}
