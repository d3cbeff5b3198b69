import type { ChildProcess } from 'node:child_process';
import { cp, mkdtemp, readFile } from 'node:fs/promises';
import { get } from 'node:https';
import path from 'node:path';
import { ended, expect, expectAccessible, load, startServer, test, type Page } from './helpers';

const port = 4860 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
const AT_DESK = `http://127.0.0.1:${port}`;
/** By its certificate; with a key asked for at the computer itself, it comes in as a phone in the network does. */
const AT_HOLE = `https://localhost:${port}`;
const PASS = 'kelp verse tin arch';

let server: ChildProcess;
let folder: string;
test.beforeAll(async () => {
	const data = process.env.BRUNTLE_E2E_DATA ?? '';
	folder = await mkdtemp(path.join(data, 'shared-'));
	await cp(path.join(data, 'demo'), folder, { recursive: true });
	server = await startServer(path.join(folder, 'demo.db'), port, {
		BRUNTLE_DEMO: '1',
		BRUNTLE_SHARE: '1',
		BRUNTLE_FOLDER: folder
	});
});
test.afterAll(async () => {
	const gone = ended(server);
	server.kill();
	await gone;
});

// The second meets the door that the first has locked.
test.describe.configure({ mode: 'serial' });
const toast = (page: Page, text: string | RegExp) =>
	page.getByRole('listitem').filter({ hasText: text }).first();
const tagged = async (page: Page, tag: string): Promise<string> => {
	const answer = await page.request.get(`${new URL(page.url()).origin}/api/v1/trees`);
	const { trees } = (await answer.json()) as { trees: { id: string; tag: string }[] };
	return trees.find((tree) => tree.tag === tag)?.id ?? '';
};
const person = async (page: Page, name: string, button: string): Promise<void> => {
	await page.getByLabel('Name', { exact: true }).fill(name);
	await page.getByLabel('Passphrase', { exact: true }).fill(PASS);
	await page.getByRole('button', { name: button }).click();
};

