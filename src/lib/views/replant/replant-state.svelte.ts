import { aliveOf } from '$core/tree/lot';
import { newShootsOn } from '$core/climate/cold-limit';
import type { TreeRecords } from '$core/tree/case';
import { addDays } from '$core/maths/calendar';
import type { Place } from '$core/vocabulary/place';
import { siteCheck, siteVerdict } from '$core/replant/ground/site-check';
import { kitList } from '$core/replant/kit/kit';
import type { Kind } from '$core/vocabulary/kind';
import { bodyOf, newMix, type MixHistory, type PottingMix } from '$core/replant/mixes/bench-test';
import { componentOf, type ComponentId } from '$core/replant/mixes/components';
import { mixIds, mixOf, pottingMixOf, usualMix } from '$core/replant/mixes/mixes';
import { waterAndAir } from '$core/replant/mixes/retention';
import { ballOfMap, ballOfSizes, fitInPot } from '$core/replant/pots/fit';
import { judgePot, proposePots, rankPots, type PotQuestion } from '$core/replant/pots/rank';
import {
	sizeAdvice,
	type Guessable,
	type Planting,
	type ReplantPlanInput,
	type SizeRule
} from '$core/replant/pots/replant-plan';
import { extraHoles, heldWind, wireHoles, wiresOver, type Holding, type Seat } from '$core/replant/pots/seat';
import { asPot, type Pot, type PotShape, roundPot } from '$core/replant/pots/volume';
import { crownOf } from '$core/replant/pots/wind';
import { isEvidence, type Fact } from '$core/tree/fact';
import { packedSeenOn } from '$core/tree/looks';
import { woundedOn, type LastWork } from '$core/tree/losses';
import { amountsInPot, filledFor, ofThePot, othersInPot } from '$core/tree/shared-pot';
import { asksForDryRest, type Urgent } from '$core/tree/urgent';
import { standingOf } from '$core/tree/standing';
import type { OwnMix, StockItem, StockPot } from '$core/replant/kit/stock';
import { usualWaterSchool } from '$core/aftercare/crown/crown';
import type { WaterSchool } from '$core/vocabulary/words';
import type { Values } from '$core/values/values';
import { usualCrownWidthMm } from '$core/replant/pots/demand';
import { daysAhead, type DryDay } from '$core/replant/pots/dry-down';
import { leavesBorne, treeDemand } from '$core/tree/tree-demand';
import type { SeriesDay } from '$core/climate/series';

export interface ReplantOf {
	records: TreeRecords;
	kind: Kind;
	/** All places of the yard. */
	places: Place[];
	values: Values;
	today: string;
	lastWork: LastWork | null;
	goneRoots: string[];
	stock: { pots: StockPot[]; items: StockItem[]; mixes: OwnMix[] };
	/** Days ahead that are known, by place. */
	near: Record<string, SeriesDay[]>;
	/** Root function by its weighings; null where it was not weighed. */
	weighedFunction: number | null;
	/** What the last look says to act on now. */
	urgent: Urgent | null;
}

type Sizes = Omit<Pot, 'shape'>;
const sizesOf = ({ shape: _shape, ...sizes }: Pot): Sizes => sizes;

/** A planting while it is planned: what is chosen, and all that follows from it. */
export class ReplantState {
	/** Read anew after each save. */
	of = $state.raw() as ReplantOf;

	ballDiameterMm = $state(0);
	ballDepthMm = $state(0);
	crownWidthMm = $state(0);
	/** Sizes that nobody measured: suggested, and not touched since. */
	assumed = $state.raw<ReadonlySet<Guessable>>(new Set());
	/** Where its ball is known from; null where its size is a guess from the trunk, or was planned. */
	ballKnown = $state.raw<Fact<number> | null>(null);
	/** How its ball was meant, where nobody measured it: before the work, or by the plan of its lift; null where nobody said. */
	meantBall = $state.raw<{ by: string; on: string } | null>(null);
	/** Day on which its roots were seen to be packed; null where nobody saw it. */
	packedSeenOn = $state.raw<string | null>(null);
	packed = $state(false);
	ballFrom = $state<'sizes' | 'map'>('sizes');

