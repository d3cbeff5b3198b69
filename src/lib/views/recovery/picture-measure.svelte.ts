import { cardFaultSaid, type CardFault, type FoundCard } from '$core/examine/pictures/find-card-words';
import { ellipseThrough } from '$core/examine/pictures/ellipse';
import {
	knownRectangles,
	lengthIn,
	planeFaultSaid,
	planeOf,
	RIM_POINTS,
	rimOf,
	scaleOf,
	type KnownRectangle,
	type Plane,
	type PlaneFault,
	type PictureLength,
	type Point2,
	type Shot
} from '$core/examine/pictures/plane';
import type { Values } from '$core/values/values';

const CORNERS = 4;
/** What a picture is measured by: the printed card, a sheet or card of known size, a rectangle, a round rim, or two points. */
export type MeasuredBy = KnownRectangle | 'card' | 'own' | 'rim' | 'two-points';
/** Places that are touched along one thing. */
export const MOST_POINTS = 60;

/**
 * Measuring in a picture: the printed card is looked for first; without it four corners of what lies beside for its size, six places of a rim, or two points, then
 * along the thing. Points are px of the picture.
 */
export class PictureMeasure {
	rectangle = $state<MeasuredBy>('card');
	/** What the search for the card gave; null while it runs. */
	card = $state.raw<FoundCard | CardFault | PlaneFault | null>(null);
	/** How wide the rim is, inside. */
	rimMm = $state<number | null>(null);
	/** How far the two points are apart. */
	apartMm = $state<number | null>(null);
	ownWidthMm = $state<number | null>(null);
	ownHeightMm = $state<number | null>(null);
	corners = $state.raw<readonly Point2[]>([]);
	line = $state.raw<readonly Point2[]>([]);
	kept = $state.raw<readonly PictureLength[]>([]);
	/** How wide the picture is shown, px of the screen. */
	shownWidthPx = $state(0);

	readonly size = $derived.by(() => {
		if (this.rectangle === 'card' || this.rectangle === 'rim' || this.rectangle === 'two-points') return null;
		if (this.rectangle !== 'own') return knownRectangles[this.rectangle];
		return this.ownWidthMm && this.ownHeightMm
			? { widthMm: this.ownWidthMm, heightMm: this.ownHeightMm }
			: null;
	});
	/** The plane, why the corners do not tell it, or null while they are not all touched. */
	readonly found = $derived.by((): Plane | PlaneFault | CardFault | null => {
		if (this.rectangle === 'card')
			return this.card !== null && typeof this.card !== 'string' ? this.card.plane : this.card;
		if (this.corners.length < this.wanted) return null;
		const [a, b] = this.corners;
		if (this.rectangle === 'two-points')
			return a && b && this.apartMm ? scaleOf([a, b], this.apartMm, this.picture, this.values) : null;
		if (this.rectangle === 'rim')
			return this.rimMm ? rimOf(this.corners, this.rimMm, this.picture, this.values) : null;
		return this.size ? planeOf(this.corners, this.size, this.picture, this.values) : null;
	});
	/** The rim as it is seen, once it is touched all round. */
	readonly rim = $derived.by(() =>
		this.rectangle === 'rim' && this.corners.length === RIM_POINTS ? ellipseThrough(this.corners) : null
	);
	readonly plane = $derived<Plane | null>(typeof this.found === 'string' ? null : this.found);
	/** How far a touch is off, px of the picture. */
	readonly touchPx = $derived.by(
		() =>
			this.values['picture.touchPx'] * (this.shownWidthPx > 0 ? this.picture.widthPx / this.shownWidthPx : 1)
	);
	readonly length = $derived.by(() =>
		this.plane && this.line.length > 1 ? lengthIn(this.plane, this.line, this.touchPx, this.values) : null
	);
	/** Why there is no length, and what to do. */
	readonly fault = $derived.by(() => {
		if (typeof this.found === 'string') return { ...planeFaultSaid, ...cardFaultSaid }[this.found];
		return this.plane && this.line.length > 1 && !this.length ? planeFaultSaid['too-far'] : null;
	});
	/** Touches that tell the plane. */
	readonly wanted = $derived(
		{ card: 0, 'two-points': 2, rim: RIM_POINTS }[this.rectangle as string] ?? CORNERS
	);
	/** What is touched next. */
	readonly step = $derived<'corners' | 'line'>(this.corners.length < this.wanted ? 'corners' : 'line');

