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

const movesX = Int32Array.from(moves, ([x]) => x);
const movesY = Int32Array.from(moves, ([, y]) => y);
const movesFar = Float64Array.from(moves, ([, , far]) => far);

/**
 * The cheapest way over a grid from one pixel to another: a minimal path. What is left of the way costs at least its length through the
 * cheapest pixels, so that what leads away is looked at last.
 * @param from, to pixels of the grid, px
 * @returns pixels from one end to the other with what the way costs, or null where an end lies beyond the grid
 * @see Dijkstra 1959, Numerische Mathematik 1, 269–271; Hart, Nilsson & Raphael 1968, IEEE Transactions on Systems Science and Cybernetics 4,
 * 100–107; Cohen & Kimmel 1997, IJCV 24, 57–78, on the cost
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
	const cheapest = leastOf(cost);
	const [endX, endY] = [end % width, Math.floor(end / width)];
	const best = new Float64Array(width * height).fill(Infinity);
	const before = new Int32Array(width * height).fill(-1);
	const isDone = new Uint8Array(width * height);
	const queue = new FlatQueue<number>();
	best[start] = 0;
	queue.push(start, 0);
	while (queue.length > 0) {
		const at = queue.pop() ?? 0;
		if (at === end) break;
		if (isDone[at] === 1) continue;
		isDone[at] = 1;
		const so = best[at] ?? 0;
		const own = cost[at] ?? 0;
		const x = at % width;
		const y = (at - x) / width;
		for (let k = 0; k < movesX.length; k++) {
			const u = x + (movesX[k] ?? 0);
			const v = y + (movesY[k] ?? 0);
			if (u < 0 || v < 0 || u >= width || v >= height) continue;
			const next = v * width + u;
			const reached = so + ((movesFar[k] ?? 0) * (own + (cost[next] ?? 0))) / 2;
			if (reached >= (best[next] ?? Infinity)) continue;
			best[next] = reached;
			before[next] = at;
			queue.push(next, reached + cheapest * Math.sqrt((u - endX) ** 2 + (v - endY) ** 2));
		}
	}
	const points: Point2[] = [];
	for (let at = end; at !== -1; at = before[at] ?? -1)
		points.push({ x: (at % width) + 0.5, y: Math.floor(at / width) + 0.5 });
	return { points: points.reverse(), cost: best[end] ?? Infinity };
}

const leastOf = (cost: Float32Array): number => {
	let least = Infinity;
	for (const value of cost) if (value < least) least = value;
	return least;
};
