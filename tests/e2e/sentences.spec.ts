import { cp } from 'node:fs/promises';
import path from 'node:path';
import { ended, expect, stageViews, startServer, test } from './helpers';

/** Every sentence that the pages of the demo yard say, read as text in both unit systems. */

const views = [...stageViews, 'stands', 'book'];
const yard = [
	'/',
	'/trees',
	'/yard',
	'/yard/stock',
	'/yard/weather',
	'/yard/outcomes',
	'/practice',
	'/yard/review',
	'/yard/damaged',
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
const NAMES = /Nursery pot \d+\sL|Grow bag \d+\sL|Thermostat at 16\s°C/g;
/** Names of the code, as one finds them in a text that stands alone: where two meet without a space they are none. */
const codeNames = (html: string): string[] =>
	html
		.replace(/<!--[\s\S]*?-->/g, '')
		.replace(/^[\s\S]*?<body/, '<body')
		.replace(/<(script|style|textarea|template)\b[\s\S]*?<\/\1>/g, '')
		.split(/<[^>]+>/)
		.filter((text) => /\b[a-z]{2,}[A-Z][a-z]+\b/.test(text.replace(/iCalendar|https?:\S+|“[^”]*”/g, '')));
/** Measures of each system. */
const IN_UNITS = {
	metric: /(?<![–\d.-])\b\d+(\.\d+)? (mm|cm|kg|L|°C|ml|m)\b(?![²³/])/,
	imperial: /\b\d+(\.\d+)? (ft|lb|US gal|°F|mph|in)\b/
} as const;
/** Words that end in s and are one. */
const ONE = /^1 (loss|is|was|has|less|class|across|glass|this|bus|yes|as|moss|years’)$/;
const faults: readonly [what: string, is: (text: string, imperial: boolean) => boolean][] = [
	['a date as a machine writes it', (text) => /\b(19|20)\d\d-\d\d-\d\d\b/.test(text)],
	['an internal name', (text) => /\b(undefined|NaN|null|Infinity|\[object)\b/.test(text)],
	['an identity', (text) => /\b[0-9a-f]{8}-[0-9a-f]{4}-/.test(text)],
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
		'a word said twice',
		(text) => /\b(with|the|an?|of|to|in|and|it|is|for|on|at|by|its|or|from) \1\b/.test(text)
	],
	['words that run into each other', (text) => /[a-z0-9°%]\((?!s\))|[a-z][,;.?!][A-Z]/.test(text)],
	['a metric measure among imperial ones', (text, imperial) => imperial && IN_UNITS.metric.test(text)],
	[
		'an imperial measure among metric ones',
		(text, imperial) => !imperial && /\b\d+(\.\d+)? (ft|lb|US gal|°F|mph)\b/.test(text)
	]
];

/** A day in spring, as the yard is made for, and one half a year on, when much is done, late or over. */
const days = { metric: '2026-04-18T09:00:00Z', imperial: '2026-10-05T09:00:00Z' } as const;

test('no sentence of the yard shows a machine’s date, an identity, a wrong plural, or a measure of the other system', async ({
	playwright
}, info) => {
	test.setTimeout(300_000);
	const folder = info.outputPath('sentences');
	await cp(path.join(process.env.BRUNTLE_E2E_DATA ?? '', 'demo'), folder, { recursive: true });
	const port = 4890 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
	const server = `http://127.0.0.1:${port}`;
	const api = await playwright.request.newContext({ baseURL: server, extraHTTPHeaders: { origin: server } });
	const found: string[] = [];
	const read = { metric: 0, imperial: 0 };
	/** Every page of the yard on a day, in one system of units. */
	const readYard = async (units: keyof typeof read): Promise<void> => {
		const { trees } = (await (await api.get('/api/v1/trees')).json()) as {
			trees: { id: string; tag: string }[];
		};
		const addresses = [
			...yard.map((address) => ({ address, name: address })),
			...trees.flatMap(({ id, tag }) =>
				views.map((view) => ({ address: `/trees/${id}/${view}`, name: `${tag} ${view}` }))
			)
		];
		const kept = await api.post('/yard/settings?/format', { form: { units, locale: 'en-GB' } });
		expect(kept.ok()).toBe(true);
		for (const { address, name } of addresses) {
			const response = await api.get(address, { headers: { accept: 'text/html' } });
			// A page that did not come says nothing wrong, and nothing right.
			if (!response.ok()) found.push(`${name}: answered ${response.status()}`);
			const html = await response.text();
			for (const text of codeNames(html))
				found.push(`${name}: a name of the code: ${text.trim().slice(0, 200)}`);
			for (const said of textsOf(html)) {
				const text = said.replace(NAMES, 'its name');
				if (IN_UNITS[units].test(text)) read[units]++;
				for (const [what, is] of faults)
					if (is(text, units === 'imperial')) found.push(`${units}, ${name}: ${what}: ${text.slice(0, 200)}`);
			}
		}
	};
	try {
		for (const [units, now] of Object.entries(days) as [keyof typeof read, string][]) {
			const running = await startServer(path.join(folder, 'demo.db'), port, { BRUNTLE_NOW: now });
			try {
				await readYard(units);
			} finally {
				const gone = ended(running);
				running.kill();
				await gone;
			}
		}
		expect(found).toEqual([]);
		// The test itself sees what it looks for: each system was read in its own measures.
		expect(Math.min(read.metric, read.imperial)).toBeGreaterThan(500);
	} finally {
		await api.dispose();
	}
});