	/** What lies beside for its size, in words. */
	readonly named = $derived(
		{ card: 'card', own: 'rectangle', rim: 'rim', 'two-points': 'two points' }[this.rectangle as string] ??
			knownRectangles[this.rectangle as KnownRectangle].name
	);
	/** Why the card was not found; empty while it is looked for, and where it was. */
	readonly noCard = $derived(
		typeof this.card === 'string' ? { ...planeFaultSaid, ...cardFaultSaid }[this.card] : ''
	);
	/** What there is to do, or why there is no length. */
	readonly says = $derived.by((): string => {
		if (this.fault) return this.fault;
		if (this.rectangle === 'card' && this.card === null) return 'Looking for the printed card …';
		if (this.step === 'corners') return `${this.#asked()}: ${this.corners.length} of ${this.wanted}.`;
		if (!this.plane) return this.#sizeAsked();
		if (this.line.length === 0) return 'Now touch one end of what you measure.';
		return this.line.length === 1
			? 'Touch its other end, or first where it bends.'
			: 'Touch on where it goes on, or keep the length.';
	});

	/** @param rimMm width of the rim as it was potted, where that is known */
	constructor(
		readonly picture: Shot,
		readonly values: Values,
		rimMm: number | null = null
	) {
		this.rimMm = rimMm;
	}

	#asked(): string {
		if (this.rectangle === 'two-points') return 'Touch two points whose distance you know';
		return this.rectangle === 'rim'
			? 'Touch places of the edge of the rim, all round it'
			: `Touch the four corners of the ${this.named}`;
	}
	#sizeAsked(): string {
		if (this.rectangle === 'two-points') return 'Say how far the two points are apart.';
		return this.rectangle === 'rim' ? 'Say how wide the rim is.' : 'Say how large the rectangle is.';
	}

	/** A touch: a corner first, then along the thing. */
	touch(at: Point2): void {
		if (this.step === 'corners') this.corners = [...this.corners, at];
		else if (this.plane && this.line.length < MOST_POINTS) this.line = [...this.line, at];
	}
	/** Measures by something else; what was touched for it stays where it can stand for that too. */
	choose(by: string): void {
		const before = this.wanted;
		this.rectangle =
			by === 'card' || by === 'rim' || by === 'two-points'
				? by
				: Object.hasOwn(knownRectangles, by)
					? (by as KnownRectangle)
					: 'own';
		if (this.wanted !== before) this.corners = this.line = [];
	}
	/** The search for the card is over: without one, four corners of something else are touched. */
	searched(card: FoundCard | CardFault | PlaneFault): void {
		this.card = card;
		if (typeof card === 'string' && this.rectangle === 'card') this.choose('bank-card');
	}
	/** Moves a point that was touched. */
	move(which: 'corners' | 'line', index: number, to: Point2): void {
		const x = Math.min(this.picture.widthPx, Math.max(0, to.x));
		const y = Math.min(this.picture.heightPx, Math.max(0, to.y));
		this[which] = this[which].map((point, i) => (i === index ? { x, y } : point));
	}
	/** Takes the last touch back. */
	back(): void {
		if (this.line.length > 0) this.line = this.line.slice(0, -1);
		else this.corners = this.corners.slice(0, -1);
	}
	/** Keeps the length beside, and begins another. */
	keep(): void {
		if (!this.length) return;
		this.kept = [...this.kept, this.length];
		this.line = [];
	}
	drop(index: number): void {
		this.kept = this.kept.filter((_, i) => i !== index);
	}
	again(): void {
		this.corners = this.line = [];
	}
}
