import type { Point2 } from '$core/examine/pictures/plane';

/** A camera over a plane with a known truth: tilted, turned, at a distance, with its picture about its middle. */
export interface Pinhole {
	tiltDeg: number;
	/** Towards where it is tilted, and how the picture is turned, degrees. */
	towardDeg: number;
	rollDeg: number;
	distanceMm: number;
	focalPx: number;
	widthPx: number;
	heightPx: number;
}

type Vector = [number, number, number];
const turned = ([x, y, z]: Vector, axis: 'x' | 'z', deg: number): Vector => {
	const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
	return axis === 'x' ? [x, c * y - s * z, s * y + c * z] : [c * x - s * y, s * x + c * y, z];
};

/** Where the camera sees a point of the plane, or one so far above it towards the camera, px. */
export function seenBy(camera: Pinhole, { x, y }: Point2, aboveMm = 0): Point2 {
	const toward = turned([x, y, -aboveMm], 'z', camera.towardDeg);
	const tilted = turned(toward, 'x', camera.tiltDeg);
	const [u, v, depth] = turned(tilted, 'z', camera.rollDeg);
	const scale = camera.focalPx / (depth + camera.distanceMm);
	return { x: camera.widthPx / 2 + u * scale, y: camera.heightPx / 2 + v * scale };
}
