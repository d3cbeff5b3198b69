import { expect, test as base, type BrowserContext, type Locator, type Page } from '@playwright/test';
import axe from 'axe-core';
import { spawn, type ChildProcess } from 'node:child_process';
import { cp } from 'node:fs/promises';
import path from 'node:path';

export { expect, request, type Page } from '@playwright/test';

/** The pages of a tree, by stage. */
export const stageViews = [
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
	'recovery/pictures',
	'recovery/backups',
	'recovery/report',
	'recovery/letter',
	'rehearse'
];

export const OWN = 'http://127.0.0.1:4801';
const demoPort = 4820 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
export const DEMO = `http://127.0.0.1:${demoPort}`;

/** Starts a server on a database of its own and waits until it says where it is. */
export async function startServer(
	database: string,
	port: number,
	env: Record<string, string> = {}
): Promise<ChildProcess> {
	const child = spawn('node', ['scripts/serve.js'], {
		env: {
			...process.env,
			DATABASE_URL: `file:${database}`,
			PORT: String(port),
			BRUNTLE_NOW: '2026-04-18T09:00:00Z',
			BRUNTLE_BACKUPS: '0',
			...env
		}
	});
	// A test that fails leaves no server behind on its port.
	const end = (): void => void child.kill();
	process.once('exit', end);
	child.on('exit', () => process.off('exit', end));
	await new Promise<void>((resolve, reject) => {
		let said = '';
		child.stderr?.on('data', (text: Buffer) => (said += text.toString()));
		child.stdout?.on('data', (text: Buffer) => text.toString().includes('Bruntle is at') && resolve());
		child.on('exit', (code) => reject(new Error(`the server ended with ${code}: ${said}`)));
	});
	return child;
}
export const ended = (child: ChildProcess): Promise<number | null> =>
	new Promise((resolve) => child.on('exit', (code) => resolve(code)));

/** The demo yard of this worker, and the file of tests that has it. */
let demo: { server: ChildProcess; file: string } | null = null;
let copies = 0;
process.on('exit', () => demo?.server.kill());

/** The browser’s own memory of scripts is kept through a file of tests: reading them anew took a third of the time. */
let browsing: { context: BrowserContext; file: string } | null = null;

/** Every file of tests finds the demo yard as it was made: what another does in it, it never meets. */
export const test = base.extend<{ demoYard: void }>({
	context: async ({ browser }, use, info) => {
		if (browsing?.file !== info.file || browsing.context.browser() !== browser) {
			await browsing?.context.close();
			browsing = { context: await browser.newContext(), file: info.file };
		}
		const { context } = browsing;
		await use(context);
		// All else is as if the browser had just been put up.
		await context.unrouteAll({ behavior: 'ignoreErrors' });
		await context.clearPermissions();
		await context.setGeolocation(null);
		await context.setOffline(false);
		await context.clearCookies();
		const pages = context.pages();
		if (pages[0]) {
			const devtools = await context.newCDPSession(pages[0]);
			for (const origin of new Set([OWN, DEMO, ...pages.map((page) => new URL(page.url()).origin)]))
				await devtools.send('Storage.clearDataForOrigin', {
					origin,
					storageTypes: 'local_storage,indexeddb,cache_storage'
				});
		}
		await Promise.all(pages.map((page) => page.close()));
	},
	demoYard: [
		// eslint-disable-next-line no-empty-pattern -- Playwright wants the pattern
		async ({}, use, info) => {
			if (demo?.file !== info.file) {
				if (demo) {
					const gone = ended(demo.server);
					demo.server.kill();
					await gone;
					demo = null;
				}
				const folder = process.env.BRUNTLE_E2E_DATA ?? '';
				const own = path.join(folder, `demo-${process.pid}-${++copies}`);
				await cp(path.join(folder, 'demo'), own, { recursive: true });
				demo = {
					server: await startServer(path.join(own, 'demo.db'), demoPort, { BRUNTLE_DEMO: '1' }),
					file: info.file
				};
			}
			await use();
		},
		{ auto: true }
	]
});

/** What of the shell and of what is pressed would be printed. */
export async function strayOnPaper(page: Page): Promise<string[]> {
	await page.emulateMedia({ media: 'print' });
	const stray = await page.evaluate(() =>
		[
			...document.querySelectorAll(
				'nav, header.border-b, a.rounded-md.border, button.rounded-md.border:not([aria-pressed], [role])'
			)
		]
			.filter((part) => part.checkVisibility() && part.getBoundingClientRect().height > 0)
			.map((part) => `${part.tagName} ${part.ariaLabel ?? part.textContent.trim().slice(0, 40)}`)
	);
	await page.emulateMedia({ media: null });
	return stray;
}

