import { select, zoom, zoomIdentity, type ZoomBehavior } from 'd3';

/** Zooming and panning of a drawing: two fingers, Ctrl and wheel, buttons; a drag pans once it is zoomed in. */
export class MapZoom {
	k = $state(1);
	x = $state(0);
	y = $state(0);
	#svg: SVGSVGElement | null = null;
	#behaviour: ZoomBehavior<SVGSVGElement, unknown> | null = null;

	/** Watches a drawing; `least` is how far one may zoom out. @returns how to stop watching */
	attach(svg: SVGSVGElement, least: () => number): () => void {
		this.#svg = svg;
		const { x, y, width, height } = svg.viewBox.baseVal;
		this.#behaviour = zoom<SVGSVGElement, unknown>()
			.scaleExtent([least(), 10])
			.translateExtent([
				[x * 4, y * 4],
				[(x + width) * 4, (y + height) * 4]
			])
			// What has a drag of its own keeps it; a page must scroll under one finger or a wheel.
			.filter(
				(event: Event & { ctrlKey?: boolean; metaKey?: boolean; touches?: TouchList; button?: number }) => {
					if ((event.target as Element).closest('[data-drag]')) return false;
					if (event.type === 'wheel') return Boolean(event.ctrlKey ?? event.metaKey);
					if (event.touches) return event.touches.length > 1 || this.k !== 1;
					return this.k !== 1 && !event.button;
				}
			)
			.on('zoom', ({ transform }: { transform: { k: number; x: number; y: number } }) => {
				this.k = transform.k;
				this.x = transform.x;
				this.y = transform.y;
			});
		const chosen = select(svg);
		chosen.call(this.#behaviour).on('dblclick.zoom', null);
		return () => {
			chosen.on('.zoom', null);
			this.#svg = null;
		};
	}

	by(factor: number): void {
		if (this.#svg && this.#behaviour) this.#behaviour.scaleBy(select(this.#svg), factor);
	}
	fit(): void {
		if (this.#svg && this.#behaviour) this.#behaviour.transform(select(this.#svg), zoomIdentity);
	}

	get transform(): string {
		return `translate(${this.x} ${this.y}) scale(${this.k})`;
	}
}
