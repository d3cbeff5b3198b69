import { resolve } from '$app/paths';
import { createPictureReader } from '$lib/workers/picture-reader';
import type { RootsState } from './roots-state.svelte';

const SIDE_PX = 900;

/** The picture that lies under a map, turned to it in a thread of its own once it is asked for. */
export class PictureUnder {
	shown = $state(false);
	turned = $state.raw<{ address: string; reachMm: number } | null>(null);
	problem = $state('');
	readonly #roots: RootsState;

	constructor(roots: RootsState) {
		this.#roots = roots;
	}

	/** The picture under the map; null where none was laid there, or it was removed since. */
	readonly picture = $derived.by(() => {
		const under = this.#roots.map.picture;
		return under && (this.#roots.options.pictures.find(({ id }) => id === under.pictureId) ?? null);
	});

	/** Turns it anew whenever it is shown and the map was turned; to be called as an effect. @returns what ends it */
	follow(): (() => void) | undefined {
		const under = this.#roots.map.picture;
		const { picture } = this;
		this.turned = null;
		this.problem = '';
		if (!this.shown || !under || !picture) return undefined;
		const reader = createPictureReader();
		const { map } = this.#roots;
		const farthest = Math.max(
			...map.segments.flatMap(({ course }) => course.map(({ radiusMm }) => radiusMm)),
			0
		);
		const reachMm = 1.2 * Math.max(map.ballRadiusMm, Math.min(farthest, 4 * map.ballRadiusMm));
		let address = '';
		reader
			.under(resolve('/pictures/[file]', { file: `${picture.hash}.jpg` }), under.toPlan, reachMm, SIDE_PX)
			.then((blob) => {
				address = URL.createObjectURL(blob);
				this.turned = { address, reachMm };
			})
			.catch(() => (this.problem = 'The picture under the map could not be read.'))
			.finally(() => reader.stop());
		return () => {
			reader.stop();
			if (address) URL.revokeObjectURL(address);
		};
	}
}
