import { wallRead } from '$core/examine/pictures/wall';
import { wilsonInterval } from '$core/maths/wilson';
import { defaultValues } from '$core/values/values';
import { wallSceneOf, wallTouches } from '../wall-scene';
import type { Row } from './bench';

/** Walls of roots that no test and no threshold has seen. */
const SEEDS = Array.from({ length: 40 }, (_, i) => 200 + i);

/** How well roots on a wall are read, over drawn walls. */
export async function wallPictureRows(): Promise<Row[]> {
	const offs: number[] = [];
	const ofRoots: number[] = [];
	const readMs: number[] = [];
	let [holds, told, alike] = [0, 0, 0];
	for (const seed of SEEDS) {
		const chance = [0.15, 0.35, 0.5, 0.65, 0.85][seed % 5] ?? 0.5;
		const scene = wallSceneOf(seed, chance, 30 + (seed % 3) * 20, 1400);
		if (scene.places.white.length < 1 || scene.places.brown.length < 1) continue;
		const picture = await scene.draw();
		const began = performance.now();
		const read = wallRead(picture, wallTouches(scene), defaultValues);
		readMs.push(performance.now() - began);
		if (!read || read.mistaken > defaultValues['picture.wallMistakenMost']) {
			alike++;
			continue;
		}
		told++;
		const { shares, sample } = read;
		for (const one of ['white', 'brown'] as const) offs.push(Math.abs(shares[one].share - scene.truth[one]));
		const roots = (of: { white: number; brown: number }): number => of.white / (of.white + of.brown);
		ofRoots.push(
			Math.abs(roots({ white: shares.white.share, brown: shares.brown.share }) - roots(scene.truth))
		);
		const { low, high } = wilsonInterval(sample.white, sample.white + sample.brown);
		if (low <= chance && chance <= high) holds++;
	}
	const sorted = (list: number[]): number[] => [...list].sort((a, b) => a - b);
	const middle = (list: number[]): number => sorted(list)[list.length >> 1] ?? NaN;
	const most = (list: number[]): number => sorted(list).at(-1) ?? NaN;
	const points = (share: number): string => `${(100 * share).toFixed(1)} points`;
	const row = (what: string, measured: string, budget: string, isHeld: boolean): Row => ({
		what: `wall pictures: ${what}`,
		measured,
		budget,
		holds: isHeld
	});
	return [
		row(
			`walls told, of ${told + alike}; of the others more is asked to be touched`,
			String(told),
			'75 %',
			told >= 0.75 * (told + alike)
		),
		row('share of the wall, off in the middle', points(middle(offs)), '4 points', middle(offs) <= 0.04),
		row('share of the wall, off at most', points(most(offs)), 'none', true),
		row(
			'white of the roots, off in the middle',
			points(middle(ofRoots)),
			'8 points',
			middle(ofRoots) <= 0.08
		),
		row(
			'the interval of the sample holds the chance drawn with in',
			`${((100 * holds) / told).toFixed(1)} %`,
			'85 %',
			holds / told >= 0.85
		),
		row('a wall read', `${middle(readMs).toFixed(0)} ms`, '2,000 ms', middle(readMs) <= 2000)
	];
}