	shape = $state<PotShape>('round');
	sizes = $state<Sizes>({ topLengthMm: 0, topWidthMm: 0, bottomLengthMm: 0, bottomWidthMm: 0, heightMm: 0 });
	stockPotId = $state<string | null>(null);
	sizeRule = $state<SizeRule | ''>('');
	school = $state<'larger' | 'same'>('larger');

	mix = $state.raw<PottingMix>(pottingMixOf('pumice-bark'));
	history = $state<MixHistory>(newMix.history);
	because = $state('');
	coarseLayerMm = $state(0);
	coarseId = $state<ComponentId>('grit-coarse');
	topLayerMm = $state(0);
	topId = $state<ComponentId | null>(null);
	headspaceMm = $state(0);

	seat = $state<Omit<Seat, 'wires' | 'pads'>>({
		height: 'below-rim',
		flareOverRimMm: 0,
		moundMm: 0,
		screens: 1,
		extraHoles: 0,
		holeMm: 25,
		pockets: 'stick',
		firming: 'loose',
		holding: 'own-stance',
		stones: 0,
		stoneKg: 0,
		tiltDeg: null,
		tiltTowardDeg: null,
		offOn: null
	});
	wireCount = $state(3);
	waterSchool = $state<WaterSchool>('at-once');
	takeFromStock = $state(false);

	plantedOn = $state('');
	placeId = $state('');
	note = $state('');

	constructor(of: ReplantOf) {
		this.of = of;
		const { records, values, today, lastWork, kind } = of;
		const kept = records.replantPlan;
		// What was planted for a mate in the same pot is the pot of this tree too; how wide its crown is only its own says.
		const own = kept?.planting ?? records.plantings.at(-1);
		const last: Planting | ReplantPlanInput['planting'] | undefined =
			kept?.planting ?? ofThePot(records).plantings.at(-1);
		const { tree } = records;
		// One ball: as it was last lifted, mapped or set; a plan that was kept since goes before it.
		const stands = standingOf(records, today, values);
		const sinceKept = (fact: Fact<number>): boolean =>
			kept === null || (fact.on !== null && fact.on > kept.planting.plantedOn);
		const width = sinceKept(stands.ballWidthMm) ? stands.ballWidthMm.value : null;
		const depth = sinceKept(stands.ballDepthMm) ? stands.ballDepthMm.value : null;
		this.ballKnown = width === null || !isEvidence(stands.ballWidthMm.known) ? null : stands.ballWidthMm;
		const { by, on, from } = stands.ballWidthMm;
		this.meantBall =
			width !== null &&
			this.ballKnown === null &&
			on !== null &&
			(from?.record === 'decision' || from?.record === 'lift')
				? { by, on }
				: null;
		const guessed = new Set<Guessable>(
			kept?.planting.assumed ?? [
				...(isEvidence(stands.ballWidthMm.known) ? [] : (['ballDiameterMm'] as const)),
				...(isEvidence(stands.ballDepthMm.known) ? [] : (['ballDepthMm'] as const)),
				...(isEvidence(stands.crownWidthMm.known) ? [] : (['crownWidthMm'] as const)),
				...(last && !last.assumed?.includes('pot') ? [] : (['pot'] as const))
			]
		);
		if (width !== null && isEvidence(stands.ballWidthMm.known)) guessed.delete('ballDiameterMm');
		if (depth !== null && isEvidence(stands.ballDepthMm.known)) guessed.delete('ballDepthMm');
		this.ballDiameterMm = Math.round(
			width ?? kept?.planting.ballDiameterMm ?? tree.trunkDiameterMm * values['lifting.trunks-least']
		);
		this.ballDepthMm = Math.round(
			depth ?? kept?.planting.ballDepthMm ?? this.ballDiameterMm * values['pot.ballDepthShare']
		);
		this.crownWidthMm = own?.crownWidthMm ?? Math.round(usualCrownWidthMm(tree, values));
		this.packedSeenOn = packedSeenOn(records, today, values);
		this.packed = kept ? kept.planting.sizeRule === 'packed' : this.packedSeenOn !== null;
		const rot = (lastWork?.rotWasCut ?? false) || of.urgent?.pot === 'smaller';
		this.school = rot ? 'same' : 'larger';
		this.headspaceMm = last?.headspaceMm ?? values['pot.headspaceMm'];
		this.mix = last?.mix ?? pottingMixOf(usualMix(kind.group, rot));
		this.coarseLayerMm = last?.coarseLayerMm ?? 0;
		this.topLayerMm = last?.topLayerMm ?? 0;
		this.coarseId = last?.coarseId ?? 'grit-coarse';
		this.topId = last?.topId ?? null;
		if (last) this.takePot(last.pot);
		else {
			const width = Math.round(this.advice.widthMm);
			const bottom = Math.round(width * values['pot.taperRound']);
			this.takePot(
				roundPot(width, bottom, Math.round(this.ballDepthMm + this.headspaceMm + values['seat.flareBelowMm']))
			);
		}
		this.assumed = guessed;
		this.seat.flareOverRimMm = -this.headspaceMm;
		this.seat.offOn = addDays(today, values['seat.tiesOffDays']);
		this.seat.holeMm = values['seat.holeMm'];
		this.waterSchool =
			kept?.waterSchool ??
			usualWaterSchool(
				kind.group,
				(lastWork?.rotWasCut ?? false) || asksForDryRest(of.urgent),
				lastWork?.livingLoss ?? 0,
				values
			);
		this.plantedOn = kept?.planting.plantedOn ?? today;
		this.placeId = tree.placeId;
		if (own?.seat) {
			const { wires, pads: _pads, ...seat } = own.seat;
			// How far it was tilted that time is a fact of that day.
			this.seat = { ...seat, tiltDeg: null, tiltTowardDeg: null };
			if (wires.length > 0) this.wireCount = wires.length;
		}
		if (kept) {
			this.stockPotId = kept.stockPotId;
			this.takeFromStock = kept.takeFromStock;
			this.sizeRule = kept.planting.sizeRule;
			this.placeId = kept.planting.placeId ?? tree.placeId;
			this.note = kept.planting.note;
			this.history = kept.planting.reuse.history;
			this.because = kept.planting.reuse.because;
		}
	}

