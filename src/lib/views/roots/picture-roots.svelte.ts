import type { OfferedRoot } from '$core/examine/pictures/offered';
import { atHeight } from '$core/examine/pictures/traced';
import type { Point2 } from '$core/examine/pictures/plane';
import { barkAround, segmentsFromPicture, standsOnMap } from '$core/roots/map/from-picture';
import { polarOf } from '$core/roots/map/geometry';
import { barkRadiusMm } from '$core/roots/map/outline';
import type { RootMapInput, Segment } from '$core/roots/map/root-map';
import type { Picture } from '$core/take-in/picture';
import type { Values } from '$core/values/values';
import type { PictureReader, ReadRoot, RootsRead } from '$lib/workers/picture-reader';
import { PictureMeasure } from '$views/recovery/picture-measure.svelte';
import { newId } from './new-id';

/** A root that came out of a picture, and what the person says of it; `there` stands on the map already. */
export interface OnOffer {
	id: string;
	root: ReadRoot<OfferedRoot>;
	/** The one it leaves, by its id; null for the trunk. */
	parentId: string | null;
	says: 'open' | 'yes' | 'no' | 'there';
	/** Traced by the person, not offered. */
	traced: boolean;
	/** How deep below the flare the person says it lies, mm. */
	depthMm: number | null;
}

/** A base so near the bark begins at the trunk; so near a root it leaves that one, mm. */
const AT_TRUNK_MM = 20;
const AT_ROOT_MM = 8;

/**
 * A root map from a picture: its plane, two touches for trunk and front, then roots that are offered, traced, taken or refused.
 */
export class PictureRoots {
	readonly measure: PictureMeasure;
	/** Where the trunk's middle meets the plane, and a place towards the front, px of the picture. */
	middle = $state.raw<Point2 | null>(null);
	front = $state.raw<Point2 | null>(null);
	/** Roots that were touched to show their colour, px. */
	shown = $state.raw<readonly Point2[]>([]);
	/** What was read; null while it was not. */
	read = $state.raw<RootsRead | null>(null);
	reading = $state(false);
	offers = $state.raw<readonly OnOffer[]>([]);
	chosenId = $state<string | null>(null);
	/** Where a root that is traced begins, mm of the map. */
	base = $state.raw<Point2 | null>(null);
	/** How deep below the flare the card lies, mm; null while nobody said. */
	depthMm = $state<number | null>(null);
	/** What was felt of the roots that are taken: dark and soft cannot be seen. */
	condition = $state<'sound' | 'doubtful'>('doubtful');
	problem = $state('');
	readonly #reader: PictureReader;

	/**
	 * @param rimMm width of the rim it stood in, where that is known
	 * @param map the map that the roots are put on
	 */
	constructor(
		readonly picture: Picture,
		readonly source: string,
		readonly map: RootMapInput,
		readonly values: Values,
		reader: PictureReader,
		rimMm: number | null = null
	) {
		this.measure = new PictureMeasure(picture, values, rimMm);
		this.#reader = reader;
	}

