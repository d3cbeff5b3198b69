import { chromium, type BrowserContext } from '@playwright/test';
import type { ChildProcess } from 'node:child_process';
import { cp, mkdtemp } from 'node:fs/promises';
import { connect, createServer, type Server, type Socket } from 'node:net';
import path from 'node:path';
import { launchOptions } from '../../scripts/chromium.js';
import { ended, expect, expectAccessible, load, open, startServer, takeIn, test, type Page } from './helpers';

/* A phone that takes the yard along, against the built server and through a line that can be cut. */

const worker = Number(process.env.TEST_PARALLEL_INDEX ?? 0);
const deskPort = 4870 + worker * 4;
const linePort = deskPort + 1;
const DESK = `http://127.0.0.1:${deskPort}`;
/** The same server, by a line that can be cut. */
const LINE = `http://127.0.0.1:${linePort}`;

/** A line to the server that can be cut, also in the middle of an answer. */
class Line {
	constructor(private readonly port: number) {}
	#server: Server | null = null;
	readonly #open = new Set<Socket>();

	mend(): Promise<void> {
		this.#server = createServer((from) => {
			const to = connect(deskPort, '127.0.0.1');
			for (const end of [from, to]) {
				this.#open.add(end);
				end.on('error', () => undefined);
				end.on('close', () => this.#open.delete(end));
			}
			from.pipe(to).pipe(from);
		});
		return new Promise((listening) => this.#server?.listen(this.port, '127.0.0.1', listening));
	}

