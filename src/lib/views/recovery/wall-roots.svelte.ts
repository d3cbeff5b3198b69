import type { Point2 } from '$core/examine/pictures/plane';
import { wallClasses, type WallClass } from '$core/examine/pictures/wall-words';
import type { RootSampleData } from '$core/examine/measuring/root-sample';
import type { Values } from '$core/values/values';
import type { PictureReader, WallShown } from '$lib/workers/picture-reader';

/** What is touched: one of the three colours, or the edge of the wall. */
export type WallTouch = WallClass | 'edge';
/** What was felt of the brown roots: a colour does not tell whether they live. */
export type BrownFelt = 'not-felt' | 'dead' | 'alive';

/** Roots on a wall in a picture: colours that are touched, what is read of them, and what they are worth as a sample of roots. */
export class WallRoots {
	what = $state<WallTouch>('white');
	edge = $state.raw<readonly Point2[]>([]);
	touches = $state.raw<Readonly<Record<WallClass, readonly Point2[]>>>({ white: [], brown: [], none: [] });
	/** In which order they were touched. */
	#order: WallTouch[] = [];
	found = $state.raw<WallShown | null>(null);
	felt = $state<BrownFelt>('not-felt');
	problem = $state('');
	reading = $state(false);
	#asked = 0;

	constructor(
		readonly source: string,
		readonly values: Values,
		readonly reader: Pick<PictureReader, 'wall'>
	) {}

	/** The first of the three that nobody touched yet. */
	readonly missing = $derived(wallClasses.find((one) => this.touches[one].length === 0) ?? null);
	/** What there is to do now. */
	readonly says = $derived.by((): string => {
		if (this.problem) return this.problem;
		if (this.missing) return asked[this.missing];
		if (this.reading) return 'Reading the wall …';
		if (this.alike)
			return 'These colours are too alike to tell: touch more of each where it shows plainly, in even light.';
		return 'Where it read amiss, choose what it is and touch it there.';
	});
	/** Whether so much of what was touched reads as another that nothing is told. */
	readonly alike = $derived.by(
		() => this.found !== null && this.found.mistaken > this.values['picture.wallMistakenMost']
	);
	/** The sample as it would be kept; null while the brown ones were not felt, or nothing is told. */
	readonly sample = $derived.by((): RootSampleData | null => {
		if (!this.found || this.alike || this.reading) return null;
		const { white, brown } = this.found.sample;
		if (white + brown === 0 || (this.felt === 'not-felt' && brown > 0)) return null;
		return this.felt === 'alive' ? { alive: white + brown, dead: 0 } : { alive: white, dead: brown };
	});

	touch(at: Point2): void {
		this.#order.push(this.what);
		if (this.what === 'edge') this.edge = [...this.edge, at];
		else {
			this.touches = { ...this.touches, [this.what]: [...this.touches[this.what], at] };
			// The next that is missing is touched next.
			if (this.missing) this.what = this.missing;
		}
		this.#changed();
	}
	move(what: WallTouch, index: number, to: Point2): void {
		const moved = (list: readonly Point2[]): Point2[] => list.map((at, i) => (i === index ? to : at));
		if (what === 'edge') this.edge = moved(this.edge);
		else this.touches = { ...this.touches, [what]: moved(this.touches[what]) };
		this.#changed();
	}
	back(): void {
		const what = this.#order.pop();
		if (!what) return;
		if (what === 'edge') this.edge = this.edge.slice(0, -1);
		else this.touches = { ...this.touches, [what]: this.touches[what].slice(0, -1) };
		this.what = what;
		this.#changed();
	}
	readonly touched = $derived.by(
		() => this.edge.length + wallClasses.reduce((sum, one) => sum + this.touches[one].length, 0)
	);

	#changed(): void {
		this.problem = '';
		this.#asked++;
		if (this.missing) this.found = null;
		else void this.#read();
	}
	/** Reads the wall as it is touched by then, and again where more was touched meanwhile. */
	async #read(): Promise<void> {
		if (this.reading) return;
		this.reading = true;
		for (let read = -1; read !== this.#asked && !this.missing;) {
			read = this.#asked;
			const found = await this.reader
				.wall(this.source, { edge: this.edge, touches: this.touches }, this.values)
				.catch(() => null);
			if (read !== this.#asked) continue;
			this.found = found;
			if (!found) this.problem = 'Too little of the picture lies within this edge. Draw it round the wall.';
		}
		this.reading = false;
	}
}

const asked: Record<WallClass, string> = {
	white: 'Touch a white root.',
	brown: 'Touch a brown root.',
	none: 'Touch soil; and stones, where there are any.'
};
