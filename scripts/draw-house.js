// Draws docs/house.svg from the imports: the parts of the house, the floors of its core, and who uses whom.
import { writeFileSync } from 'node:fs';
import { coreFloors, importsOf, parts, roomOf } from './house.js';

const [width, floorHeight, left, boxWidth] = [1120, 34, 250, 500];

/** @param {string} text */
const plain = (text) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

/**
 * The picture, from the imports as they are.
 * @param {Map<string, string[]>} imports from `importsOf`
 * @returns {string} SVG
 */
export function drawHouse(imports) {
	const used = new Set(
		[...imports].flatMap(([file, to]) =>
			to.map((other) => {
				const [a, b] = [roomOf(file), roomOf(other)];
				if (!a || !b) return '';
				return a.part === 'core' && b.part === 'core' ? `${a.room}>${b.room}` : `${a.part}>${b.part}`;
			})
		)
	);
	const top = 190;
	const yOf = (/** @type {number} */ index) => top + (coreFloors.length - 1 - index) * floorHeight;
	const height = top + coreFloors.length * floorHeight + 30;
	const floors = coreFloors.map(
		({ name, holds }, index) =>
			`<g><rect x="${left}" y="${yOf(index)}" width="${boxWidth}" height="${floorHeight - 6}" rx="4" class="box"/>` +
			`<text x="${left + 12}" y="${yOf(index) + 19}" class="name">${name}</text>` +
			`<text x="${left + 110}" y="${yOf(index) + 19}">${plain(holds)}</text></g>`
	);
	const arcs = coreFloors.flatMap(({ name }, above) =>
		coreFloors.flatMap((lower, below) => {
			if (!used.has(`${name}>${lower.name}`)) return [];
			const [from, to] = [yOf(above) + 14, yOf(below) + 14];
			const reach = 16 + (above - below) * 13;
			// Next floor on the left, further ones on the right.
			return above - below === 1
				? [
						`<path d="M${left} ${from} C${left - 26} ${from} ${left - 26} ${to} ${left - 3} ${to}" class="arc"/>`
					]
				: [
						`<path d="M${left + boxWidth} ${from} C${left + boxWidth + reach} ${from} ${left + boxWidth + reach} ${to} ${left + boxWidth + 3} ${to}" class="arc"/>`
					];
		})
	);
	const places = /** @type {Record<string, [number, number]>} */ ({
		routes: [left + 180, 14],
		views: [left, 74],
		demo: [left + 360, 74],
		ui: [left - 180, 134],
		workers: [left + 60, 134],
		server: [left + 300, 134]
	});
	const box = (/** @type {string} */ name) => {
		const [x, y] = places[name] ?? [0, 0];
		const { holds } = parts[/** @type {keyof typeof parts} */ (name)];
		return `<g><rect x="${x}" y="${y}" width="200" height="42" rx="4" class="box"/><text x="${x + 10}" y="${y + 17}" class="name">${name}</text><text x="${x + 10}" y="${y + 33}" class="small">${plain(holds)}</text></g>`;
	};
	const lines = Object.keys(places).flatMap((from) =>
		[...Object.keys(places), 'core'].flatMap((to) => {
			if (from === to || !used.has(`${from}>${to}`)) return [];
			const [x, y] = places[from] ?? [0, 0];
			const [toX, toY] = to === 'core' ? [x - 12, top - 8] : (places[to] ?? [0, 0]);
			const endX = to === 'core' ? Math.max(left + 30, Math.min(left + boxWidth - 30, x + 100)) : toX + 100;
			return [`<path d="M${x + 100} ${y + 42} L${endX} ${to === 'core' ? top - 10 : toY - 2}" class="arc"/>`];
		})
	);
	return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" font-family="sans-serif" font-size="13" role="img" aria-label="Parts of the house and floors of its core; every arrow leads down">
<style>svg{background:#fff}.box{fill:#f4f1ea;stroke:#6b6256}.name{font-weight:700;fill:#22201c}text{fill:#444}.small{font-size:10.5px}.arc{fill:none;stroke:#8a7f70;stroke-width:1.1;marker-end:url(#tip);opacity:.75}</style>
<defs><marker id="tip" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="6" markerHeight="6" orient="auto"><path d="M0 0 L8 4 L0 8 z" fill="#8a7f70"/></marker></defs>
${lines.join('\n')}
${Object.keys(places).map(box).join('\n')}
<text x="${left - 230}" y="${top + 19}" class="name">core</text>
<text x="${left - 230}" y="${top + 37}">${plain(parts.core.holds)}:</text>
<text x="${left - 230}" y="${top + 53}">fifteen floors, every arrow</text>
<text x="${left - 230}" y="${top + 69}">leads down</text>
${arcs.join('\n')}
${floors.join('\n')}
</svg>
`.replace('fifteen', String(coreFloors.length));
}

if (process.argv[1]?.endsWith('draw-house.js')) writeFileSync('docs/house.svg', drawHouse(importsOf()));