declare global {
	interface Window {
		/** Put into the page by `expectAccessible`. */
		axe: typeof axe;
	}
}

/** Rows of one list are made alike: the first of them speak for the rest, of which a list of kinds has hundreds. */
const FURTHER_ROWS = 'tr:nth-of-type(n+9), li:nth-of-type(n+9), article:nth-of-type(n+9)';
const CONTRAST = 'color-contrast';

/** A theme or a size switched under a standing page leaves some of its parts styled as before: all of them anew. */
const restyled = (page: Page): Promise<void> =>
	page.evaluate(() => {
		const { documentElement: root } = document;
		root.style.display = 'none';
		void root.offsetHeight;
		root.style.removeProperty('display');
		return new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => resolve())));
	});

/**
 * Fails on anything that axe calls serious or critical.
 * @param rules all, colours alone where nothing else is new, or all but colours where they are the same
 */
export async function expectAccessible(
	page: Page,
	rules: 'all' | 'colours' | 'all but colours' = 'all'
): Promise<void> {
	if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
	await restyled(page);
	const grave = await page.evaluate(
		async ({ rules, further, contrast, tags }) => {
			const { violations } = await window.axe.run(
				{ exclude: [further] },
				{
					resultTypes: ['violations'],
					preload: false,
					runOnly: rules === 'colours' ? { type: 'rule', values: [contrast] } : { type: 'tag', values: tags },
					rules: rules === 'all but colours' ? { [contrast]: { enabled: false } } : {}
				}
			);
			return violations
				.filter((violation) => violation.impact === 'serious' || violation.impact === 'critical')
				.map(
					(violation) =>
						`${violation.id}: ${violation.nodes.map((node) => `${node.target.join(' ')} ${node.failureSummary ?? ''}`).join('; ')}`
				);
		},
		{ rules, further: FURTHER_ROWS, contrast: CONTRAST, tags: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] }
	);
	expect(grave).toEqual([]);
}

/** Labels of drawings over which a line or a shape is drawn later, or that the edge of their drawing cuts off. */
export const labelsUnseen = (page: Page): Promise<string[]> =>
	page.evaluate(() => {
		const painted = (shape: SVGGeometryElement): { stroke: boolean; fill: boolean } => {
			const style = getComputedStyle(shape);
			const seen = (paint: string, opacity: string): boolean =>
				paint !== 'none' && paint !== 'transparent' && !/, 0\)$/.test(paint) && Number(opacity) > 0.2;
			return {
				stroke: seen(style.stroke, style.strokeOpacity) && parseFloat(style.strokeWidth) > 0,
				fill: seen(style.fill, style.fillOpacity)
			};
		};
		return [...document.querySelectorAll('svg')].flatMap((svg) => {
			if (!svg.checkVisibility()) return [];
			const parts = [
				...svg.querySelectorAll<SVGGraphicsElement>('text, path, line, circle, ellipse, rect, polyline')
			];
			return parts.flatMap((part, i) => {
				if (!(part instanceof SVGTextElement) || part.closest('defs')) return [];
				const box = part.getBBox();
				const toScreen = part.getScreenCTM();
				if (!toScreen || box.width === 0) return [];
				const points = [0.15, 0.3, 0.5, 0.7, 0.85].flatMap((across) =>
					[0.35, 0.5, 0.65].map((down) =>
						new DOMPoint(box.x + box.width * across, box.y + box.height * down).matrixTransform(toScreen)
					)
				);
				const [edge, own] = [svg.getBoundingClientRect(), part.getBoundingClientRect()];
				const name = `${svg.getAttribute('aria-label') ?? 'a drawing'}: ${part.textContent}`;
				const meets =
					own.right > edge.left && own.left < edge.right && own.bottom > edge.top && own.top < edge.bottom;
				// A little of the room above and below a line of text is empty.
				const whole =
					own.left > edge.left - 2 &&
					own.right < edge.right + 2 &&
					own.top > edge.top - 4 &&
					own.bottom < edge.bottom + 4;
				if (meets && !whole && getComputedStyle(svg).overflow !== 'visible') return [`${name}, cut off`];
				const over = parts.slice(i + 1).find((shape) => {
					if (!(shape instanceof SVGGeometryElement) || shape.closest('defs, pattern, clipPath'))
						return false;
					const ink = painted(shape);
					const inverse = shape.getScreenCTM()?.inverse();
					const clipped = shape.closest('[clip-path]')?.getAttribute('clip-path')?.slice(5, -1);
					const clip = clipped && document.getElementById(clipped)?.querySelector('rect')?.getBBox();
					return (
						inverse !== undefined &&
						points.some((point) => {
							const at = point.matrixTransform(inverse);
							if (clip && (at.x < clip.x || at.y < clip.y || at.x > clip.x + clip.width)) return false;
							return (ink.fill && shape.isPointInFill(at)) || (ink.stroke && shape.isPointInStroke(at));
						})
					);
				});
				return over ? [name] : [];
			});
		});
	});