	/** What a place towards azimuth 0 is called. */
	readonly frontCalled = $derived.by(() => (this.map.frame === 'ground' ? 'north' : 'the front'));
	/** What is touched next in the picture. */
	readonly step = $derived.by((): 'wait' | 'size' | 'middle' | 'front' | 'colour' => {
		if (this.measure.rectangle === 'card' && this.measure.card === null) return 'wait';
		if (!this.measure.plane) return 'size';
		if (this.middle === null) return 'middle';
		return this.front === null ? 'front' : 'colour';
	});
	/** What there is to do now. */
	readonly says = $derived.by((): string => {
		if (this.problem) return this.problem;
		if (this.reading) return 'Turning the picture and looking for roots …';
		if (this.step === 'wait' || this.step === 'size') return this.measure.says;
		if (this.step === 'middle') return 'Touch the middle of the trunk, where it meets the ground.';
		if (this.step === 'front')
			return `Touch a place towards ${this.frontCalled}, as far from the trunk as you can.`;
		if (this.read && this.base) return 'Touch the other end of the root.';
		return this.read ? this.#found() : '';
	});
	#found(): string {
		const open = this.offers.filter(({ says }) => says === 'open').length;
		const there = this.offers.filter(({ says }) => says === 'there').length;
		const already =
			there === 0
				? ''
				: there === 1
					? ' One stands on the map already.'
					: ` ${there} stand on the map already.`;
		if (this.offers.length === 0)
			return 'No root came out by itself. Touch one to show its colour, or trace it: its base, then its end.';
		return `${open === 0 ? 'None is open any more.' : open === 1 ? 'One is offered: take it or refuse it.' : `${open} are offered, thickest first: take or refuse them.`}${already} What is missing, trace it: touch its base, then its end.`;
	}

	/** A touch in the picture itself, px. */
	touch(at: Point2): void {
		this.problem = '';
		if (this.step === 'wait') return;
		if (this.step === 'size') this.measure.touch(at);
		else if (this.step === 'middle') this.middle = at;
		else if (this.step === 'front') {
			this.front = at;
			void this.look();
		} else {
			this.shown = [...this.shown, at];
			void this.look();
		}
	}
	/** Moves a point that was touched. */
	move(name: string, index: number, to: Point2): void {
		if (name === 'Corner') this.measure.move('corners', index, to);
		else if (name === 'Trunk') this.middle = to;
		else if (name === 'Front') this.front = to;
		else this.shown = this.shown.map((at, i) => (i === index ? to : at));
	}
	/** Takes the last touch back. */
	back(): void {
		this.problem = '';
		if (this.base) this.base = null;
		else if (this.shown.length > 0) this.shown = this.shown.slice(0, -1);
		else if (this.front) this.front = this.read = null;
		else if (this.middle) this.middle = null;
		else this.measure.back();
	}
	get touched(): number {
		return (
			this.measure.corners.length +
			(this.middle ? 1 : 0) +
			(this.front ? 1 : 0) +
			this.shown.length +
			(this.base ? 1 : 0)
		);
	}

	/** How far from the trunk roots are looked for, mm. */
	get reachMm(): number {
		return Math.max(200, 6 * this.map.trunkDiameterMm, 1.4 * this.map.ballRadiusMm);
	}

	/** Turns the picture and looks for roots anew; what was traced or refused by hand stays. */
	async look(): Promise<void> {
		const { plane } = this.measure;
		if (!plane || !this.middle || !this.front) return;
		this.reading = true;
		this.problem = '';
		try {
			const read = await this.#reader.roots(
				this.source,
				{
					plane,
					middle: this.middle,
					front: this.front,
					barkMm: barkAround(this.map),
					trunkDiameterMm: this.map.trunkDiameterMm,
					reachMm: this.reachMm,
					shown: this.shown
				},
				this.values
			);
			if (!read) this.problem = 'The two touches lie on each other: touch the trunk and the front anew.';
			else this.#take(read);
			if (!read) this.middle = this.front = null;
		} catch {
			this.problem = 'The picture could not be read. Load the page again, or take another picture.';
		}
		this.reading = false;
	}
	#take(read: RootsRead): void {
		const ids = read.offers.map(() => newId('o'));
		const offered = read.offers.map((root, i): OnOffer => ({
			id: ids[i] ?? newId('o'),
			root,
			parentId: root.parent === null ? null : (ids[root.parent] ?? null),
			says: standsOnMap(root.course, this.map.segments) ? 'there' : 'open',
			traced: false,
			depthMm: null
		}));
		this.read = read;
		this.offers = [
			...offered.sort((a, b) => b.root.diameterStartMm - a.root.diameterStartMm),
			...this.offers.filter(({ traced }) => traced)
		];
		this.chosenId = null;
	}

	/** A touch on the turned picture, mm of the map: the base of a root, then its end. */
	async trace(at: Point2): Promise<void> {
		this.problem = '';
		if (!this.base) {
			this.base = at;
			return;
		}
		const { base } = this;
		this.base = null;
		const root = await this.#reader.trace(base, at, this.values);
		if (!root) {
			this.problem =
				'No root shows between these two places. Touch nearer to its middle, or enter it by hand.';
			return;
		}
		const { parentId, attachMm } = this.#leaves(base);
		const one: OnOffer = {
			id: newId('o'),
			root: { ...root, parent: null, attachMm },
			parentId,
			says: 'yes',
			traced: true,
			depthMm: null
		};
		this.offers = [...this.offers, one];
		this.chosenId = one.id;
		if (parentId !== null) this.say(parentId, 'yes');
	}
	/** Mends a root along a line that was dragged, mm of the map. */
	async mend(id: string, line: readonly Point2[]): Promise<void> {
		const before = this.offers.find((one) => one.id === id);
		if (!before) return;
		const root = await this.#reader.along(line, before.root.diameterStartMm / 2, this.values);
		if (!root) {
			this.problem = 'No root shows along that line.';
			return;
		}
		this.problem = '';
		const { parent, attachMm } = before.root;
		this.offers = this.offers.map((one) =>
			one.id === id ? { ...one, root: { ...root, parent, attachMm }, traced: true } : one
		);
	}
	/** What a root leaves that begins at a place. */
	#leaves(base: Point2): { parentId: string | null; attachMm: number } {
		const { azimuthDeg, radiusMm } = polarOf(base);
		if (radiusMm <= barkRadiusMm(this.map, azimuthDeg) + AT_TRUNK_MM) return { parentId: null, attachMm: 0 };
		let best = { parentId: null as string | null, attachMm: 0, off: AT_ROOT_MM };
		for (const { id, root, says } of this.offers) {
			if (says === 'no' || says === 'there') continue;
			let along = 0;
			for (const [i, to] of root.course.entries()) {
				const from = root.course[i - 1];
				if (!from) continue;
				const [dx, dy] = [to.x - from.x, to.y - from.y];
				const long = Math.hypot(dx, dy) || 1;
				const t = Math.max(0, Math.min(1, ((base.x - from.x) * dx + (base.y - from.y) * dy) / long ** 2));
				const away = Math.hypot(from.x + t * dx - base.x, from.y + t * dy - base.y);
				const off = away - root.diameterStartMm / 2;
				if (off < best.off) best = { parentId: id, attachMm: along + t * long, off };
				along += long;
			}
		}
		return best;
	}

	/** Takes or refuses one; a side root brings the one it leaves, and goes with it. */
	say(id: string, says: 'yes' | 'no' | 'open'): void {
		const to = new Map([[id, says]]);
		if (says === 'yes')
			for (let at = this.#of(id)?.parentId; at; at = this.#of(at)?.parentId) to.set(at, 'yes');
		else
			for (let before = 0; before < to.size;) {
				before = to.size;
				for (const one of this.offers)
					if (one.parentId !== null && to.has(one.parentId)) to.set(one.id, says);
			}
		this.offers = this.offers.map((one) => {
			const now = to.get(one.id);
			return now && one.says !== 'there' ? { ...one, says: now } : one;
		});
	}
	sayAll(says: 'yes' | 'no'): void {
		this.offers = this.offers.map((one) => (one.says === 'open' ? { ...one, says } : one));
	}
	#of(id: string): OnOffer | undefined {
		return this.offers.find((one) => one.id === id);
	}
	/** A root as it lies: where its depth and that of the plane are said, brought down into the plane. */
	lies(one: OnOffer): ReadRoot<OfferedRoot> {
		const nearerMm = this.#nearerMm(one);
		return this.read && nearerMm !== null && !this.cannotLie(one)
			? atHeight(one.root, nearerMm, this.read.stand, this.values)
			: one.root;
	}
	/** How much nearer to the camera than the card a root lies by what was said, mm; null while the one or the other was not. */
	#nearerMm({ depthMm }: OnOffer): number | null {
		return depthMm === null || this.depthMm === null ? null : this.depthMm - depthMm;
	}
	/** Whether what was said would put a root half way to the camera, or half as far beyond the card: one of the two depths is wrong. */
	cannotLie(one: OnOffer): boolean {
		const nearerMm = this.#nearerMm(one);
		return this.read !== null && nearerMm !== null && 2 * Math.abs(nearerMm) > this.read.stand.cameraMm;
	}
	/** Says how deep one lies; null takes it back. */
	sayDepth(id: string, depthMm: number | null): void {
		this.offers = this.offers.map((one) => (one.id === id ? { ...one, depthMm } : one));
	}
	readonly taken = $derived.by(() => this.offers.filter(({ says }) => says === 'yes'));

	/** The roots that were taken, as a map keeps them, and the picture under it. */
	segments(): { segments: Segment[]; picture: RootMapInput['picture'] } {
		// Each after the one that it leaves.
		const ordered: OnOffer[] = [];
		const put = (one: OnOffer): void => {
			if (ordered.includes(one)) return;
			const parent = this.taken.find(({ id }) => id === one.parentId);
			if (parent) put(parent);
			ordered.push(one);
		};
		this.taken.forEach(put);
		const roots = ordered.map((one) => {
			const parent = ordered.findIndex(({ id }) => id === one.parentId);
			return { ...this.lies(one), parent: parent < 0 ? null : parent, depthMm: one.depthMm };
		});
		const segments = segmentsFromPicture(
			roots,
			this.map,
			{ pictureId: this.picture.id, depthMm: this.depthMm, condition: this.condition },
			this.values,
			() => newId('r')
		);
		return {
			segments,
			picture: this.read && { pictureId: this.picture.id, toPlan: [...this.read.toPlan] }
		};
	}
}
