import { grownBy } from '../aftercare/water/regrowth';
import type { Future } from './futures';
import type { Hands } from './hands';
import { Holder } from './holder';
import type { PlayedValues } from './played-values';
import type { PlayedWork, Prepared } from './prepared';
import type { RehearsalScene } from './scene';

/** What can kill a tree, in the order in which it is told. */
export const causes = ['drowned', 'dried', 'frost', 'scorched', 'roots', 'rot', 'girdled'] as const;
export type Cause = (typeof causes)[number];
/** Roots are let into the mix each time so much warmth has come together, degree days. */
const ROOTS_IN_FROM = 100;
const at = Object.fromEntries(causes.map((cause, i) => [cause, i])) as Record<Cause, number>;

const within = (low: number, value: number, high: number): number => Math.min(high, Math.max(low, value));

/** Roots and their pot: twice of one tree, so that fewer roots never spare it a drought. */
interface Side {
	holder: Holder;
	phi: number;
}

/** What a day does, as log-odds of coming through by cause, and whether somebody came. */
export interface PlayedDay {
	on: string;
	minC: number;
	maxC: number;
	et0Mm: number;
	rainMm: number;
}

/**
 * A tree played day by day through a future under a plan: its water, warmth and roots, and what each day costs it of its chance. The
 * parts are those of the rest of Bruntle: the balance of its pot, regrowth by warmth, its limits of cold and heat, losses of root.
 */
export class PlayedTree {
	/** Log-odds that were lost by cause since the start; rot that is cut out gives some back. */
	readonly odds = new Float64Array(causes.length);
	/** Times that somebody watered, and covered it or carried it in. */
	waterings = 0;
	covered = 0;
	/** Root function, and what is left of its crown. */
	crown = 1;
	private readonly tree: Side;
	/** The same tree with none of the plan’s cuts. */
	private whole: Side | null = null;
	private rot: number;
	private girdled: number;
	private wetRun = 0;
	private dryRun = 0;
	private warmth = 0;
	/** Nights since it was last under cover that were not too cold for it. */
	private mildNights = Infinity;
	private airless = 0;
	private readonly wantsAir: number;
	private readonly dryFrom: number;
	/** How fast its roots grow, against the usual. */
	private readonly pace: number;

	constructor(
		private readonly scene: RehearsalScene,
		private readonly to: Pick<Prepared, 'pot' | 'inLeaf' | 'coldC' | 'heldC'>,
		private readonly hands: Hands,
		future: Pick<Future, 'demand' | 'holds' | 'airless' | 'rot' | 'pace'>,
		roots: number,
		private readonly values: PlayedValues
	) {
		const { wetnessTrigger: trigger } = scene;
		this.pace = future.pace;
		this.tree = {
			holder: new Holder(
				scene,
				future,
				to.pot,
				scene.dryness,
				future.airless ? values['rehearse.collapsedAir'] : 1
			),
			phi: Math.max(values['forecast.leastRoots'], roots)
		};
		this.rot = future.rot ? 1 : 0;
		this.girdled = scene.girdled;
		this.wantsAir = values['rehearse.airLeast'] + values['rehearse.airByTrigger'] * trigger;
		this.dryFrom = trigger + (1 - trigger) * values['rehearse.dryFrom'];
	}

	/** Root function now, 0 … 1. */
	get phi(): number {
		return this.tree.phi;
	}
	/** How dry it is now, 0 drained … 1 dry. */
	get dryness(): number {
		return this.tree.holder.dryness;
	}
	/** Days on end that its roots have had too little air, and too little water. */
	get wetDays(): number {
		return this.wetRun;
	}
	get dryDays(): number {
		return this.dryRun;
	}
	/** Rot that is left in it, and girdling, 0 … 1. */
	get rotLeft(): number {
		return this.rot;
	}
	get girdlingLeft(): number {
		return this.girdled;
	}

	/**
	 * Something that its days and its water do not tell of.
	 * @param odds log-odds, negative
	 * @param eats share of its living root
	 */
	bear(cause: Cause, odds: number, eats = 0): void {
		this.harm(cause, odds);
		this.die(eats);
	}

	private harm(cause: Cause, odds: number): void {
		this.odds[at[cause]] = (this.odds[at[cause]] ?? 0) + odds;
	}

