import { viewFaultSaid, type LinedUp, type ViewFault } from '$core/examine/pictures/lined-up';
import { grownBetween, type Point2, type Shot } from '$core/examine/pictures/plane';
import type { Values } from '$core/values/values';
import type { LeavesRead, PictureReader } from '$lib/workers/picture-reader';
import { MOST_POINTS, PictureMeasure } from './picture-measure.svelte';

/** What is measured between two pictures: how much of the crown is leaf, or how long a thing was and is. */
export type MeasuredSince = 'leaves' | 'length';

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
	/** A loop is being read: what is drawn meanwhile is read after it, and only the last. */
	#reading = false;

	readonly how = $derived<LinedUp | null>(typeof this.lined === 'string' ? null : this.lined);
	/** Which of the two is looked at, where a length is measured: what lies beside for its size is that of the later. */
	readonly looksAt = $derived.by((): 'then' | 'now' => (this.measure.step === 'corners' ? 'now' : this.day));
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
		after: Shot,
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
	/** Reads the leaves of the loop as it is by then, and again where it was drawn on meanwhile. */
	async #read(): Promise<void> {
		if (this.#reading || !this.how) return;
		this.#reading = true;
		for (let read: readonly Point2[] | null = null; read !== this.loop && this.loop.length >= 3;) {
			read = this.loop;
			const found = await this.reader
				.leaves(this.sources.before, this.sources.after, this.how, read, this.values)
				.catch(() => null);
			if (read !== this.loop) continue;
			this.leaves = found;
			if (!found)
				this.problem =
					'Within this loop too little can be read in both pictures. Draw it round the crown, where both show it.';
		}
		this.#reading = false;
	}
}
