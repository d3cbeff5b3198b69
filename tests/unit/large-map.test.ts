import { describe, expect, it } from 'vitest';
import { isLarge } from '$core/roots/map/large';
import type { RootMap } from '$core/roots/map/root-map';
import { transport } from '../../src/hooks';

const mapOf = (roots: number, points: number): RootMap =>
	({
		id: 'm',
		mappedOn: '2026-04-18',
		ballRadiusMm: 260,
		note: 'of the course [1,2]',
		segments: Array.from({ length: roots }, (_, i) => ({
			id: `r${i}`,
			parentId: null,
			diameterStartMm: 12,
			note: 'over “course”',
			course: Array.from({ length: points }, (_, j) => ({
				azimuthDeg: (i * 0.9 + j / 7) % 360,
				radiusMm: 50 + j * 12.5,
				depthMm: j / 3
			}))
		}))
	}) as unknown as RootMap;

describe('a large map on its way into a page', () => {
	const { encode, decode } = transport.map ?? {};
	it('arrives as it was, to the last digit', () => {
		const map = mapOf(100, 41);
		expect(isLarge(map)).toBe(true);
		const sent: unknown = encode?.(map);
		expect(typeof sent).toBe('string');
		expect(decode?.(sent)).toEqual(map);
		// Another map of the same identity is another text.
		const moved = { ...map, ballRadiusMm: 270 };
		expect(decode?.(encode?.(moved))).toEqual(moved);
	});
	it('is sent field by field where it is small, as is all else', () => {
		for (const other of [mapOf(100, 40), mapOf(1, 2), null, [], 'map', { segments: [] }, { ballRadiusMm: 1 }])
			expect(encode?.(other) || false).toBe(false);
	});
});
