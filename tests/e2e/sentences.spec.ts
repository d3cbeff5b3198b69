import { cp } from 'node:fs/promises';
import path from 'node:path';
import { ended, expect, startServer, test } from './helpers';

/** Every sentence that the pages of the demo yard say, read as text in both unit systems. */

const stages = [
	'take-in',
	'examine',
	'examine/measure',
	'examine/soil',
	'examine/before',
	'examine/changes',
	'examine/sheet',
	'roots',
	'roots/bench',
	'roots/card',
	'replant',
	'replant/mix',
	'replant/lift',
	'replant/ground',
	'replant/kit',
	'aftercare',
	'recovery',
	'recovery/report',
	'recovery/letter',
	'stands',
	'book'
];
const yard = [
	'/',
	'/trees',
	'/yard',
	'/yard/stock',
	'/yard/weather',
	'/yard/outcomes',
	'/yard/review',
	'/calendar',
	'/round',
	'/reference/kinds',
	'/reference/cautions',
	'/reference/glossary'
];

const entities: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', nbsp: ' ' };
/** What a page says, block by block; what a person typed there stands apart and is left out. */
const textsOf = (html: string): string[] =>
	html
		.replace(/<!--[\s\S]*?-->/g, '')
		.replace(/^[\s\S]*?<body/, '<body')
		.replace(/<(script|style|textarea|template)\b[\s\S]*?<\/\1>/g, '')
		.replace(/<span[^>]*\b(block|ml-auto)\b[^>]*>/g, ' ')
		// Buttons stand apart from words, and close to a mark that follows them.
		.replace(/<\/?button\b[^>]*>(?:\s*<!--.*?-->)*(?=\s*[,;.:?)])/g, '')
		.replace(/<\/?button\b[^>]*>/g, ' ')
		.replace(/<\/?(span|strong|em|b|a|abbr|tspan)\b[^>]*>/g, '')
		.split(/<[^>]+>/)
		.map((text) =>
			text
				.replace(/&(\w+);/g, (whole, name: string) => entities[name] ?? whole)
				.replace(/&#(\d+);/g, (_, code: string) => String.fromCodePoint(Number(code)))
				.replace(/\s+/g, ' ')
				.trim()
		)
		.filter((text) => text !== '');

/** Names that people of the yard gave, with their own units in them. */
const NAMES = /Nursery pot \d+ L|Grow bag \d+ L|Thermostat at 16 °C/g;
/** Words that end in s and are one. */
const ONE = /^1 (loss|is|was|has|less|class|across|glass|this|bus|yes|as|moss|years’)$/;
const faults: readonly [what: string, is: (text: string, imperial: boolean) => boolean][] = [
	['a date as a machine writes it', (text) => /\b(19|20)\d\d-\d\d-\d\d\b/.test(text)],
	['an internal name', (text) => /\b(undefined|NaN|null|Infinity|\[object)\b/.test(text)],
	['an identity', (text) => /\b[0-9a-f]{8}-[0-9a-f]{4}-/.test(text)],
	[
		'a name of the code',
		(text) =>
			/(?<![a-z] ?)\b[a-z]{2,}[A-Z][a-z]+\b/.test(text.replace(/iCalendar|https?:\S+|“[^”]*”/g, '')) &&
			!text.includes(' ')
	],
	[
		'a wrong plural',
		(text) => [...text.matchAll(/(?<![\d.,:/–-] ?)\b1 [a-z]+s\b/g)].some(([words]) => !ONE.test(words))
	],
	[
		'a wrong singular',
		(text) =>
			/(?<![\d.,:/’I] ?)\b([2-9]|[1-9]\d{1,2}) (day|week|month|year|minute|person|reading)\b(?![-’])/.test(
				text
			)
	],
	['a bare number of statistics', (text) => /log-odds|R̄|Cramér|resultant length/i.test(text)],
	[
		'doubled or stray marks',
		(text) => /\.\.(?!\.)| [,;.](?! ?\d)|[,;]\.|\?\.|:\.|,,/.test(text.replace(/…/g, ''))
	],
	[
		'a metric measure among imperial ones',
		(text, imperial) => imperial && /(?<![–\d.-])\b\d+(\.\d+)? (mm|cm|kg|L|°C|ml|m)\b(?![²³/])/.test(text)
	],
	[
		'an imperial measure among metric ones',
		(text, imperial) => !imperial && /\b\d+(\.\d+)? (ft|lb|US gal|°F|mph)\b/.test(text)
	]
];

test('no sentence of the yard shows a machine’s date, an identity, a wrong plural, or a measure of the other system', async ({
	playwright
}, info) => {
	test.setTimeout(300_000);
	const folder = info.outputPath('sentences');
	await cp(path.join(process.env.BRUNTLE_E2E_DATA ?? '', 'demo'), folder, { recursive: true });
	const port = 4890 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
	const server = `http://127.0.0.1:${port}`;
	const running = await startServer(path.join(folder, 'demo.db'), port, {
		BRUNTLE_NOW: '2026-04-18T09:00:00Z'
	});
	const api = await playwright.request.newContext({ baseURL: server, extraHTTPHeaders: { origin: server } });
	try {
		const { trees } = (await (await api.get('/api/v1/trees')).json()) as {
			trees: { id: string; tag: string }[];
		};
		const found: string[] = [];
		for (const units of ['metric', 'imperial']) {
			await api.post('/yard/settings?/format', { form: { units, locale: 'en-GB' } });
			const views = [...yard, ...trees.flatMap(({ id }) => stages.map((stage) => `/trees/${id}/${stage}`))];
			for (const view of views) {
				const response = await api.get(view);
				if (!response.ok()) continue;
				const { tag } = trees.find(({ id }) => view.includes(id)) ?? { tag: '' };
				for (const said of textsOf(await response.text())) {
					const text = said.replace(NAMES, 'its name');
					for (const [what, is] of faults)
						if (is(text, units === 'imperial'))
							found.push(
								`${units} ${tag} ${view
									.split('/')
									.slice(tag ? 3 : 1)
									.join('/')}: ${what}: ${text.slice(0, 200)}`
							);
				}
			}
		}
		console.log([...new Set(found.map((x) => x.replace(/^(\w+) \S+ (.*)$/, '$1 $2')))].join('\n'));
		expect(found).toEqual([]);
	} finally {
		await api.dispose();
		const gone = ended(running);
		running.kill();
		await gone;
	}
});
