import FlatQueue from 'flatqueue';
import type { Point2 } from './point';

/** What it costs to go through each pixel of a grid, above 0. */
export interface CostGrid {
	width: number;
	height: number;
	cost: Float32Array;
}

/** Neighbours of a pixel: the eight round it, and the knight's moves between them, so that a slanting line is hardly longer than it is. */
const moves: readonly [number, number, number][] = [
	...[-1, 0, 1].flatMap((x) => [-1, 0, 1].map((y) => [x, y] as const)).filter(([x, y]) => x !== 0 || y !== 0),
	...[-2, -1, 1, 2]
		.flatMap((x) => [-2, -1, 1, 2].map((y) => [x, y] as const))
		.filter(([x, y]) => Math.abs(x * y) === 2)
].map(([x, y]) => [x, y, Math.hypot(x, y)]);

const STAY = [0, 0, 0] as const;

/**
 * The cheapest way over a grid from one pixel to another: a minimal path, by Dijkstra's algorithm.
 * @param from, to pixels of the grid, px
 * @returns pixels from one end to the other with what the way costs, or null where an end lies beyond the grid
 * @see Dijkstra 1959, Numerische Mathematik 1, 269–271; Cohen & Kimmel 1997, IJCV 24, 57–78, on the cost
 */
export function pathBetween(
	{ width, height, cost }: CostGrid,
	from: Point2,
	to: Point2
): { points: Point2[]; cost: number } | null {
	const pixel = ({ x, y }: Point2): number | null => {
		const [u, v] = [Math.floor(x), Math.floor(y)];
		return u >= 0 && v >= 0 && u < width && v < height ? v * width + u : null;
	};
	const [start, end] = [pixel(from), pixel(to)];
	if (start === null || end === null) return null;
	const best = new Float64Array(width * height).fill(Infinity);
	const before = new Int32Array(width * height).fill(-1);
	const queue = new FlatQueue<number>();
	best[start] = 0;
	queue.push(start, 0);
	while (queue.length > 0) {
		const so = queue.peekValue() ?? 0;
		const at = queue.pop() ?? 0;
		if (at === end) break;
		if (so > (best[at] ?? 0)) continue;
		const [x, y] = [at % width, Math.floor(at / width)];
		for (let k = 0; k < moves.length; k++) {
			const [dx, dy, far] = moves[k] ?? STAY;
			const u = x + dx;
			const v = y + dy;
			if (u < 0 || v < 0 || u >= width || v >= height) continue;
			const next = v * width + u;
			const reached = so + (far * ((cost[at] ?? 0) + (cost[next] ?? 0))) / 2;
			if (reached >= (best[next] ?? Infinity)) continue;
			best[next] = reached;
			before[next] = at;
			queue.push(next, reached);
		}
	}
	const points: Point2[] = [];
	for (let at = end; at !== -1; at = before[at] ?? -1)
		points.push({ x: (at % width) + 0.5, y: Math.floor(at / width) + 0.5 });
	return { points: points.reverse(), cost: best[end] ?? Infinity };
}
