import { createRandom } from '$core/maths/random';
import type { Store } from '$lib/server/db/database';
import { keepPicture } from '$lib/server/pictures';
import { today } from '$lib/server/clock';
import sharp from 'sharp';
import crownNow from './pictures/crown-now.jpg?inline';
import crownThen from './pictures/crown-then.jpg?inline';
import rootsFromSide from './pictures/roots-side.jpg?inline';
import wall from './pictures/wall.jpg?inline';
import rootsSeen from './pictures/roots.jpg?inline';

/** A drawn tree, so that the demo has pictures of nobody's: trunk, boughs, and as many leaves as it bore. */
function drawnTree(seed: number, leaves: number): string {
	const { between, next } = createRandom(seed);
	const boughs: string[] = [];
	const tips: [number, number][] = [];
	const grow = (x: number, y: number, angle: number, length: number, thick: number): void => {
		const [ex, ey] = [x + Math.cos(angle) * length, y - Math.sin(angle) * length];
		boughs.push(
			`<path d="M${x.toFixed(0)} ${y.toFixed(0)}L${ex.toFixed(0)} ${ey.toFixed(0)}" stroke="#4b3a2c" stroke-width="${thick.toFixed(1)}" stroke-linecap="round"/>`
		);
		if (thick < 4) {
			tips.push([ex, ey]);
			return;
		}
		for (const turn of [-0.55, 0.05, 0.5])
			grow(ex, ey, angle + turn + between(-0.15, 0.15), length * between(0.66, 0.8), thick * 0.62);
	};
	grow(450, 760, Math.PI / 2, 170, 34);
	const crown = tips.flatMap(([x, y]) =>
		next() < leaves
			? Array.from(
					{ length: 5 },
					() =>
						`<circle cx="${(x + between(-22, 22)).toFixed(0)}" cy="${(y + between(-18, 18)).toFixed(0)}" r="${between(6, 12).toFixed(0)}" fill="${next() < 0.5 ? '#58803c' : '#6f9a49'}"/>`
				)
			: []
	);
	return `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="900"><rect width="900" height="900" fill="#d9d4c7"/><rect y="800" width="900" height="100" fill="#b8ae9a"/>${boughs.join('')}${crown.join('')}<path d="M300 750h300l-30 100h-240z" fill="#7d5a3c"/></svg>`;
}

/** Pictures of one tree from the same spot, drawn. */
export async function makeDemoPictures(
	store: Store,
	treeId: string,
	list: readonly { takenOn: string; leaves: number }[]
): Promise<void> {
	for (const { takenOn, leaves } of list)
		await keepPicture(
			store,
			treeId,
			{ view: 'front', takenOn, note: 'Drawn for the demo' },
			await sharp(Buffer.from(drawnTree(12, leaves)))
				.png()
				.toBuffer(),
			today()
		);
}

/** What is drawn of two trees by the renderer of the tests: a crown on two days, and a root base from above, from the side, and on the wall of its ball; each with the printed card. */
const drawn = {
	'crown-then': crownThen,
	'crown-now': crownNow,
	roots: rootsSeen,
	'roots-side': rootsFromSide,
	wall
};

/** Pictures drawn as a phone would take them. */
export async function keepDrawn(
	store: Store,
	treeId: string,
	list: readonly { what: keyof typeof drawn; view: string; takenOn: string }[]
): Promise<void> {
	for (const { what, view, takenOn } of list)
		await keepPicture(
			store,
			treeId,
			{ view, takenOn, note: 'Drawn for the demo, not taken' },
			Buffer.from(drawn[what].slice(drawn[what].indexOf(',') + 1), 'base64'),
			today()
		);
}