test('an owner is made, a helper comes in by a link, works under their name, and is signed out', async ({
	page,
	browser
}) => {
	test.setTimeout(180_000);
	const phoneContext = await browser.newContext({
		viewport: { width: 390, height: 844 },
		ignoreHTTPSErrors: true,
		reducedMotion: 'reduce'
	});
	const phone = await phoneContext.newPage();

	await load(page, `${AT_DESK}/yard/people`);
	await expect(page.getByRole('heading', { name: 'Make yourself the owner' })).toBeVisible();
	await page.getByLabel('Name', { exact: true }).fill('Ana');
	await page.getByLabel('Passphrase', { exact: true }).fill('passwordpassword');
	await page.getByRole('button', { name: 'Own this yard' }).click();
	await expect(page.getByText('many people use').first()).toBeVisible();
	await person(page, 'Ana', 'Own this yard');
	await expect(toast(page, 'You own this yard')).toBeVisible();
	await expect(page.getByText('you, on this device')).toBeVisible();
	await page.getByRole('button', { name: 'Ask for one there too' }).click();
	await expect(page.getByText('At the computer itself a key is asked for as well.')).toBeVisible();
	await page.getByRole('button', { name: 'Make an invitation' }).click();
	await expect(page.getByRole('img', { name: 'QR code of the invitation' })).toBeVisible();
	await expectAccessible(page);
	const link = (await page.getByText(/\/invited\//).textContent()) ?? '';
	expect(link).toMatch(/^https:\/\//);
	const invited = AT_HOLE + new URL(link).pathname;

	// Without a key there is the way to one, and nothing of the yard.
	await load(phone, `${AT_HOLE}/trees`);
	await expect(phone.getByRole('heading', { name: 'Your key' })).toBeVisible();
	await expect(phone.getByRole('navigation')).toHaveCount(0);
	await expectAccessible(phone);
	await load(phone, `${AT_HOLE}/key/certificate`);
	await expect(phone.getByText(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/)).toBeVisible();
	await expectAccessible(phone);

	await load(phone, invited);
	await expect(phone.getByText('As a helper.')).toBeVisible();
	await expectAccessible(phone);
	await person(phone, 'Ben', 'Come in');
	await expect(phone.getByRole('heading', { level: 1 })).toHaveText('18 April 2026');
	// It is for one.
	await load(phone, invited);
	await expect(phone.getByRole('heading', { name: 'This invitation holds no more.' })).toBeVisible();

	const id = await tagged(phone, 'W-03');
	await load(phone, `${AT_HOLE}/trees/${id}/book?kind=moss-on-roots`);
	await phone.getByRole('button', { name: 'Write it down' }).click();
	await expect(phone.getByText('Off on must be given.').first()).toBeVisible();
	await phone.getByLabel('Off on', { exact: true }).fill('20 May');
	await phone.getByRole('button', { name: 'Write it down' }).click();
	await expect(phone.getByRole('button', { name: /^Correct/ }).first()).toBeVisible();
	await load(page, `${AT_DESK}/trees/${id}/take-in`);
	await expect(
		page
			.getByRole('complementary', { name: 'Journal' })
			.getByText(/, Ben$/)
			.first()
	).toBeVisible();
	// What is for owners is refused in words, whoever asks how.
	const changed = await phone.request.post(`${AT_HOLE}/yard/settings?/format`, {
		form: { units: 'imperial', locale: 'en-US' },
		headers: { origin: AT_HOLE, accept: 'application/json' }
	});
	expect(changed.status()).toBe(403);
	expect(JSON.stringify(await changed.json())).toContain('Only an owner of this yard does that.');
	// And a form that would be refused is not there: what an owner sees, a helper is told of.
	for (const [view, told, form] of [
		['yard/settings', /an owner sets them/, 'Keep'],
		['yard/devices', /An owner of the yard does that/, 'Add it and show its token'],
		[
			'yard/weather',
			/An owner of the yard chooses where a forecast comes from/,
			'Fill 60 days with simulated weather'
		],
		['reference/values', /An owner of the yard puts numbers/, /^Change: /]
	] as const) {
		await load(page, `${AT_DESK}/${view}`);
		await expect(page.getByRole('button', { name: form }).first()).toBeVisible();
		await load(phone, `${AT_HOLE}/${view}`);
		await expect(phone.getByText(told).first()).toBeVisible();
		await expect(phone.getByRole('button', { name: form })).toHaveCount(0);
	}
	await load(phone, `${AT_HOLE}/yard/people`);
	await expect(phone.getByText('Ben', { exact: true }).first()).toBeVisible();
	await expect(phone.getByText('Ana', { exact: true })).toHaveCount(0);
	await expectAccessible(phone);

	await load(page, `${AT_DESK}/yard/people`);
	await page.getByRole('button', { name: /^Sign .* of Ben out$/ }).click();
	await expect(toast(page, 'has to sign in again')).toBeVisible();
	await phone.goto(`${AT_HOLE}/calendar`);
	await expect(phone.getByRole('heading', { name: 'Your key' })).toBeVisible();
	await phone.getByLabel('Name', { exact: true }).fill('ben');
	await phone.getByLabel('Passphrase', { exact: true }).fill('something else');
	await phone.getByRole('button', { name: 'Sign in' }).click();
	await expect(phone.getByText('Name and passphrase do not go together.').first()).toBeVisible();
	await phone.getByLabel('Passphrase', { exact: true }).fill(PASS);
	await phone.getByRole('button', { name: 'Sign in' }).click();
	await expect(phone).toHaveURL(`${AT_HOLE}/calendar`);
	await expect(phone.getByRole('heading', { name: 'In your own calendar' })).toHaveCount(0);

	// A letter is given to read: that page, and nothing else of the yard.
	const given = await tagged(page, 'H-03');
	await load(page, `${AT_DESK}/trees/${given}/recovery/letter`);
	await page.getByRole('button', { name: 'Give it to read' }).click();
	await page.getByRole('button', { name: 'Make the link' }).click();
	const read = (await page.getByText(/\/shared\//).textContent()) ?? '';
	const readerContext = await browser.newContext({ ignoreHTTPSErrors: true });
	const reader = await readerContext.newPage();
	await reader.goto(AT_HOLE + new URL(read).pathname);
	await expect(reader.getByRole('article', { name: 'Letter to the owner' })).toBeVisible();
	await expect(reader.getByRole('navigation')).toHaveCount(0);
	await expect(reader.getByRole('button')).toHaveCount(0);
	expect(await reader.content()).not.toContain('examinations');
	await reader.goto(`${AT_HOLE}/trees/${given}/recovery/letter`);
	await expect(reader.getByRole('heading', { name: 'Your key' })).toBeVisible();
	await load(page, `${AT_DESK}/yard/people`);
	await page.getByRole('button', { name: 'Take the link to H-03 back' }).click();
	await expect(toast(page, 'shows nothing any more')).toBeVisible();
	await reader.goto(AT_HOLE + new URL(read).pathname);
	await expect(reader.getByRole('heading', { name: 'This link shows nothing any more.' })).toBeVisible();
	await phoneContext.close();
	await readerContext.close();
});

test('the network meets an encrypted door that answers nothing without a key', async ({ playwright }) => {
	// Node itself trusts the yard by the certificate that phones take.
	const status = await new Promise<number>((resolve, reject) => {
		void readFile(path.join(folder, 'share/authority.crt')).then((ca) =>
			get(`${AT_HOLE}/key`, { ca }, (answer) => {
				answer.resume();
				resolve(answer.statusCode ?? 0);
			}).on('error', reject)
		);
	});
	expect(status).toBe(200);
	const { headers } = await new Promise<{ headers: Record<string, unknown> }>((resolve, reject) => {
		get(`${AT_HOLE}/invited/guessed`, { rejectUnauthorized: false }, (answer) => {
			answer.resume();
			resolve(answer);
		}).on('error', reject);
	});
	// ASVS 4.0.3, 14.4: and an address that is itself a key is told to nobody.
	expect(headers).toMatchObject({
		'referrer-policy': 'no-referrer',
		'x-content-type-options': 'nosniff',
		'cross-origin-opener-policy': 'same-origin'
	});
	const stranger = await playwright.request.newContext({ ignoreHTTPSErrors: true, maxRedirects: 0 });
	for (const [at, expected] of [
		['/', 303],
		['/trees', 303],
		['/trees/x/roots/__data.json', 200],
		['/reference/values', 303],
		['/calendar', 303],
		['/api/v1/trees', 401],
		['/api/v1/openapi.json', 401],
		['/api/v1/readings', 401],
		[`/pictures/${'0'.repeat(64)}.jpg`, 401],
		['/calendar/guess.ics', 404],
		['/nothing-here', 303]
	] as const) {
		const answer = await stranger.get(AT_HOLE + at);
		expect(answer.status(), at).toBe(expected);
		expect(await answer.text(), at).not.toContain('H-03');
	}
	for (const [at, body] of [
		['/undo', { entryIds: ['x'] }],
		['/api/v1/trees', {}],
		['/api/v1/weather', []],
		['/api/v1/compute/wilson-interval', { successes: 1, trials: 2 }]
	] as const)
		expect((await stranger.post(AT_HOLE + at, { data: body })).status(), at).toBe(401);
	const form = await stranger.post(`${AT_HOLE}/yard/people?/invite`, {
		form: { role: 'owner' },
		headers: { origin: AT_HOLE }
	});
	expect(form.status()).toBe(401);
	const page = await stranger.get(`${AT_HOLE}/key`);
	expect(page.headers()).toMatchObject({
		'referrer-policy': 'same-origin',
		'x-content-type-options': 'nosniff',
		'cache-control': expect.stringMatching(/no-(cache|store)/),
		'content-security-policy': expect.stringContaining("frame-ancestors 'none'")
	});
	await stranger.dispose();
});