	/** Roots that die by something, on both sides. @param share of what lives */
	private die(share: number): void {
		if (share <= 0) return;
		const least = this.values['forecast.leastRoots'];
		this.tree.phi = Math.max(least, this.tree.phi * (1 - Math.min(1, share)));
		if (this.whole) this.whole.phi = Math.max(least, this.whole.phi * (1 - Math.min(1, share)));
	}

	/** Work at the roots: what it costs, and what it does away with. */
	private work(work: PlayedWork): void {
		const { values } = this;
		// From its first cut on the tree is played beside itself, uncut.
		if (work.share > 0) this.whole ??= { holder: this.tree.holder.copy(), phi: this.tree.phi };
		this.harm('roots', values['forecast.lossOdds'] * work.share + work.seasonOdds);
		this.tree.phi = Math.max(values['forecast.leastRoots'], this.tree.phi * (1 - work.share));
		if (this.rot > 0 && work.rot > 0) {
			this.harm('rot', -values['triage.rot'] * values['rehearse.rotBack'] * this.rot * work.rot);
			this.rot *= 1 - work.rot;
		}
		this.girdled *= 1 - work.girdles;
		if (this.hands.balances) {
			const fed = this.tree.phi * values['crown.reserve'];
			this.crown = Math.max(1 - values['crown.takeMost'], Math.min(this.crown, fed));
		}
		const fleshy = this.scene.group === 'succulent';
		if (fleshy && this.hands.restUntil < work.day + values['rehearse.callusDays'])
			this.harm('rot', values['rehearse.callusOdds'] * Math.min(1, work.share / values['rehearse.seasonAt']));
	}

	/** Plays one day of the rehearsal, from 0 on. */
	day(day: number, weather: PlayedDay): void {
		const { to, values, tree, hands } = this;
		for (const work of hands.works(day, tree.phi)) this.work(work);
		const { whole } = this;
		const planted = hands.replants(day);
		if (planted) {
			this.harm('roots', planted.odds);
			tree.holder.into(planted.pot, planted.dryness);
			whole?.holder.into(planted.pot, planted.dryness);
		}
		const inLeaf = to.inLeaf[day] === 1;
		const shaded = hands.shades(day);
		const et0Mm = weather.et0Mm * (shaded ? values['rehearse.shadeDemand'] : 1);
		const demand = { on: weather.on, et0Mm, rainMm: weather.rainMm };

		const before = tree.holder.dryness;
		const pours = hands.pours(day, before);
		if (pours > 0) {
			this.waterings++;
			hands.poured(day);
		}
		const crown = this.crown;
		tree.holder.day(demand, { roots: tree.phi, inLeaf, crown, pours }, values);
		if (whole) {
			const own = hands.byTheCalendar ? pours : hands.pours(day, whole.holder.dryness);
			whole.holder.day(demand, { roots: whole.phi, inLeaf, crown: 1, pours: own }, values);
		}
		const meanC = (weather.minC + weather.maxC) / 2;
		const dry = this.drought(et0Mm, inLeaf);
		const airless = this.drowning(meanC);
		this.cold(day, weather.minC);
		this.heat(weather.maxC - (shaded ? values['rehearse.shadeCools'] : 0), et0Mm, inLeaf);
		this.grow(meanC, { dry, airless, shaded });
	}

	/** What dryness does. @returns how dry it is beyond what it bears, 0 … 1 */
	private drought(et0Mm: number, inLeaf: boolean): number {
		const { values } = this;
		const beyond = (side: Side): number =>
			within(0, (side.holder.dryness - this.dryFrom) / Math.max(0.01, 1 - this.dryFrom), 1);
		const own = beyond(this.tree);
		const dry = this.whole ? Math.max(own, beyond(this.whole)) : own;
		this.dryRun = dry > 0 ? this.dryRun + 1 : 0;
		if (this.dryRun > values['rehearse.dryDays']) {
			const asks = inLeaf
				? Math.min(2, et0Mm / values['rehearse.usualDayMm'])
				: values['rehearse.leaflessDry'];
			this.harm('dried', values['rehearse.dryOdds'] * dry * asks);
			this.die(values['rehearse.dryEats'] * dry * asks);
		}
		return dry;
	}