	async cut(): Promise<void> {
		const gone = new Promise((closed) => (this.#server ? this.#server.close(closed) : closed(null)));
		for (const end of this.#open) end.destroy();
		await gone;
		this.#server = null;
	}
}

let folder: string;
let server: ChildProcess;
const line = new Line(linePort);
/** The line of another phone: for its browser, another place. */
const otherLine = new Line(linePort + 1);
const serve = async (): Promise<void> => {
	server = await startServer(path.join(folder, 'demo.db'), deskPort, { BRUNTLE_DEMO: '1' });
};
const stop = async (): Promise<void> => {
	const gone = ended(server);
	server.kill();
	await gone;
};

/** A phone of its own, whose browser can be closed and opened again. */
const phoneOf = (own: string): Promise<BrowserContext> =>
	chromium.launchPersistentContext(path.join(folder, own), {
		...launchOptions,
		serviceWorkers: 'allow',
		viewport: { width: 1280, height: 800 },
		reducedMotion: 'reduce'
	});

test.beforeEach(async () => {
	const data = process.env.BRUNTLE_E2E_DATA ?? '';
	folder = await mkdtemp(path.join(data, 'alone-'));
	await cp(path.join(data, 'demo'), folder, { recursive: true });
	await serve();
	await line.mend();
});
test.afterEach(async () => {
	await line.cut();
	await otherLine.cut();
	await stop();
});

async function takeAlong(page: Page, base = LINE): Promise<void> {
	await load(page, `${base}/along`);
	await page.getByRole('button', { name: 'Take the yard along' }).click();
	await expect(page.getByText(/^The whole yard is with you: \d+ trees/)).toBeVisible({ timeout: 30_000 });
}

/** A piece of the work at one tree, and what tells that it is kept. */
interface Step {
	name: string;
	do(page: Page, base: string, id: string): Promise<void>;
}
const toast = (page: Page, text: string | RegExp) =>
	page.locator('[data-sonner-toast]').filter({ hasText: text }).first();

const water: Step = {
	name: 'water',
	do: async (page, base, id) => {
		await open(page, `${base}/trees/${id}/aftercare`);
		await page.getByRole('button', { name: 'Watered or weighed' }).click();
		const sheet = page.getByRole('dialog', { name: 'Watered or weighed' });
		await sheet.getByLabel('Poured').fill('1,5');
		await sheet.getByRole('button', { name: 'Keep it' }).click();
		await expect(sheet).toBeHidden();
		await expect(page.getByRole('list', { name: 'Last waterings' })).toContainText('1.5');
	}
};

const steps: Step[] = [
	{
		name: 'a look',
		do: async (page, base, id) => {
			await open(page, `${base}/trees/${id}/examine`);
			await page.getByRole('button', { name: /^Foot of the trunk/ }).click();
			await page
				.getByRole('group', { name: 'Root across the trunk' })
				.getByRole('radio', { name: 'A third to a half' })
				.click();
			await page.getByRole('button', { name: /^Keep this look/ }).click();
			await expect(toast(page, 'The look is kept.')).toBeVisible();
			await expect(page.getByRole('heading', { name: 'Found on 18 April 2026' })).toBeVisible();
		}
	},
	{
		name: 'roots and cuts',
		do: async (page, base, id) => {
			await open(page, `${base}/trees/${id}/roots`);
			const quick = page.getByLabel('Quick entry of a root');
			for (const one of ['6 32 anchor keep', '11 30 anchor', '2 28 anchor', '4:30 9 circling cut']) {
				await quick.fill(one);
				await quick.press('Enter');
				await expect(quick).toHaveValue('');
			}
			await expect(page.getByText(/^4 mapped/)).toBeVisible();
			await expect(page.getByText(/^kept$/)).toBeVisible();
			await page
				.getByRole('complementary', { name: 'Ledger' })
				.getByRole('button', { name: 'Record the cuts' })
				.click();
			await page
				.getByRole('dialog', { name: /what was cut/ })
				.getByRole('button', { name: 'Keep the record' })
				.click();
			await expect(toast(page, 'The cuts are in the record.')).toBeVisible();
		}
	},
	{
		name: 'planting',
		do: async (page, base, id) => {
			await open(page, `${base}/trees/${id}/replant`);
			await page.getByLabel('Width of the ball').fill('270');
			await page.getByLabel('Depth of the ball').fill('150');
			await page.getByRole('radio', { name: 'round' }).click();
			await page.getByLabel('Diameter at the rim').fill('300');
			await page.getByLabel('Diameter at the floor').fill('240');
			await page.getByLabel('Depth', { exact: true }).fill('250');
			await page.getByRole('button', { name: 'Write it down as planted' }).click();
			await expect(toast(page, 'Written down as planted.')).toBeVisible();
		}
	},
	{
		name: 'a picture',
		do: async (page, base, id) => {
			await open(page, `${base}/trees/${id}/recovery/pictures`);
			await page.getByLabel('File', { exact: true }).setInputFiles('docs/screenshots/today.png');
			await page.getByRole('button', { name: 'Keep the picture' }).click();
			const kept = page.getByRole('list', { name: 'Along its time' }).getByRole('img').first();
			await expect(kept).toBeVisible();
			await expect
				.poll(() => kept.evaluate((img: HTMLImageElement) => img.naturalWidth))
				.toBeGreaterThan(100);
		}
	},
	water
];

/** What else is done at a tree, one after the other and without a network in between. */
const restOfTheDay: Step[] = [
	{
		name: 'a root sample',
		do: async (page, base, id) => {
			await open(page, `${base}/trees/${id}/examine/measure?tool=root-sample`);
			for (let i = 0; i < 21; i++) await page.getByRole('button', { name: /^Dead/ }).click();
			await page.getByRole('button', { name: 'Keep this measurement' }).click();
			await expect(toast(page, 'The measurement is kept.')).toBeVisible();
		}
	},
	{
		name: 'a cut at the bench',
		do: async (page, base, id) => {
			await open(page, `${base}/trees/${id}/roots`);
			const quick = page.getByLabel('Quick entry of a root');
			for (const one of ['6 32 anchor keep', '11 30 anchor', '2 28 anchor', '4:30 9 circling cut']) {
				await quick.fill(one);
				await quick.press('Enter');
				await expect(quick).toHaveValue('');
			}
			await expect(page.getByText(/^4 mapped/)).toBeVisible();
			await expect(page.getByText(/^kept$/)).toBeVisible();
			await open(page, `${base}/trees/${id}/roots/bench`);
			await page.getByRole('button', { name: 'Done', exact: true }).click();
			await expect(page.getByRole('heading', { name: 'Through' })).toBeVisible();
			await page.getByRole('button', { name: 'Keep the record', exact: true }).click();
			await expect(toast(page, 'The cuts are in the record.')).toBeVisible();
		}
	},
	{
		name: 'aftercare, done and skipped',
		do: async (page, base, id) => {
			await open(page, `${base}/trees/${id}/aftercare`);
			await page.getByRole('button', { name: /^Make these \d+ tasks/ }).click();
			await expect(toast(page, 'The aftercare is planned.')).toBeVisible();
			const skips = page.getByRole('button', { name: /^Skip: / });
			await skips.first().click();
			await page.getByRole('dialog').getByLabel('Reason').fill('not at this place');
			await page.getByRole('dialog').getByRole('button', { name: 'Skip it' }).click();
			await expect(toast(page, 'Skipped')).toBeVisible();
		}
	},
	{
		name: 'a weighing',
		do: async (page, base, id) => {
			await open(page, `${base}/trees/${id}/aftercare`);
			await page.getByRole('button', { name: 'Watered or weighed' }).click();
			const sheet = page.getByRole('dialog', { name: 'Watered or weighed' });
			await sheet.getByLabel('Weight before').fill('18');
			await sheet.getByLabel('Weight after, when nothing drips').fill('21');
			await sheet.getByRole('button', { name: 'Keep it' }).click();
			await expect(sheet).toBeHidden();
			await expect(page.getByRole('list', { name: 'Last waterings' })).toContainText('21 kg');
		}
	},
	{
		name: 'a look at how it comes back',
		do: async (page, base, id) => {
			await open(page, `${base}/trees/${id}/recovery`);
			await page.getByRole('radiogroup', { name: 'Stands' }).getByRole('radio', { name: 'firm' }).click();
			await page.getByRole('button', { name: /^Keep this look/ }).click();
			await expect(toast(page, 'The look is kept.')).toBeVisible();
		}
	}
];
const lifted: Step = {
	name: 'a lift with its log',
	do: async (page, base, id) => {
		await open(page, `${base}/trees/${id}/replant/lift`);
		await page.getByRole('button', { name: 'It is out of the ground: write the log' }).click();
		await page.getByLabel('Minutes out of the ground').fill('45');
		await page.getByLabel('Clock, north 12').fill('2');
		await page.getByLabel('Thick', { exact: true }).fill('34');
		await page.getByRole('button', { name: 'Add', exact: true }).click();
		await page.getByRole('button', { name: 'Keep the log' }).click();
		await expect(toast(page, 'The log of the lift is kept.')).toBeVisible();
	}
};

/** What stands of a tree, without identities and instants, which are drawn by lot with a network, and without counts of how often a drawing kept itself. */
async function recordOf(base: string, id: string): Promise<string[]> {
	const file = (await (await fetch(`${base}/api/v1/trees/${id}`)).json()) as Record<string, unknown>;
	const plain = (value: unknown): unknown => {
		if (Array.isArray(value)) return value.map(plain);
		if (typeof value !== 'object' || value === null) return value;
		return Object.fromEntries(
			Object.entries(value)
				.filter(([name]) => !/^(id|at|by|byId|version)$|Id$|Ids$/.test(name))
				.map(([name, part]) => [name, plain(part)])
		);
	};
	return Object.entries(file)
		.filter(([name]) => name !== 'exportedAt')
		.flatMap(([name, part]) =>
			(Array.isArray(part) ? part : [part]).map((one) => `${name} ${JSON.stringify(plain(one))}`)
		)
		.sort();
}

async function sent(page: Page): Promise<void> {
	await load(page, `${LINE}/along`);
	await expect(page.getByText('The connection is there.')).toBeVisible({ timeout: 30_000 });
	await expect(page.getByText('Nothing waits to be sent.')).toBeVisible({ timeout: 30_000 });
}

test('done alone, with the browser killed and the server restarted in between, it is what it would have been with a network', async ({
	page: desk
}) => {
	test.setTimeout(300_000);
	const tree = { tag: 'P-1', name: 'Hornbeam at the weir' };
	const online = await takeIn(desk, { ...tree, tag: 'P-2' }, { server: DESK });
	for (const step of steps) await step.do(desk, DESK, online);

	let phone = await phoneOf('phone');
	let page = await phone.newPage();
	const id = await takeIn(page, tree, { server: LINE });
	await takeAlong(page);
	await expectAccessible(page);
	for (const [at, step] of steps.entries()) {
		await line.cut();
		await test.step(`${step.name}, alone`, () => step.do(page, LINE, id));
		if (at % 2 === 0) {
			await phone.close();
			phone = await phoneOf('phone');
			page = await phone.newPage();
		} else {
			await stop();
			await serve();
		}
		// Still alone, it has what was done, and says so.
		await load(page, `${LINE}/along`);
		await expect(page.getByText('There is no connection to the computer of the yard.')).toBeVisible();
		await expect(page.getByRole('listitem').filter({ hasText: 'P-1' }).first()).toBeVisible();
		if (at === 0) await expectAccessible(page);
		await line.mend();
		// It looks for the yard by itself, and sends.
		await expect(page.getByText('Nothing waits to be sent.')).toBeVisible({ timeout: 30_000 });
	}
	await sent(page);
	expect((await recordOf(DESK, id)).map((one) => one.replaceAll('P-1', 'P-2'))).toEqual(
		await recordOf(DESK, online)
	);
	// What the phone shows alone is what the desk shows.
	await line.cut();
	await load(page, `${LINE}/trees/${id}/recovery`);
	await load(desk, `${DESK}/trees/${id}/recovery`);
	const said = (of: Page): Promise<string> => of.getByRole('complementary').first().innerText();
	expect(await said(page)).toBe(await said(desk));
	await phone.close();
});

test('a whole day at two trees alone, sent together in the evening, is what it would have been with a network', async ({
	page: desk
}) => {
	test.setTimeout(300_000);
	const phone = await phoneOf('day');
	const page = await phone.newPage();
	const potted = { name: 'Hornbeam at the weir' };
	const standing = { name: 'Elm in the hedge', situation: 'in the ground' } as const;
	const taken = async (of: Page, server: string, tags: [string, string]) => ({
		potted: await takeIn(of, { ...potted, tag: tags[0] }, { server }),
		standing: await takeIn(of, { ...standing, tag: tags[1] }, { server })
	});
	const there = await taken(desk, DESK, ['D-2', 'G-2']);
	const here = await taken(page, LINE, ['D-1', 'G-1']);
	const dayOf = async (of: Page, base: string, trees: typeof there): Promise<void> => {
		for (const step of restOfTheDay)
			await test.step(`${step.name} at ${base}`, () => step.do(of, base, trees.potted));
		await test.step(`${lifted.name} at ${base}`, () => lifted.do(of, base, trees.standing));
	};
	await dayOf(desk, DESK, there);
	await takeAlong(page);
	await line.cut();
	await dayOf(page, LINE, here);
	await load(page, `${LINE}/along`);
	await expect(page.getByText('There is no connection to the computer of the yard.')).toBeVisible();
	await line.mend();
	await expect(page.getByText('Nothing waits to be sent.')).toBeVisible({ timeout: 60_000 });
	await sent(page);
	for (const which of ['potted', 'standing'] as const) {
		const named = (one: string): string => one.replaceAll(/"(D|G)-1"/g, '"$1-2"');
		expect((await recordOf(DESK, here[which])).map(named)).toEqual(await recordOf(DESK, there[which]));
	}
	await phone.close();
});

test('the same was changed at the desk meanwhile: both stand side by side, and the person chooses', async ({
	page: desk
}) => {
	test.setTimeout(180_000);
	const id = await takeIn(desk, { tag: 'P-3', name: 'Beech at the weir' }, { server: DESK });
	const phone = await phoneOf('chooser');
	const page = await phone.newPage();
	await takeAlong(page);
	await line.cut();
	const rename = async (of: Page, base: string, name: string): Promise<void> => {
		await open(of, `${base}/trees/${id}/take-in`);
		await of.getByLabel('Name', { exact: true }).fill(name);
		await of
			.getByRole('button', { name: /^Keep|^Save/ })
			.first()
			.click();
		await expect(toast(of, 'Kept.')).toBeVisible();
	};
	await rename(page, LINE, 'Beech at the mill');
	await rename(desk, DESK, 'Beech at the bridge');
	for (const [of, base, root] of [
		[page, LINE, '6 32 anchor'],
		[desk, DESK, '9 14 circling']
	] as const) {
		await open(of, `${base}/trees/${id}/roots`);
		await of.getByLabel('Quick entry of a root').fill(root);
		await of.getByLabel('Quick entry of a root').press('Enter');
		await expect(of.getByText(/^kept$/)).toBeVisible();
	}
	await line.mend();
	await load(page, `${LINE}/along`);
	await expect(page.getByRole('heading', { name: 'For you to decide' })).toBeVisible({ timeout: 30_000 });
	const row = page.getByRole('row').filter({ hasText: 'Beech at the mill' });
	await expect(row).toContainText('Beech at the bridge');
	await expectAccessible(page);
	await page.getByRole('button', { name: 'Keep mine' }).click();
	await expect(row).toHaveCount(0);
	await page.getByRole('button', { name: 'Compare in Roots' }).click();
	await expect(page.getByText('There: 1 root, 0 cuts planned. Here: 1 root, 0 cuts planned.')).toBeVisible();
	await page.getByRole('button', { name: 'Keep what stands here' }).click();
	await expect(page.getByText(/^kept$/)).toBeVisible();
	await load(desk, `${DESK}/trees/${id}/roots`);
	await expect(desk.getByRole('heading', { name: 'Beech at the mill' })).toBeVisible();
	await expect(desk.getByText(/^1 mapped/)).toBeVisible();
	await sent(page);
	await phone.close();
});

test('a device whose key is taken away lets go of the yard, and of nothing that was not sent', async ({
	page: desk
}) => {
	test.setTimeout(180_000);
	const pass = 'kelp verse tin arch';
	await load(desk, `${DESK}/yard/people`);
	await desk.getByLabel('Name', { exact: true }).fill('Ana');
	await desk.getByLabel('Passphrase', { exact: true }).fill(pass);
	await desk.getByRole('button', { name: 'Own this yard' }).click();
	await desk.getByRole('button', { name: 'Ask for one there too' }).click();
	await expect(desk.getByText('At the computer itself a key is asked for as well.')).toBeVisible();

	const phone = await phoneOf('key');
	const page = await phone.newPage();
	const signIn = async (): Promise<void> => {
		await page.getByLabel('Name', { exact: true }).fill('Ana');
		await page.getByLabel('Passphrase', { exact: true }).fill(pass);
		await page.getByRole('button', { name: 'Sign in' }).click();
	};
	await load(page, `${LINE}/along`);
	await signIn();
	await expect(page.getByRole('heading', { name: 'On this device' })).toBeVisible();
	await takeAlong(page);
	const trees = (await (await desk.request.get(`${DESK}/api/v1/trees`)).json()) as {
		trees: { id: string; tag: string }[];
	};
	const id = trees.trees.find(({ tag }) => tag === 'C-07')?.id ?? '';
	await line.cut();
	await water.do(page, LINE, id);

	// The desk signs the phone out; both are called the same here.
	await load(desk, `${DESK}/yard/people`);
	await desk
		.getByRole('listitem')
		.filter({ hasNotText: 'on this device' })
		.getByRole('button', { name: /^Sign .* of Ana out/ })
		.last()
		.click();
	await expect(toast(desk, 'That device has to sign in again.')).toBeVisible();
	await line.mend();
	await load(page, `${LINE}/along`);
	await expect(page.getByRole('heading', { name: 'Your key' })).toBeVisible({ timeout: 30_000 });
	// Nothing of the yard is read here any more, with or without the network.
	await line.cut();
	// The page that lies open notices it too, and may be on its way just then.
	await expect(async () => {
		await page.goto(`${LINE}/trees`);
		await expect(page.getByRole('heading', { name: 'No connection to the yard' })).toBeVisible();
	}).toPass();
	await line.mend();
	await load(page, `${LINE}/along`);
	await signIn();
	await expect(page.getByText('Nothing waits to be sent.')).toBeVisible({ timeout: 30_000 });
	await load(desk, `${DESK}/trees/${id}/aftercare`);
	await expect(desk.getByRole('list', { name: 'Last waterings' })).toContainText('1.5');
	await phone.close();
});

test('twenty runs of work by two phones and the desk, lines cut and mended, come to the same everywhere', async ({
	page: desk
}) => {
	test.setTimeout(300_000);
	const id = await takeIn(desk, { tag: 'P-4', name: 'Elm at the weir' }, { server: DESK });
	const context = await phoneOf('two');
	await otherLine.mend();
	const OTHER = `http://127.0.0.1:${linePort + 1}`;
	const phones = [
		{ page: await context.newPage(), base: LINE, line, cut: false },
		{ page: await context.newPage(), base: OTHER, line: otherLine, cut: false }
	];
	for (const { page, base } of phones) await takeAlong(page, base);
	await load(desk, `${DESK}/trees`);
	/** Sends a form as a page does. */
	const send = (page: Page, action: string, fields: Record<string, string>): Promise<string> =>
		page.evaluate(
			async ({ action, fields }) => {
				const body = new FormData();
				for (const [name, value] of Object.entries(fields)) body.set(name, value);
				const headers = { accept: 'application/json', 'x-sveltekit-action': 'true' };
				const response = await fetch(action, { method: 'POST', body, headers });
				return ((await response.json()) as { type: string }).type;
			},
			{ action: `/trees/${id}/aftercare?/${action}`, fields }
		);
	interface Watering {
		id: string;
		version: number;
		note: string;
	}
	const waterings = (page: Page): Promise<Watering[]> =>
		page.evaluate(
			async (id) =>
				((await (await fetch(`/api/v1/trees/${id}`)).json()) as { waterings: Watering[] }).waterings,
			id
		);
	const notes = async (page: Page): Promise<string[]> =>
		(await waterings(page)).map(({ note }) => note).sort();

	// Drawn by a fixed rule, so that every run of the test is the same [Park and Miller 1988].
	let drawn = 20261129;
	const draw = (below: number): number => (drawn = (drawn * 48271) % 2147483647) % below;
	const accepted = new Set<string>();
	for (let run = 1; run <= 20; run++) {
		for (let at = 0; at < 7; at++) {
			const phone = phones[draw(3)];
			const page = phone?.page ?? desk;
			const what = draw(4);
			if (what === 0 && phone) {
				await (phone.cut ? phone.line.mend() : phone.line.cut());
				phone.cut = !phone.cut;
			} else if (what === 1) {
				const [first] = await waterings(page);
				if (
					!first ||
					(await send(page, 'unwater', { wateringId: first.id, version: String(first.version) })) !==
						'success'
				)
					continue;
				accepted.delete(first.note);
			} else {
				const note = `run ${run}, work ${at}`;
				const fields = { treeId: id, wateredOn: '2026-04-18', litres: '1', way: 'all-round', note };
				expect(await send(page, 'water', fields)).toBe('success');
				accepted.add(note);
			}
		}
		for (const phone of phones) {
			if (phone.cut) await phone.line.mend();
			phone.cut = false;
			await load(phone.page, `${phone.base}/along`);
			await expect(phone.page.getByText('The connection is there.')).toBeVisible({ timeout: 30_000 });
			// Taken out twice, it is out: the second is told and left.
			const leave = phone.page.getByRole('button', { name: 'Leave it out' });
			while ((await leave.count()) > 0) {
				const left = await leave.count();
				await leave.first().click();
				await expect(leave).toHaveCount(left - 1);
			}
			await expect(phone.page.getByText('Nothing waits to be sent.')).toBeVisible({ timeout: 30_000 });
		}
		expect(await notes(desk), `run ${run}`).toEqual([...accepted].sort());
	}
	for (const { page, line: own } of phones) {
		await page.getByRole('button', { name: 'Copy again now' }).click();
		await expect(page.getByRole('button', { name: 'Copy again now' })).toBeEnabled();
		await own.cut();
		expect(await notes(page)).toEqual([...accepted].sort());
	}
	await context.close();
});
