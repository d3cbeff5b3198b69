import { readdirSync } from 'node:fs';
import path from 'node:path';
import { DEMO, expect, test, treeId } from './helpers';

// As a browser asks for a page.
test.use({ extraHTTPHeaders: { accept: 'text/html' } });

/** Every page of the app, by its folder. */
function pages(folder: string, at = ''): string[] {
	return readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
		entry.isDirectory()
			? pages(path.join(folder, entry.name), `${at}/${entry.name}`)
			: entry.name === '+page.svelte'
				? [at || '/']
				: []
	);
}
const all = pages('src/routes');
const words = ['', 'x', '-1', '2026-13-99', '9999-12', '%00', '[]', '1e999', "'--", 'ÿ'.repeat(300)];
/** What the address line can ask, and of which pages. */
const asks = ['place', 'month', 'tool'];
const asked = (page: string): boolean => /calendar|weather|measure$/.test(page);

test('no address breaks a page: what is not there says so in the app’s own voice', async ({ request }) => {
	expect(all.length).toBeGreaterThan(30);
	// A tree of which there are pictures.
	const of = await treeId('H-03');
	const shown = await (await request.get(`${DEMO}/trees/${of}/recovery/pictures`)).text();
	const ids = [...shown.matchAll(new RegExp(`/trees/${of}/recovery/pictures/([0-9a-f-]+)"`, 'g'))].map(
		([, id = '']) => id
	);
	const [before, picture] = [ids[0] ?? '', ids.at(-1) ?? ''];
	expect(before).not.toBe(picture);
	const rounds = await (await request.get(`${DEMO}/practice`)).text();
	const round = /\/practice\/([0-9a-f-]{36})"/.exec(rounds)?.[1] ?? '';
	expect(round).not.toBe('');
	const addressOf = (
		page: string,
		told: { id?: string; picture?: string; before?: string; round?: string } = {}
	): string =>
		DEMO +
		page
			.replace('[round]', told.round ?? round)
			.replace('[id]', told.id ?? of)
			.replace('[picture]', told.picture ?? picture)
			.replace('[before]', told.before ?? before);
	for (const page of all) {
		// An address that is itself a key opens to nobody who guesses.
		const secret = page.includes('[key]');
		const good = await request.get(addressOf(page));
		expect(good.status(), page).toBe(secret ? 404 : 200);
		if (secret) expect(await good.text(), page).toMatch(/(holds no|shows nothing any) more/);
		if (page.includes('[id]'))
			for (const id of ['nobody', '__proto__', '%2e%2e', '%00', 'x'.repeat(2000), 'null']) {
				const answer = await request.get(addressOf(page, { id }));
				expect(answer.status(), `${page} of ${id.slice(0, 20)}`).toBe(404);
				const said = await answer.text();
				expect(said, page).toMatch(/There is no such/);
				expect(said, page).not.toMatch(/node_modules|\bat \S+ \(/);
			}
		if (page.includes('[round]'))
			for (const guess of ['nobody', '__proto__', '%00', of]) {
				const answer = await request.get(addressOf(page, { round: guess }));
				expect(answer.status(), `${page} at ${guess}`).toBe(404);
				expect(await answer.text(), page).toMatch(/There is no such/);
			}
		for (const name of ['picture', 'before'].filter((one) => page.includes(`[${one}]`)))
			for (const guess of ['nobody', '__proto__', '%00', 'x'.repeat(2000)]) {
				const answer = await request.get(addressOf(page, { [name]: guess }));
				expect(answer.status(), `${page} at ${guess.slice(0, 20)}`).toBe(404);
				expect(await answer.text(), page).toContain('This picture is not there any more');
			}
		// The other way round they are no earlier and later one.
		if (page.includes('[before]'))
			expect((await request.get(addressOf(page, { picture: before, before: picture }))).status()).toBe(404);
	}
});

test('no question in the address breaks a page', async ({ request }) => {
	const of = await treeId('C-07');
	for (const page of all)
		for (const word of asked(page) ? words : ['%00']) {
			const query = asks.map((name) => `${name}=${encodeURIComponent(word)}`).join('&');
			const answer = await request.get(`${DEMO}${page.replace('[id]', of)}?${query}`);
			expect(answer.status(), `${page} ${word.slice(0, 20)}`).toBeLessThan(500);
		}
});

test('no file of pictures or calendar is given to who guesses its name', async ({ request }) => {
	for (const at of ['..%2f..%2fpackage.json', 'nobody.jpg', '%00', `${'0'.repeat(64)}.jpg`]) {
		const answer = await request.get(`${DEMO}/pictures/${at}`);
		expect(answer.status(), at).toBe(404);
		expect(await answer.text()).not.toContain('dependencies');
	}
	for (const token of ['x', '', 'null.ics', '%00', 'undefined'])
		expect((await request.get(`${DEMO}/calendar/${token || 'none'}`)).status(), token).toBe(404);
});

test('a calculation asked for over the network answers from its thread as it refuses: in words, by the field', async ({
	request
}) => {
	const ask = (body: unknown) => request.post(`${DEMO}/api/v1/compute/wilson-interval`, { data: body });
	const answer = await ask({ successes: 5, trials: 10 });
	expect(answer.status()).toBe(200);
	expect(await answer.json()).toMatchObject({ low: expect.any(Number), from: expect.anything() });
	const refused = await ask({ successes: 50, trials: 10 });
	expect(refused.status()).toBe(422);
	expect(await refused.json()).toMatchObject({
		errors: [{ field: 'successes', message: 'must not be more than the trials' }]
	});
	const odd = await ask(Array.from({ length: 300_001 }, () => 0));
	expect(odd.status()).toBe(413);
});