const answers = (page: Page): Locator => page.locator('html[data-answers]');

/** Reads a page anew from its server, and waits until it answers to touch. */
export async function load(page: Page, address: string): Promise<void> {
	await page.goto(address);
	await answers(page).waitFor({ state: 'attached' });
}

/** Opens a page as by a link on the one that stands: without reading all anew, as people go through the app. */
export async function open(page: Page, address: string): Promise<void> {
	const [to, here] = [new URL(address), new URL(page.url())];
	if (to.origin !== here.origin || to.pathname === here.pathname || (await answers(page).count()) === 0)
		return load(page, address);
	await page.evaluate((href) => {
		delete document.documentElement.dataset.answers;
		const link = Object.assign(document.createElement('a'), { href });
		document.querySelector('main')?.append(link);
		link.click();
		link.remove();
	}, address);
	await answers(page).waitFor({ state: 'attached' });
}

/** Finds one of a long list by typing it, and takes it. */
export async function pick(field: Locator, label: string): Promise<void> {
	await field.fill(label);
	await field.page().getByRole('option', { name: label, exact: true }).click();
	await expect(field).toHaveValue(label);
}

/** Takes a tree in through the form; what is not given is a hornbeam in a pot, one's own, fair, a few years potted. */
export async function takeIn(
	page: Page,
	tree: {
		tag: string;
		name: string;
		kind?: string;
		trunk?: string;
		place?: string;
		situation?: 'potted' | 'in the ground' | 'just lifted';
		permission?: 'my own tree' | 'given in writing' | 'not yet given';
		vigour?: 'strong' | 'fair' | 'weak';
		reserves?: 'field-grown' | 'a few years in a pot';
	},
	{ server = DEMO, more = async () => {} }: { server?: string; more?: () => Promise<void> } = {}
): Promise<string> {
	await open(page, `${server}/trees/new`);
	await page.getByLabel('Tag', { exact: true }).fill(tree.tag);
	await page.getByLabel('Name', { exact: true }).fill(tree.name);
	await pick(page.getByLabel('Kind, or only its group', { exact: true }), tree.kind ?? 'Hornbeam (Carpinus)');
	await page.getByLabel('Trunk above the flare').fill(tree.trunk ?? '60');
	const place = page.getByLabel('Place', { exact: true });
	if ((await place.inputValue()) === '') await place.selectOption({ label: tree.place ?? 'Cold frame' });
	for (const [group, answer] of [
		['How it stands', tree.situation ?? 'potted'],
		['Permission to lift or work on it', tree.permission ?? 'my own tree'],
		['Vigour today', tree.vigour ?? 'fair'],
		['Reserves', tree.reserves ?? 'a few years in a pot']
	] as const)
		await page.getByRole('radiogroup', { name: group }).getByRole('radio', { name: answer }).click();
	await more();
	await page.getByRole('button', { name: 'Take it in' }).click();
	await expect(page.getByRole('heading', { name: tree.name })).toBeVisible();
	return treeId(tree.tag, server);
}

export async function treeId(tag: string, server = DEMO): Promise<string> {
	const response = await fetch(`${server}/api/v1/trees`);
	const { trees } = (await response.json()) as { trees: { id: string; tag: string }[] };
	const found = trees.find((tree) => tree.tag === tag);
	if (!found) throw new Error(`no tree ${tag}`);
	return found.id;
}

export const told = (page: Page, text: string | RegExp) =>
	page.locator('[data-sonner-toast]').filter({ hasText: text }).first();
