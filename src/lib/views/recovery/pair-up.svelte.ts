import type { LinedUp, ViewFault } from '$core/examine/pictures/lined-up';
import type { Values } from '$core/values/values';
import { createPictureReader, type PictureReader } from '$lib/workers/picture-reader';

/** Lays the earlier of two pictures over the later one, whenever another pair is chosen. */
export class PairUp {
	/** How they lie, or why they do not; null while that is looked for. */
	lined = $state.raw<LinedUp | ViewFault | null>(null);
	/** Address of the earlier one as it lies over the later; empty where it does not. */
	over = $state('');
	#asked = '';

	constructor(readonly reader: Pick<PictureReader, 'lineUp' | 'stop'> = createPictureReader()) {}

	/** Another pair, by where its pictures lie. */
	of(before: string, after: string, values: Values): void {
		const asked = `${before} ${after}`;
		if (asked === this.#asked) return;
		this.#asked = asked;
		this.#clear();
		this.lined = null;
		void this.reader
			.lineUp(before, after, values)
			.catch(() => 'few-found' as const)
			.then((found) => {
				if (asked !== this.#asked) return;
				if (typeof found === 'string') this.lined = found;
				else {
					this.over = URL.createObjectURL(found.before);
					this.lined = found.how;
				}
			});
	}
	stop(): void {
		this.#asked = '';
		this.#clear();
		this.reader.stop();
	}
	#clear(): void {
		if (this.over) URL.revokeObjectURL(this.over);
		this.over = '';
	}
}
