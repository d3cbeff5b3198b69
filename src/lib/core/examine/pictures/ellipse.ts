import { EVD, inverse, Matrix } from 'ml-matrix';
import type { Point2 } from './point';

/** An ellipse: its middle, its half axes, and how the longer one is turned. */
export interface Ellipse {
	middle: Point2;
	halfLong: number;
	halfShort: number;
	/** From the x axis towards y, degrees, 0 … 180. */
	turnDeg: number;
}

/** Numbers that an ellipse has. */
const LEAST_POINTS = 5;

/**
 * The ellipse through points, by direct least squares: of all conics the one that is an ellipse and lies nearest to them by its equation.
 * @param points five or more, not on one line
 * @returns null where they tell none
 * @see Fitzgibbon, Pilu & Fisher 1999, IEEE PAMI 21, 476–480; in the stable form of Halíř & Flusser 1998
 */
export function ellipseThrough(points: readonly Point2[]): Ellipse | null {
	if (points.length < LEAST_POINTS) return null;
	const mean = (of: (point: Point2) => number): number =>
		points.reduce((sum, point) => sum + of(point), 0) / points.length;
	const [x0, y0] = [mean(({ x }) => x), mean(({ y }) => y)];
	const scale = mean(({ x, y }) => Math.hypot(x - x0, y - y0));
	if (!(scale > 0)) return null;
	const level = points.map(({ x, y }) => ({ x: (x - x0) / scale, y: (y - y0) / scale }));
	const squares = new Matrix(level.map(({ x, y }) => [x * x, x * y, y * y]));
	const lines = new Matrix(level.map(({ x, y }) => [x, y, 1]));
	const [s1, s2, s3] = [
		squares.transpose().mmul(squares),
		squares.transpose().mmul(lines),
		lines.transpose().mmul(lines)
	];
	const conic = conicOf(s1, s2, s3);
	return conic && ellipseOf(conic, { x: x0, y: y0 }, scale);
}

/** The conic a x² + b xy + c y² + d x + e y + f with 4ac − b² > 0. */
function conicOf(s1: Matrix, s2: Matrix, s3: Matrix): number[] | null {
	let toLines: Matrix;
	try {
		toLines = inverse(s3).mmul(s2.transpose()).mul(-1);
	} catch {
		return null;
	}
	const reduced = s1.add(s2.mmul(toLines));
	const [a, b, c] = [reduced.getRow(0), reduced.getRow(1), reduced.getRow(2)];
	const { realEigenvalues, imaginaryEigenvalues, eigenvectorMatrix } = new EVD(
		new Matrix([c.map((value) => value / 2), b.map((value) => -value), a.map((value) => value / 2)])
	);
	for (const i of realEigenvalues.keys()) {
		if (Math.abs(imaginaryEigenvalues[i] ?? 1) > 1e-9) continue;
		const head = eigenvectorMatrix.getColumn(i);
		const [p = 0, q = 0, r = 0] = head;
		if (4 * p * r - q * q > 0) return [...head, ...toLines.mmul(Matrix.columnVector(head)).to1DArray()];
	}
	return null;
}

/** A conic as middle, axes and turn, back in the measure of the points. */
function ellipseOf(
	[a = 0, b = 0, c = 0, d = 0, e = 0, f = 0]: number[],
	about: Point2,
	scale: number
): Ellipse | null {
	const det = 4 * a * c - b * b;
	const [x, y] = [(b * e - 2 * c * d) / det, (b * d - 2 * a * e) / det];
	const at = a * x * x + b * x * y + c * y * y + d * x + e * y + f;
	const spread = Math.hypot(a - c, b);
	const axis = (sign: number): number => Math.sqrt((-2 * at) / (a + c + sign * spread));
	const [one, other] = [axis(1), axis(-1)];
	if (!Number.isFinite(one) || !Number.isFinite(other) || one <= 0 || other <= 0) return null;
	// The axis that belongs to a + c + spread lies along the direction in which the form grows fastest.
	const fastest = 0.5 * Math.atan2(b, a - c);
	const long = one >= other ? fastest : fastest + Math.PI / 2;
	return {
		middle: { x: about.x + scale * x, y: about.y + scale * y },
		halfLong: scale * Math.max(one, other),
		halfShort: scale * Math.min(one, other),
		turnDeg: ((((long * 180) / Math.PI) % 180) + 180) % 180
	};
}
