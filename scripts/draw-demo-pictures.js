// Draws the pictures of the demo with the renderer of the tests, and keeps them beside the demo: node scripts/draw-demo-pictures.js
import { writeFile } from 'node:fs/promises';
import sharp from 'sharp';
import { createServer } from 'vite';

const folder = new URL('../src/demo/pictures/', import.meta.url);
const server = await createServer({
	server: { middlewareMode: true },
	appType: 'custom',
	logLevel: 'error'
});
const { demoCrown } = await server.ssrLoadModule('/tests/crown-scene.ts');
const { sideSceneOf } = await server.ssrLoadModule('/tests/side-scene.ts');
const { wallSceneOf } = await server.ssrLoadModule('/tests/wall-scene.ts');
const { rootSceneOf } = await server.ssrLoadModule('/tests/root-scene.ts');

/** A picture as JPEG, as small as the demo needs. */
const keep = async (name, { width, height, data }) =>
	writeFile(
		new URL(`${name}.jpg`, folder),
		await sharp(Buffer.from(data), { raw: { width, height, channels: 4 } })
			.jpeg({ quality: 82 })
			.toBuffer()
	);

const [full, after] = demoCrown();
await keep('crown-then', await full.draw());
await keep('crown-now', await after.draw());
const above = rootSceneOf(8, 1600);
await keep('roots', await above.draw());
// As thick as the trunk of P-09.
await keep('roots-side', await sideSceneOf(above, 24, 3).draw());
const wall = wallSceneOf(33, 0.7, 45, 1600);
await keep('wall', await wall.draw());
console.log(
	JSON.stringify({
		truth: wall.truth,
		edge: wall.edge,
		white: wall.places.white.slice(0, 3),
		brown: wall.places.brown.slice(0, 3),
		none: [...wall.places.none.slice(0, 2), ...wall.stones.slice(0, 2)]
	})
);
console.log(`Leaf of the loop: ${full.cover.toFixed(3)} then, ${after.cover.toFixed(3)} now.`);
await server.close();
