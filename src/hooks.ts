import type { Transport } from '@sveltejs/kit';
import { isLarge } from '$core/roots/map/large';
import type { RootMap } from '$core/roots/map/root-map';

const isMap = (value: unknown): value is RootMap =>
	typeof value === 'object' && value !== null && 'segments' in value && 'ballRadiusMm' in value;

/** A map stays one object as long as nothing of it is written. */
const written = new WeakMap<RootMap, string>();

/** A large map as one text, its courses as plain numbers; written once for all pages. */
function textOf(map: RootMap): string {
	const known = written.get(map);
	if (known !== undefined) return known;
	const text = JSON.stringify({
		...map,
		segments: map.segments.map(({ course, ...segment }) => ({
			...segment,
			course: course.map(({ azimuthDeg, radiusMm, depthMm }) => [azimuthDeg, radiusMm, depthMm])
		}))
	});
	written.set(map, text);
	return text;
}

/** Field by field, a large map would hold up others while it is written into its page. */
export const transport: Transport = {
	map: {
		// Never asked for in the browser, whose first page is to be small.
		encode: (value) => import.meta.env.SSR && isMap(value) && isLarge(value) && textOf(value),
		decode: (text: string) =>
			JSON.parse(text, (key, value: unknown) =>
				key === 'course'
					? (value as number[][]).map(([azimuthDeg, radiusMm, depthMm]) => ({
							azimuthDeg,
							radiusMm,
							depthMm
						}))
					: value
			) as unknown
	}
};