	/** What was typed, or confirmed as it stands, is no suggestion any more. */
	confirm(...sizes: Guessable[]): void {
		if (sizes.some((size) => this.assumed.has(size)))
			this.assumed = new Set([...this.assumed].filter((size) => !sizes.includes(size)));
	}
	measured(size: Exclude<Guessable, 'pot'>, mm: number | null): void {
		if (mm === null) return;
		this[size] = mm;
		this.confirm(size);
	}
	/** Takes over a pot, of the stock or of a proposal. */
	takePot(pot: Pot, stockPotId: string | null = null): void {
		this.shape = pot.shape;
		this.sizes = sizesOf(pot);
		this.stockPotId = stockPotId;
		this.confirm('pot');
	}
	setSize(key: keyof Sizes, mm: number): void {
		this.sizes = { ...this.sizes, [key]: mm };
		this.stockPotId = null;
		this.confirm('pot');
	}
	/** A school of pot size: its width, and deep enough for the ball. No pot of the stock is that any more. */
	setSchool(school: 'larger' | 'same'): void {
		this.school = school;
		const pot = proposePots(this.question, this.shape, this.of.values)[school === 'same' ? 0 : 2]?.pot;
		if (pot) this.takePot({ ...pot, heightMm: Math.max(pot.heightMm, this.sizes.heightMm) });
	}
	/** What was found of its ball since the plan was begun: the records go before what was typed. */
	takeBall(): void {
		const { records, today, values } = this.of;
		const stands = standingOf(records, today, values);
		if (stands.ballWidthMm.value !== null && isEvidence(stands.ballWidthMm.known)) {
			this.ballDiameterMm = Math.round(stands.ballWidthMm.value);
			this.ballKnown = stands.ballWidthMm;
			this.confirm('ballDiameterMm');
		}
		if (stands.ballDepthMm.value !== null && isEvidence(stands.ballDepthMm.known)) {
			this.ballDepthMm = Math.round(stands.ballDepthMm.value);
			this.confirm('ballDepthMm');
		}
	}
	setHeight(height: Seat['height']): void {
		const values = this.of.values;
		this.seat.height = height;
		this.seat.moundMm = height === 'mound' ? values['seat.moundMm'] : 0;
		this.seat.flareOverRimMm = height === 'mound' ? values['seat.flareOverMm'] : -this.headspaceMm;
	}
	setHolding(holding: Holding): void {
		const values = this.of.values;
		this.seat.holding = holding;
		this.seat.offOn =
			holding === 'own-stance'
				? null
				: addDays(this.plantedOn, values[holding === 'wires' ? 'seat.tiesOffDays' : 'seat.stonesOffDays']);
		if (holding === 'stones' && this.seat.stones === 0) {
			this.seat.stones = 3;
			this.seat.stoneKg = 6;
		}
	}
	/** A mix by the value it has in a list: own-…, a shipped name, or the one that is in use. */
	takeMix(value: string): void {
		const own = this.of.stock.mixes.find((mix) => `own-${mix.id}` === value);
		const shipped = mixIds.find((id) => id === value);
		if (own) this.mix = { name: own.name, parts: own.parts, measured: own.measured };
		else if (shipped) this.mix = pottingMixOf(shipped);
	}
	readonly mixChoice = $derived.by((): string => {
		const own = this.of.stock.mixes.find((mix) => mix.name === this.mix.name);
		if (own) return `own-${own.id}`;
		return mixIds.find((id) => mixOf(id).name === this.mix.name) ?? 'used';
	});
	/** Whether the mix chosen is known to stay airy after rot; null for one that nobody judged. */
	readonly mixAfterRot = $derived.by((): boolean | null => {
		const own = this.of.stock.mixes.find((mix) => mix.name === this.mix.name);
		if (own) return own.afterRot;
		const shipped = mixIds.find((id) => mixOf(id).name === this.mix.name);
		return shipped ? mixOf(shipped).afterRot : null;
	});

