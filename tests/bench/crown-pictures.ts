import { backOf } from '$core/examine/pictures/flat';
import { balanceOf, leafCover } from '$core/examine/pictures/leaf-cover';
import { linedUp } from '$core/examine/pictures/lined-up';
import { seenAt } from '$core/examine/pictures/plane';
import { greyOf } from '$core/examine/pictures/raster';
import { defaultValues as values } from '$core/values/values';
import { crownScene } from '../crown-scene';
import { dice } from '../scene';
import type { Row } from './bench';

/** How many crowns are drawn on two days, none of them those that the tests look at, and how wide, px. */
const CROWNS = 12;
const FROM_SEED = 101;
const WIDTH_PX = 900;

const middle = (list: readonly number[]): number =>
	[...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? NaN;

/** Leaf read from drawn crowns of two days that are laid over each other, against their truth. */
export async function crownPictureRows(): Promise<Row[]> {
	let [lined, within] = [0, 0];
	const [offPx, offShare, lineMs, leafMs]: [number[], number[], number[], number[]] = [[], [], [], []];
	for (let seed = FROM_SEED; seed < FROM_SEED + CROWNS; seed++) {
		const random = dice(seed);
		const [was, is] = crownScene(
			seed,
			[
				{ leaves: random(), moved: 1, cast: [1, 1, 1], pale: 0, shootMm: 20 },
				{
					leaves: random(),
					moved: 1,
					cast: [0.8 + 0.3 * random(), 0.95, 0.75 + 0.4 * random()],
					pale: random(),
					shootMm: 60
				}
			],
			WIDTH_PX
		);
		if (!was || !is) continue;
		const [before, after] = [await was.draw(), await is.draw()];
		const began = performance.now();
		const how = linedUp(greyOf(before), greyOf(after), values);
		lineMs.push(performance.now() - began);
		if (typeof how === 'string') continue;
		lined++;
		for (const [i, at] of was.loop.entries()) {
			const [seen, should] = [seenAt(how.toAfter, at), is.loop[i] ?? at];
			offPx.push(Math.hypot(seen.x - should.x, seen.y - should.y));
		}
		const back = backOf(how.toAfter);
		const asked = performance.now();
		const covers = leafCover(
			[
				{ picture: before, loop: is.loop.map((at) => seenAt(back, at)), balance: balanceOf(before, values) },
				{ picture: after, loop: is.loop, balance: balanceOf(after, values) }
			],
			[how.offPx, 0],
			values
		);
		leafMs.push(performance.now() - asked);
		for (const [i, { cover, error }] of (covers ?? []).entries()) {
			const off = Math.abs(cover - ([was, is][i]?.cover ?? NaN));
			offShare.push(off);
			if (off <= error) within++;
		}
	}
	const row = (what: string, measured: string, budget: string, holds: boolean): Row => ({
		what: `crown pictures: ${what}`,
		measured,
		budget,
		holds
	});
	const covered = within / offShare.length;
	const worst = Math.max(...offShare);
	return [
		row(`pairs of two days lined up, of ${CROWNS}`, String(lined), String(CROWNS), lined === CROWNS),
		row('lined up, off at the crown in the middle', `${middle(offPx).toFixed(2)} px`, 'none', true),
		row(
			'leaf cover, off in the middle and at most',
			`${(100 * middle(offShare)).toFixed(1)}, ${(100 * worst).toFixed(1)} points`,
			'5 points',
			middle(offShare) <= 0.05
		),
		row(
			'its ± covers the true leaf cover in',
			`${(100 * covered).toFixed(1)} %`,
			'85 to 95 %',
			covered >= 0.85 && covered <= 0.95
		),
		row('two lined up', `${(middle(lineMs) / 1000).toFixed(1)} s`, 'none', true),
		row('leaf of both read, their cards with it', `${(middle(leafMs) / 1000).toFixed(1)} s`, 'none', true)
	];
}
