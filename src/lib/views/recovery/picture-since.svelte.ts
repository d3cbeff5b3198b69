import { viewFaultSaid, type LinedUp, type ViewFault } from '$core/examine/pictures/lined-up';
import { grownBetween, type Point2 } from '$core/examine/pictures/plane';
import type { Picture } from '$core/take-in/picture';
import type { Values } from '$core/values/values';
import type { LeavesRead, PictureReader } from '$lib/workers/picture-reader';
import { PictureMeasure } from './picture-measure.svelte';

/** What is measured between two pictures: how much of the crown is leaf, or how long a thing was and is. */
export type MeasuredSince = 'leaves' | 'length';

const MOST_POINTS = 60;

/** Two pictures of one view, laid over each other, and what is measured between the two days. Points are px of the later picture. */
export class PictureSince {
	/** How the earlier lies over the later, or why it does not; null while that is looked for. */
	lined = $state.raw<LinedUp | ViewFault | null>(null);
	/** The earlier as it lies over the later. */
	over = $state.raw<Blob | null>(null);
	what = $state<MeasuredSince>('leaves');
	/** Which day is touched in, where a length is measured. */
	day = $state<'then' | 'now'>('then');
	loop = $state.raw<readonly Point2[]>([]);
	was = $state.raw<readonly Point2[]>([]);
	is = $state.raw<readonly Point2[]>([]);
	/** Leaf within the loop; null while it is not read. */
	leaves = $state.raw<LeavesRead | null>(null);
	/** The loop holds nothing that can be read, or nothing green was found. */
	problem = $state('');
	readonly measure: PictureMeasure;
	/** Counts the readings, so that a late one is not taken for the last. */
	#asked = 0;

	readonly how = $derived<LinedUp | null>(typeof this.lined === 'string' ? null : this.lined);
	readonly grown = $derived.by(() =>
		this.how && this.measure.plane && this.was.length > 1 && this.is.length > 1
			? grownBetween(
					this.measure.plane,
					this.was,
					this.is,
					this.measure.touchPx,
					this.how.offPx,
					this.measure.values
				)
			: null
	);
	/** What there is to do, or why nothing can be measured. */
	readonly says = $derived.by((): string => {
		if (this.lined === null) return 'Laying the earlier picture over the later one …';
		if (typeof this.lined === 'string') return viewFaultSaid[this.lined];
		if (this.problem) return this.problem;
		return this.what === 'leaves' ? this.#leavesAsked() : this.#lengthAsked();
	});

	constructor(
		readonly before: Pick<Picture, 'widthPx' | 'heightPx'>,
		after: Pick<Picture, 'widthPx' | 'heightPx'>,
		readonly sources: { before: string; after: string },
		readonly values: Values,
		readonly reader: Pick<PictureReader, 'lineUp' | 'crown' | 'leaves'>,
		rimMm: number | null = null
	) {
		this.measure = new PictureMeasure(after, values, rimMm);
	}

	#leavesAsked(): string {
		if (this.loop.length < 3)
			return this.loop.length === 0
				? 'Touch round the crown, as it is in the larger of the two, or let it be outlined.'
				: 'Touch on round the crown.';
		return this.leaves ? 'Move a point, or touch on, and it is read anew.' : 'Reading the leaves …';
	}
	#lengthAsked(): string {
		if (this.measure.fault) return this.measure.fault;
		if (this.measure.rectangle === 'card' && this.measure.card === null)
			return 'Looking for the printed card …';
		if (this.measure.step === 'corners' || !this.measure.plane) return this.measure.says;
		if (this.day === 'then')
			return this.was.length < 2
				? 'Touch along the thing as it was: both ends, and where it bends.'
				: 'Now the same as it is.';
		return this.is.length < 2 ? 'Touch along the thing as it is now.' : 'Touch on where it goes on.';
	}

	/** Lays the two over each other. */
	async lineUp(): Promise<void> {
		try {
			const found = await this.reader.lineUp(this.sources.before, this.sources.after, this.values);
			if (typeof found === 'string') this.lined = found;
			else [this.over, this.lined] = [found.before, found.how];
		} catch {
			this.lined = 'few-found';
		}
	}

	/** A touch in the picture: on the loop, on what lies beside for its size, or along the thing. */
	touch(at: Point2): void {
		if (!this.how) return;
		if (this.what === 'leaves') {
			if (this.loop.length < MOST_POINTS) this.#looped([...this.loop, at]);
		} else if (this.measure.step === 'corners') this.measure.touch(at);
		else if (!this.measure.plane) return;
		else if (this.day === 'then') this.was = [...this.was, at].slice(0, MOST_POINTS);
		else this.is = [...this.is, at].slice(0, MOST_POINTS);
	}
	/** Moves a point that was touched. */
	move(which: 'loop' | 'was' | 'is' | 'corners', index: number, to: Point2): void {
		const { widthPx, heightPx } = this.measure.picture;
		const at = { x: Math.min(widthPx, Math.max(0, to.x)), y: Math.min(heightPx, Math.max(0, to.y)) };
		if (which === 'corners') return this.measure.move('corners', index, at);
		const moved = this[which].map((point, i) => (i === index ? at : point));
		if (which === 'loop') this.#looped(moved);
		else this[which] = moved;
	}
	/** Takes the last touch back. */
	back(): void {
		if (this.what === 'leaves') this.#looped(this.loop.slice(0, -1));
		else if (this.day === 'now' && this.is.length > 0) this.is = this.is.slice(0, -1);
		else if (this.was.length > 0) this.was = this.was.slice(0, -1);
		else this.measure.back();
	}
	readonly touched = $derived.by((): number =>
		this.what === 'leaves' ? this.loop.length : this.was.length + this.is.length + this.measure.corners.length
	);
	again(): void {
		if (this.what === 'leaves') this.#looped([]);
		else {
			this.was = this.is = [];
			this.day = 'then';
		}
	}

	/** Outlines the crown by what is green in either picture. */
	async outline(): Promise<void> {
		if (!this.how) return;
		const loop = await this.reader
			.crown(this.sources.before, this.sources.after, this.how.toAfter, this.values)
			.catch(() => null);
		if (loop) this.#looped(loop);
		else this.problem = 'Nothing green was found in either picture. Touch round the crown.';
	}

	#looped(loop: readonly Point2[]): void {
		this.loop = loop;
		this.leaves = null;
		this.problem = '';
		if (loop.length >= 3) void this.#read();
	}
	async #read(): Promise<void> {
		const asked = ++this.#asked;
		if (!this.how) return;
		const read = await this.reader
			.leaves(this.sources.before, this.sources.after, this.how, this.loop, this.values)
			.catch(() => null);
		if (asked !== this.#asked || this.loop.length < 3) return;
		this.leaves = read;
		if (!read)
			this.problem =
				'Within this loop too little can be read in both pictures. Draw it round the crown, where both show it.';
	}
}
