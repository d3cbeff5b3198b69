import { z } from 'zod';
import { lengthIn, pictureLengthInput, planeFaults, planeOf } from '../examine/pictures/plane';
import { calculation, type Calculation } from './calculation';

const number = z.number();

/** Calculations from pictures. */
export const pictureCalculations: readonly Calculation[] = [
	calculation(
		'picture-length',
		'A length in a picture, by a rectangle of known size that lies in its plane, with the error of the touches',
		pictureLengthInput,
		z.object({
			fault: z.enum(planeFaults).nullable().describe('Why the corners do not tell the plane'),
			length: z
				.object({
					mm: number,
					errorMm: number.describe('Within so much the true length lies in 95 of 100, mm'),
					tiltDeg: number.nullable(),
					distanceMm: number.describe('From the camera to the middle of the rectangle, mm')
				})
				.nullable()
		}),
		({ corners, rectangle, picture, points, touchPx }, values) => {
			const plane = planeOf(corners, rectangle, picture, values);
			if (typeof plane === 'string') return { fault: plane, length: null };
			const { tiltDeg, distanceMm } = plane;
			const length = lengthIn(plane, points, touchPx, values);
			return length
				? { fault: null, length: { ...length, tiltDeg, distanceMm } }
				: { fault: 'too-far' as const, length: null };
		}
	)
];
