/** A point of a picture in pixels from its upper left, or of a plane in millimetres. */
export interface Point2 {
	x: number;
	y: number;
}

/** How long a line through points is, in their own unit. */
export const lengthThrough = (line: readonly Point2[]): number =>
	line.reduce((sum, { x, y }, i) => {
		const before = line[i - 1];
		return sum + (before ? Math.hypot(x - before.x, y - before.y) : 0);
	}, 0);