	/** What lack of air does. @returns how far air is lacking after the days that roots bear, 0 … 1 */
	private drowning(meanC: number): number {
		const { values } = this;
		const { holder } = this.tree;
		const air = holder.airSpace + holder.dryness * holder.held;
		const lack = within(0, (this.wantsAir - air) / this.wantsAir, 1);
		this.airless = lack;
		this.wetRun = lack > 0 ? this.wetRun + 1 : 0;
		if (this.wetRun <= values['rehearse.wetDays']) return 0;
		const cold = values['rehearse.wetColdC'];
		const warm = within(0, (meanC - cold) / Math.max(1, values['rehearse.wetWarmC'] - cold), 1.5);
		this.harm('drowned', values['rehearse.wetOdds'] * lack * warm);
		this.die(values['rehearse.wetEats'] * lack * warm);
		return lack;
	}

	/** What a cold night does, where nobody covers it or carries it in. */
	private cold(day: number, minC: number): void {
		const { values, to } = this;
		const limitC = to.coldC[day] ?? -Infinity;
		let here = minC;
		if (here >= limitC) this.mildNights++;
		else {
			// Who has carried it in leaves it there as long as nights stay cold.
			const isIn = this.mildNights < values['rehearse.outAgain'];
			const carried = this.hands.carries(day, isIn);
			if (carried && !isIn) this.covered++;
			if (carried) {
				this.mildNights = 0;
				here = Math.max(here + values['shelter.greenhouseC'], to.heldC);
			}
		}
		const under = limitC - here;
		if (under <= 0) return;
		this.harm('frost', Math.max(values['rehearse.coldMost'], values['rehearse.coldOdds'] * under));
		this.die(Math.min(0.5, values['rehearse.coldEats'] * under));
	}

	/** What heat does, and a crown that its roots cannot feed. */
	private heat(maxC: number, et0Mm: number, inLeaf: boolean): void {
		if (!inLeaf) return;
		const { values } = this;
		const few = this.tree.phi < values['rootFunction.few'];
		const unfed = this.crown - this.tree.phi * values['crown.reserve'];
		// Leaves that are fed cool themselves.
		if (unfed <= 0) return;
		const over = maxC - (few ? values['guard.freshHeatC'] : values['guard.heatC']);
		if (over > 0) this.harm('scorched', values['rehearse.heatOdds'] * over * unfed);
		const shortMm = et0Mm * values['water.crownFactor'] * unfed - values['rehearse.leafBearsMm'];
		if (shortMm > 0) this.harm('roots', values['rehearse.thirstOdds'] * shortMm);
	}

	/** Roots grow by warmth, slower where they are dry, without air or fed by a small crown. */
	private grow(
		meanC: number,
		{ dry, airless, shaded }: { dry: number; airless: number; shaded: boolean }
	): void {
		const { values, tree, whole } = this;
		const warm = Math.max(0, meanC - values['degreeDays.rootBaseC']);
		if (warm === 0) return;
		const toward = (share: number, worst: number): number => 1 - share * (1 - worst);
		const pace =
			this.pace *
			toward(dry, values['rehearse.dryGrows']) *
			toward(airless, values['rehearse.wetGrows']) *
			(shaded ? 1 - values['rehearse.shadeSlows'] : 1);
		const left = (by: number): number => Math.exp(-values['rootFunction.perDegreeDay'] * warm * by);
		const slowed = pace * (1 - values['rehearse.crownSlows'] * (1 - this.crown));
		tree.phi = grownBy(tree.phi, left(slowed));
		if (!whole) return;
		whole.phi = grownBy(whole.phi, left(pace));
		tree.phi = Math.min(tree.phi, whole.phi);
	}

	/** What goes by the week: rot, girdling, the crown that grows back, roots into the mix. */
	week(seasons: number, degreeDays7: number): void {
		const { values } = this;
		if (this.rot > 0) {
			const faster = 1 + values['rehearse.rotWet'] * this.airless;
			this.harm('rot', values['rehearse.rotOdds'] * this.rot * seasons * faster);
			this.die(values['rehearse.rotEats'] * this.rot * seasons * faster);
		}
		if (this.girdled > 0) this.harm('girdled', values['rehearse.girdledOdds'] * this.girdled * seasons);
		if (this.crown < 1) this.crown = 1 - (1 - this.crown) * Math.exp(-values['forecast.crownPace'] * seasons);
		this.warmth += degreeDays7;
		if (this.warmth < ROOTS_IN_FROM) return;
		this.tree.holder.rootIn(this.warmth, values);
		this.whole?.holder.rootIn(this.warmth, values);
		this.warmth = 0;
	}
}