	/** Rot was cut, or a look that presses asks for a smaller pot. */
	readonly rot = $derived.by(
		(): boolean => (this.of.lastWork?.rotWasCut ?? false) || this.of.urgent?.pot === 'smaller'
	);
	readonly count = $derived.by((): number => aliveOf(this.of.records));
	readonly advice = $derived.by(() =>
		sizeAdvice(
			this.ballDiameterMm,
			this.of.lastWork?.ofBall ?? 0,
			{ rot: this.rot, packed: this.packed },
			this.of.values
		)
	);
	readonly rule = $derived<SizeRule>(this.sizeRule === '' ? this.advice.rule : this.sizeRule);
	readonly pot = $derived<Pot>(asPot(this.shape, this.sizes));
	readonly stockPot = $derived.by(
		(): StockPot | null => this.of.stock.pots.find((pot) => pot.id === this.stockPotId) ?? null
	);
	readonly place = $derived.by(
		(): Place | null => this.of.places.find((place) => place.id === this.placeId) ?? null
	);
	readonly demand = $derived.by(() =>
		this.place ? treeDemand(this.of.records, this.place, this.of.today, this.of.values) : null
	);
	/** What the days from planting on ask for, at the place it goes to. */
	readonly ahead = $derived.by((): DryDay[] => {
		const { place } = this;
		const { records, near, values, today } = this.of;
		if (!place) return [];
		const from = this.plantedOn > today ? this.plantedOn : today;
		return daysAhead(place, near[place.id] ?? [], from, leavesBorne(records, place, values), values);
	});
	readonly gone = $derived.by((): ReadonlySet<string> => new Set(this.of.goneRoots));
	/** With what is planned to be cut: nothing is tied over it. */
	readonly goneSoon = $derived.by(
		(): ReadonlySet<string> =>
			new Set([
				...this.gone,
				...(this.of.records.plan?.cuts ?? []).flatMap((cut) =>
					cut.state === 'planned' ? [cut.segmentId] : []
				)
			])
	);
	readonly mapped = $derived.by((): boolean => {
		const map = this.of.records.rootMap;
		return map !== null && map.frame === 'container' && map.segments.length > 0;
	});
	/** How far every root reaches was said: only then can the ball be tried by its roots. */
	readonly lengthsMeasured = $derived.by(
		(): boolean =>
			this.mapped &&
			this.of.records.rootMap?.segments.every((segment) => !segment.guessed.includes('length')) === true
	);
	readonly ball = $derived.by(() => {
		const map = this.of.records.rootMap;
		const fullness = this.of.values['pot.ballShape'];
		return this.ballFrom === 'map' && map && this.lengthsMeasured
			? ballOfMap(map, this.gone, this.ballDepthMm, fullness)
			: ballOfSizes(this.ballDiameterMm, this.ballDepthMm, fullness);
	});
	readonly layer = $derived.by(() => ({
		coarseLayerMm: this.coarseLayerMm,
		coarsePoreMm: componentOf(this.coarseId).fineMm * this.of.values['mix.poreOfGrain']
	}));
	readonly standing = $derived.by(() => {
		const setting = this.of.records.plan?.setting;
		return { tiltDeg: setting?.thisTimeDeg ?? 0, tiltTowardDeg: setting?.tiltTowardDeg ?? 0 };
	});
	readonly question = $derived.by((): PotQuestion => {
		const { values, kind, records } = this.of;
		return {
			ball: this.ball,
			ballDiameterMm: this.ballDiameterMm,
			ballDepthMm: this.ballDepthMm,
			standing: this.standing,
			mix: this.mix,
			coarseLayerMm: this.coarseLayerMm,
			coarseId: this.coarseId,
			moundMm: this.seat.moundMm,
			topLayerMm: this.topLayerMm,
			headspaceMm: this.headspaceMm,
			flareOverRimMm: this.seat.flareOverRimMm,
			wetnessTrigger: kind.wetnessTrigger,
			days: this.ahead,
			rootFunction: this.of.weighedFunction ?? this.demand?.rootFunction ?? 1,
			crownWidthMm: this.crownWidthMm,
			heightM: records.tree.heightM,
			largerWidthMm: this.ballDiameterMm + values[this.packed ? 'pot.packedSizeMm' : 'pot.upSizeMm'],
			sameWidthMm: this.ballDiameterMm + values['pot.afterRotSizeMm'],
			others: othersInPot(records.mates, values)
		};
	});
	readonly fit = $derived.by(() =>
		fitInPot(this.ball, this.pot, {
			...this.standing,
			flareOverRimMm: this.seat.flareOverRimMm,
			floorMm: this.coarseLayerMm
		})
	);
	readonly amounts = $derived.by(() =>
		amountsInPot(
			{
				pot: this.pot,
				plantedOn: this.plantedOn,
				ballDiameterMm: this.ballDiameterMm,
				ballDepthMm: this.ballDepthMm,
				coarseLayerMm: this.coarseLayerMm,
				topLayerMm: this.topLayerMm,
				headspaceMm: this.headspaceMm,
				moundMm: this.seat.moundMm
			},
			this.of.records.mates,
			this.of.values
		)
	);
	/** Tag of the mate for whom the pot was filled that day; empty for none. */
	readonly filledFor = $derived.by(() => filledFor(this, this.of.records.mates));
	readonly judged = $derived.by(() =>
		judgePot(this.pot, this.stockPot?.massKg ?? null, this.question, this.of.values)
	);
	readonly ranked = $derived.by(() =>
		rankPots(
			this.of.stock.pots.filter((pot) => pot.count > 0),
			this.question,
			this.school,
			this.of.values
		)
	);
	readonly proposed = $derived.by(() =>
		proposePots(this.question, this.shape, this.of.values).map((entry) => ({
			...entry,
			judged: judgePot(entry.pot, null, this.question, this.of.values)
		}))
	);
	readonly water = $derived.by(() =>
		waterAndAir(
			bodyOf(this.mix, this.of.values),
			this.pot,
			this.layer,
			Math.max(10, this.pot.heightMm - this.headspaceMm)
		)
	);
	readonly wires = $derived.by(() => {
		const map = this.of.records.rootMap;
		return this.seat.holding === 'wires' && map?.frame === 'container'
			? wiresOver(map.segments, this.goneSoon, this.of.values, this.wireCount)
			: [];
	});
	readonly holes = $derived.by(() => wireHoles(this.wires, this.pot, this.of.values));
	/** Drain holes that the floor still wants. */
	readonly holesWanted = $derived.by(() =>
		extraHoles(
			this.pot,
			{ count: this.stockPot?.holes ?? 0, holeMm: this.stockPot?.holeMm ?? 0 },
			this.seat.holeMm,
			this.of.values
		)
	);
	readonly held = $derived.by(() => {
		const { heightM } = this.of.records.tree;
		const { values } = this.of;
		if (heightM === null) return null;
		const ballKg = this.amounts.ballL * values['lifting.density'] * (1 + values['route.treeKg']);
		return heldWind(
			{ massKg: ballKg, widthMm: this.ballDiameterMm, depthMm: this.ballDepthMm },
			{ massKg: this.judged.wetKg, ...crownOf(heightM, this.pot, values) },
			this.seat.holding === 'stones' ? this.seat.stoneKg : 0,
			values
		);
	});
	readonly site = $derived.by(() =>
		this.place
			? siteCheck(
					this.of.kind,
					this.place,
					{
						inGround: false,
						today: this.of.today,
						drainMin: null,
						rootsCutOn: woundedOn(this.of.records, this.of.values),
						newShoots: newShootsOn(
							standingOf(this.of.records, this.of.today, this.of.values).buds,
							{ kind: this.of.kind, place: this.place },
							this.of.today,
							this.of.values
						)
					},
					this.of.values
				)
			: []
	);
	readonly siteVerdict = $derived.by(() => siteVerdict(this.site));
	/** How far flare and stem would be under the mix; 0 where they are not. */
	readonly buriedMm = $derived.by(() => Math.max(0, -this.seat.flareOverRimMm - this.headspaceMm));
	readonly fullSeat = $derived.by((): Seat => {
		const held = this.seat.holding !== 'own-stance';
		return {
			...this.seat,
			stones: this.seat.holding === 'stones' ? this.seat.stones : 0,
			stoneKg: this.seat.holding === 'stones' ? this.seat.stoneKg : 0,
			offOn: held ? this.seat.offOn : null,
			// Which way is told by the angle that was tried.
			tiltTowardDeg:
				this.seat.tiltDeg === null
					? null
					: (this.seat.tiltTowardDeg ?? this.of.records.plan?.setting?.tiltTowardDeg ?? 0),
			wires: this.wires,
			pads: this.wires.length
		};
	});
	readonly plan = $derived.by((): ReplantPlanInput => ({
		planting: {
			plantedOn: this.plantedOn,
			pot: this.pot,
			sizeRule: this.rule,
			ballDiameterMm: this.ballDiameterMm,
			ballDepthMm: this.ballDepthMm,
			mix: this.mix,
			reuse: {
				history: this.history,
				because: this.history === 'new' || this.history === 'healthy' ? '' : this.because
			},
			seat: this.fullSeat,
			crownWidthMm: this.crownWidthMm,
			coarseLayerMm: this.coarseLayerMm,
			coarseId: this.coarseId,
			topLayerMm: this.topLayerMm,
			topId: this.topLayerMm > 0 ? this.topId : null,
			headspaceMm: this.headspaceMm,
			plantCount: this.count,
			placeId: this.placeId === '' ? null : this.placeId,
			assumed: [...this.assumed],
			note: this.note
		},
		stockPotId: this.stockPotId,
		waterSchool: this.waterSchool,
		takeFromStock: this.takeFromStock
	}));
	readonly kit = $derived.by(() =>
		kitList(
			{
				plantCount: this.count,
				thickestMm: 0,
				planting: {
					...this.plan.planting,
					amounts: this.amounts,
					stockPot: this.stockPot
				},
				lift: null,
				ground: null
			},
			this.of.stock.items,
			this.of.values
		)
	);
}
