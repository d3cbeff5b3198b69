import type { OfferedRoot } from '$core/examine/pictures/offered';
import type { TracedRoot } from '$core/examine/pictures/traced';
import { turnDeg } from '$core/maths/circular';
import type { TrueRoot } from './root-scene';
import type { Point2 } from '$core/examine/pictures/plane';

/* How well roots read from a picture agree with the truth of its scene. */

/** How far a place lies from a line, mm. */
export function awayFrom(line: readonly Point2[], { x, y }: Point2): number {
	let best = Infinity;
	for (let i = 1; i < line.length; i++) {
		const [a, b] = [line[i - 1], line[i]];
		if (!a || !b) continue;
		const [dx, dy] = [b.x - a.x, b.y - a.y];
		const t = Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy || 1)));
		best = Math.min(best, Math.hypot(a.x + t * dx - x, a.y + t * dy - y));
	}
	return best;
}

/** Share of a read root that lies within a true one. */
const liesOn = (read: readonly Point2[], root: TrueRoot): number => {
	let [on, all] = [0, 0];
	for (let i = 1; i < read.length; i++) {
		const [a, b] = [read[i - 1], read[i]];
		if (!a || !b) continue;
		const steps = Math.max(1, Math.round(Math.hypot(b.x - a.x, b.y - a.y) / 3));
		for (let k = 0; k < steps; k++) {
			const at = { x: a.x + ((b.x - a.x) * k) / steps, y: a.y + ((b.y - a.y) * k) / steps };
			all++;
			const near = root.points.some(
				(point) => Math.hypot(point.x - at.x, point.y - at.y) < point.radiusMm + 3
			);
			if (near) on++;
		}
	}
	return all > 0 ? on / all : 0;
};

export interface Matched {
	root: TrueRoot;
	read: OfferedRoot;
}
/** True roots with the one that reads them best, those that nobody read, and what was read where there is none. */
export function matched(
	roots: readonly TrueRoot[],
	read: readonly OfferedRoot[]
): { pairs: Matched[]; missed: TrueRoot[]; false: OfferedRoot[] } {
	const pairs: Matched[] = [];
	const used = new Set<OfferedRoot>();
	const missed: TrueRoot[] = [];
	for (const root of roots) {
		let [best, share] = [null as OfferedRoot | null, 0];
		for (const one of read) {
			if (used.has(one)) continue;
			const on = liesOn(one.course, root);
			const covers =
				root.points.filter(
					(point) => point.alongMm <= root.lengthMm && awayFrom(one.course, point) < point.radiusMm + 3
				).length / root.lengthMm;
			const value = Math.min(on, covers + 0.2);
			if (on > 0.6 && covers > 0.4 && value > share) [best, share] = [one, value];
		}
		if (best) {
			used.add(best);
			pairs.push({ root, read: best });
		} else missed.push(root);
	}
	const isFalse = (one: OfferedRoot): boolean =>
		!used.has(one) && roots.every((root) => liesOn(one.course, root) < 0.6);
	return { pairs, missed, false: read.filter(isFalse) };
}

/** How far a read root is off the truth. */
export function offs({ root, read }: { root: TrueRoot; read: TracedRoot }): {
	azimuthDeg: number;
	lengthShare: number;
	thicknessMm: number;
	thicknessShare: number;
} {
	const dir = (points: readonly Point2[], mm: number): number => {
		const [a] = points;
		const b = points.find((point) => a && Math.hypot(point.x - a.x, point.y - a.y) >= mm) ?? points.at(-1);
		return a && b ? (Math.atan2(b.x, -b.y) * 180) / Math.PI : NaN;
	};
	const thickness = read.diameterStartMm - root.diameterStartMm;
	return {
		azimuthDeg: turnDeg(dir(root.points.slice(0, 2), 1), dir(read.course.slice(0, 2), 0.01)),
		lengthShare: read.lengthMm / root.lengthMm - 1,
		thicknessMm: thickness,
		thicknessShare: thickness / root.diameterStartMm
	};
}
