import { stringify } from 'devalue';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ACT_HEADER, ALONG_HEADER, YARD_HEADER, type AlongState } from '$core/vocabulary/along';
import { AlongDevice, NotTaken, type Surroundings } from '../../src/alone/along';
import type { KeptAct, Keeping, KeptYard, NamedWork } from '../../src/alone/kept';
import type { LocalServer } from '../../src/alone/local-server';

/* A phone with the yard, over a yard of the plainest kind: a book that is added to, and one name with a version. */

interface YardState {
	book: { id: string; text: string; at: string; by: string }[];
	name: { value: string; version: number };
	/** Changed by the same form, under its own identity. */
	other: { value: string; version: number };
	done: Record<string, string>;
}
const emptyYard = (): YardState => ({
	book: [],
	name: { value: 'old', version: 1 },
	other: { value: 'old', version: 1 },
	done: {}
});
const json = (body: unknown, init?: ResponseInit): Response => Response.json(body, init);
const success = (): Response => json({ type: 'success', status: 200, data: stringify({ told: 'Kept.' }) });

/** Answers as the server does: once for each name, as of its instant, refused where something was changed meanwhile. */
async function answerAs(state: YardState, request: Request, by: string): Promise<Response> {
	const { pathname } = new URL(request.url);
	if (request.method === 'GET') return json(state);
	const act = JSON.parse(request.headers.get(ACT_HEADER) ?? '{}') as { id: string; at: string };
	const known = state.done[act.id];
	if (known !== undefined) return json(JSON.parse(known));
	const form = await request.formData();
	if (pathname === '/name') {
		const which = form.get('id') === 'other' ? 'other' : 'name';
		const stands = state[which];
		if (Number(form.get('version')) !== stands.version)
			return json({
				type: 'failure',
				status: 409,
				data: stringify({
					refusal: {
						message: 'Changed meanwhile.',
						advice: 'Compare.',
						problems: [],
						typed: {},
						meanwhile: { name: stands.value, version: String(stands.version) }
					}
				})
			});
		state[which] = { value: String(form.get('name')), version: stands.version + 1 };
	} else if (form.get('text') === '')
		return json({
			type: 'failure',
			status: 422,
			data: stringify({
				refusal: { message: 'Text must be given.', advice: 'Write it.', problems: [], typed: {} }
			})
		});
	else state.book.push({ id: act.id, text: String(form.get('text')), at: act.at, by });
	const answer = success();
	state.done[act.id] = await answer.clone().text();
	return answer;
}

/** How the line is: what is sent does not arrive, its answer does not, nothing ever comes, or all goes well. */
type Line = 'whole' | 'cut' | 'answer lost' | 'hanging';

class Desk {
	state = emptyYard();
	key = true;
	id = 'yard-1';

	async answer(request: Request, by: string): Promise<Response> {
		const { pathname } = new URL(request.url);
		if (!this.key && pathname.startsWith('/along/'))
			return Object.defineProperty(new Response(null), 'type', { value: 'opaqueredirect' });
		if (pathname === '/along/there') return json({ yard: this.id, who: by });
		if (pathname === '/along/yard') {
			const text = JSON.stringify(this.state);
			if (request.headers.get('if-none-match') === text) return new Response(null, { status: 304 });
			const along = {
				yard: this.id,
				takenAt: '2026-05-01T08:00:00.000Z',
				clockAt: null,
				who: { id: by, name: by, role: 'helper' },
				trees: 1,
				ofTrees: 1
			};
			return new Response(text, {
				headers: { [ALONG_HEADER]: encodeURIComponent(JSON.stringify(along)), etag: text }
			});
		}
		const yard = request.headers.get(YARD_HEADER);
		if (yard !== null && yard !== this.id) return json({ title: 'Another yard.' }, { status: 409 });
		return answerAs(this.state, request, by);
	}
}

function memoryKeeping(): Keeping & { full: boolean } {
	let yard: KeptYard | null = null;
	let acts: KeptAct[] = [];
	let done: NamedWork[] = [];
	let since: string | null = null;
	const keeping = {
		full: false,
		yard: async () => yard,
		keepYard: async (one: KeptYard, holds: string | null) => {
			yard = one;
			done = holds === 'all' ? [] : done.filter(({ id }) => id !== holds);
		},
		keepDoneThere: async (act: NamedWork) => void (done = [...done, act]),
		doneThere: async () => done,
		keepAct: async (act: KeptAct, after: KeptYard) => {
			if (keeping.full) throw new Error('QuotaExceededError');
			acts = [...acts, act];
			yard = after;
		},
		acts: async () => acts,
		changeAct: async (act: KeptAct) => void (acts = acts.map((one) => (one.id === act.id ? act : one))),
		dropAct: async (id: string) => void (acts = acts.filter((one) => one.id !== id)),
		aloneSince: async () => since,
		keepAloneSince: async (one: string | null) => void (since = one),
		clear: async () => {
			yard = null;
			acts = [];
			done = [];
			since = null;
		}
	};
	return keeping;
}

class Phone {
	keeping = memoryKeeping();
	line: Line = 'whole';
	/** Later by the clock of the phone, ms. */
	clockMs = Date.parse('2026-05-01T08:00:00Z');
	said: AlongState | null = null;
	pictures: readonly string[] = [];
	made = 0;
	/** How often the network was asked. */
	asked = 0;
	device = this.begin();

	constructor(
		private readonly desk: Desk,
		readonly name: string,
		private readonly bringPictures: () => Promise<void> = () => Promise.resolve()
	) {
		this.device = this.begin();
	}

	/** The worker of a browser is ended and begun anew whenever the browser likes. */
	begin(): AlongDevice {
		let open: YardState | null = null;
		const local: LocalServer = {
			open: async (bytes) => void (open = JSON.parse(new TextDecoder().decode(bytes)) as YardState),
			respond: (request, who) => {
				if (!open) throw new Error('not open');
				return answerAs(open, request, who.id ?? '');
			},
			export: () => new TextEncoder().encode(JSON.stringify(open)),
			lastTold: () => {
				const last = open?.book.at(-1);
				return last ? { entryId: last.id, what: last.text, treeId: 't', tag: 'T-1', name: 'Elm' } : null;
			},
			pictures: () => ['abc']
		};
		const on: Surroundings = {
			keeping: this.keeping,
			fetch: async (request) => {
				this.asked++;
				if (this.line === 'cut') throw new TypeError('Failed to fetch');
				if (this.line === 'hanging')
					return new Promise((_, reject) =>
						request.signal.addEventListener('abort', () => reject(new TypeError('aborted')))
					);
				const response = await this.desk.answer(request, this.name);
				if (this.line === 'answer lost') throw new TypeError('Failed to fetch');
				return response;
			},
			server: async () => local,
			tell: (state) => void (this.said = state),
			keepPictures: (names) => {
				this.pictures = names;
				return names.length > 0 ? this.bringPictures() : Promise.resolve();
			},
			now: () => new Date((this.clockMs += 1000)),
			newId: () => `${this.name}-${++this.made}`,
			origin: 'https://yard.test',
			build: 'b1'
		};
		return (this.device = new AlongDevice(on));
	}

	send(path: string, fields: Record<string, string>): Promise<Response> {
		const body = new FormData();
		for (const [name, value] of Object.entries(fields)) body.set(name, value);
		return this.device.answer(new Request(`https://yard.test${path}`, { method: 'POST', body }));
	}
	write = (text: string): Promise<Response> => this.send('/book', { text });
	async read(): Promise<YardState> {
		return (await (await this.device.answer(new Request('https://yard.test/'))).json()) as YardState;
	}
	async rename(name: string, id: 'name' | 'other' = 'name'): Promise<Response> {
		return this.send('/name', { id, name, version: String((await this.read())[id].version) });
	}
	/** The line is back, and long enough for the phone to look. */
	async back(): Promise<void> {
		this.line = 'whole';
		this.clockMs += 60_000;
		await this.device.comeBack();
	}
}

const withYard = async (desk = new Desk(), name = 'ben'): Promise<Phone> => {
	const phone = new Phone(desk, name);
	await phone.device.take();
	return phone;
};
const texts = ({ book }: YardState): string[] => book.map(({ text }) => text);

describe('a phone that takes the yard along', () => {
	it('lets everything through until it has taken it, and keeps nothing then', async () => {
		const desk = new Desk();
		const phone = new Phone(desk, 'ben');
		await phone.write('at the desk');
		expect(texts(desk.state)).toEqual(['at the desk']);
		phone.line = 'cut';
		await expect(phone.write('lost')).rejects.toThrow('Failed to fetch');
		expect((await phone.device.state()).acts).toEqual([]);
	});

	it('goes on alone, keeps what is done in order, and sends it once the line is back', async () => {
		const desk = new Desk();
		const phone = await withYard(desk);
		expect(phone.pictures).toEqual(['abc']);
		phone.line = 'cut';
		await phone.write('first');
		await phone.write('second');
		expect(texts(desk.state)).toEqual([]);
		expect(texts(await phone.read())).toEqual(['first', 'second']);
		expect(phone.said?.acts.map(({ what }) => what)).toEqual(['first', 'second']);
		expect(phone.said?.aloneSince).not.toBeNull();
		const done = (await phone.keeping.acts()).map(({ at }) => at);
		await phone.back();
		expect(texts(desk.state)).toEqual(['first', 'second']);
		// As of the instants at which it was done.
		expect(desk.state.book.map(({ at }) => at)).toEqual(done);
		expect((await phone.device.state()).acts).toEqual([]);
		expect(phone.said?.aloneSince).toBeNull();
	});

	it('keeps work once whose answer was lost', async () => {
		const desk = new Desk();
		const phone = await withYard(desk);
		phone.line = 'answer lost';
		await phone.write('poured');
		expect(texts(desk.state)).toEqual(['poured']);
		await phone.back();
		expect(texts(desk.state)).toEqual(['poured']);
		expect(texts(await phone.read())).toEqual(['poured']);
	});

	it('has what was done with a line when the line goes, and is ended and begun anew in between', async () => {
		const desk = new Desk();
		const phone = await withYard(desk);
		await phone.write('with a line');
		phone.begin();
		phone.line = 'cut';
		expect(texts(await phone.read())).toEqual(['with a line']);
		await phone.write('without');
		phone.begin();
		expect(texts(await phone.read())).toEqual(['with a line', 'without']);
		await phone.back();
		expect(texts(desk.state)).toEqual(['with a line', 'without']);
	});

	it('writes nothing down of what opens doors', async () => {
		const desk = new Desk();
		const phone = await withYard(desk);
		const noted: string[] = [];
		const { keepDoneThere } = phone.keeping;
		phone.keeping.keepDoneThere = async (act) => {
			noted.push(act.path);
			await keepDoneThere(act);
		};
		for (const path of ['/key', '/invited/abc', '/yard/people?/passphrase', '/yard/devices?/add'])
			await phone.send(path, { passphrase: 'kelp verse tin arch', text: 'x' });
		expect(noted).toEqual([]);
		await phone.write('work');
		expect(noted).toEqual(['/book']);
	});

	it('answers pages while pictures are on their way, or never come', async () => {
		const desk = new Desk();
		const phone = new Phone(desk, 'ben', () => new Promise(() => undefined));
		await phone.device.take();
		phone.line = 'cut';
		await phone.write('with no pictures');
		expect(texts(await phone.read())).toEqual(['with no pictures']);
		await phone.back();
		expect(texts(desk.state)).toEqual(['with no pictures']);
	});

	it('tells of what is refused here and keeps nothing of it', async () => {
		const phone = await withYard();
		phone.line = 'cut';
		const response = await phone.write('');
		expect(((await response.json()) as { type: string }).type).toBe('failure');
		expect((await phone.device.state()).acts).toEqual([]);
	});

	it('acknowledges nothing that the device has no room for', async () => {
		const phone = await withYard();
		phone.line = 'cut';
		phone.keeping.full = true;
		const response = await phone.write('no room');
		expect(response.status).toBe(507);
		phone.keeping.full = false;
		expect(texts(await phone.read())).toEqual([]);
		expect((await phone.device.state()).acts).toEqual([]);
	});

	it('lets somebody choose where the same was changed at the desk: both stand side by side, either can be kept', async () => {
		for (const choice of ['mine', 'theirs'] as const) {
			const desk = new Desk();
			const phone = await withYard(desk);
			phone.line = 'cut';
			await phone.rename('by the phone');
			await phone.write('a note after it');
			desk.state.name = { value: 'by the desk', version: 2 };
			await phone.back();
			// What has nothing to do with it was taken; nothing wins by itself.
			expect(texts(desk.state)).toEqual(['a note after it']);
			expect(desk.state.name.value).toBe('by the desk');
			const [act] = (await phone.device.state()).acts;
			expect(act?.refused?.message).toBe('Changed meanwhile.');
			expect(act?.typed).toEqual([['name', 'by the phone']]);
			expect(act?.refused?.meanwhile?.name).toBe('by the desk');
			if (choice === 'mine') await phone.device.sendAgain(act?.id ?? '');
			else await phone.device.drop(act?.id ?? '');
			expect(desk.state.name.value).toBe(choice === 'mine' ? 'by the phone' : 'by the desk');
			expect((await phone.device.state()).acts).toEqual([]);
			expect((await phone.read()).name.value).toBe(desk.state.name.value);
		}
	});

	it('has no later change win unseen, whose count the desk has reached by a change of its own', async () => {
		const desk = new Desk();
		const phone = await withYard(desk);
		phone.line = 'cut';
		await phone.rename('first by the phone');
		await phone.rename('second by the phone');
		await phone.write('nothing to do with it');
		desk.state.name = { value: 'by the desk', version: 2 };
		await phone.back();
		expect(desk.state.name.value).toBe('by the desk');
		expect(texts(desk.state)).toEqual(['nothing to do with it']);
		const { acts } = await phone.device.state();
		expect(acts.map(({ refused }) => refused?.meanwhile?.name)).toEqual(['by the desk', 'by the desk']);
		await phone.device.drop(acts[0]?.id ?? '');
		await phone.device.sendAgain(acts[1]?.id ?? '');
		expect(desk.state.name.value).toBe('second by the phone');
	});

	it('keeps two refused changes of one thing one after the other, each at the first word', async () => {
		const desk = new Desk();
		const phone = await withYard(desk);
		phone.line = 'cut';
		await phone.rename('first by the phone');
		await phone.rename('second by the phone');
		desk.state.name = { value: 'by the desk', version: 7 };
		await phone.back();
		const [first, second] = (await phone.device.state()).acts;
		await phone.device.sendAgain(first?.id ?? '');
		expect(desk.state.name.value).toBe('first by the phone');
		const [left] = (await phone.device.state()).acts;
		// What it meets by now is what was kept just before.
		expect(left?.refused?.meanwhile).toMatchObject({ name: 'first by the phone', version: '8' });
		await phone.device.sendAgain(second?.id ?? '');
		expect(desk.state.name).toEqual({ value: 'second by the phone', version: 9 });
		expect((await phone.device.state()).acts).toEqual([]);
	});

	it('has a change at the desk between the two asked about anew', async () => {
		const desk = new Desk();
		const phone = await withYard(desk);
		phone.line = 'cut';
		await phone.rename('first by the phone');
		await phone.rename('second by the phone');
		desk.state.name = { value: 'by the desk', version: 2 };
		await phone.back();
		const [first, second] = (await phone.device.state()).acts;
		await phone.device.sendAgain(first?.id ?? '');
		desk.state.name = { value: 'by the desk again', version: 4 };
		await phone.device.sendAgain(second?.id ?? '');
		expect(desk.state.name.value).toBe('by the desk again');
		expect((await phone.device.state()).acts[0]?.refused?.meanwhile?.name).toBe('by the desk again');
	});

	it('refuses with a change nothing that the same form said of another thing', async () => {
		const desk = new Desk();
		const phone = await withYard(desk);
		phone.line = 'cut';
		await phone.rename('by the phone');
		await phone.rename('another thing', 'other');
		desk.state.name = { value: 'by the desk', version: 2 };
		await phone.back();
		expect(desk.state.other.value).toBe('another thing');
		expect((await phone.device.state()).acts).toHaveLength(1);
	});

	it('goes out of date by nothing: a copy asked for before a piece of work is not put over it', async () => {
		const desk = new Desk();
		const phone = await withYard(desk);
		const { answer } = desk;
		desk.answer = async (request, by) => {
			const response = await answer.call(desk, request, by);
			if (new URL(request.url).pathname === '/along/yard') {
				desk.answer = answer;
				await phone.write('meanwhile');
			}
			return response;
		};
		await phone.device.take();
		phone.line = 'cut';
		expect(texts(await phone.read())).toEqual(['meanwhile']);
	});

	it('never sends the work for one yard into another at the same address', async () => {
		const desk = new Desk();
		const phone = await withYard(desk);
		phone.line = 'cut';
		await phone.write('for the first yard');
		desk.id = 'yard-2';
		await phone.back();
		expect(texts(desk.state)).toEqual([]);
		expect((await phone.device.state()).acts).toHaveLength(1);
	});

	it('lets go of the copy when nobody is signed in any more, and keeps the work for who did it', async () => {
		const desk = new Desk();
		const phone = await withYard(desk);
		phone.line = 'cut';
		await phone.write('before the key went');
		desk.key = false;
		await phone.back();
		const state = await phone.device.state();
		expect(state.locked).toBe(true);
		expect((await phone.keeping.yard())?.bytes.byteLength).toBe(0);
		expect(phone.pictures).toEqual([]);
		expect(state.acts).toHaveLength(1);
		desk.key = true;
		// Somebody else signs in on the same phone: their name is never put under it.
		(phone as { name: string }).name = 'cem';
		await phone.device.take();
		await phone.back();
		expect(texts(desk.state)).toEqual([]);
		expect((await phone.device.state()).acts[0]?.mine).toBe(false);
		(phone as { name: string }).name = 'ben';
		await phone.device.take();
		await phone.back();
		expect(desk.state.book.map(({ text, by }) => [text, by])).toEqual([['before the key went', 'ben']]);
	});

	describe('how long it waits', () => {
		beforeEach(() => void vi.useFakeTimers());
		afterEach(() => void vi.useRealTimers());
		/** After how long a request on a line that hangs is answered from here, to 100 ms. */
		const answeredAfterMs = async (asked: Promise<unknown>): Promise<number> => {
			let answered = false;
			void asked.then(() => (answered = true));
			let waited = 0;
			for (; !answered && waited < 60_000; waited += 100) await vi.advanceTimersByTimeAsync(100);
			return waited;
		};

		it('makes a page itself after four seconds, and takes longer over work, the more it carries', async () => {
			const hanging = async (): Promise<Phone> => {
				const phone = await withYard();
				phone.line = 'hanging';
				return phone;
			};
			expect(await answeredAfterMs((await hanging()).read())).toBe(4000);
			const short = await answeredAfterMs((await hanging()).write('a word'));
			expect(short).toBeGreaterThanOrEqual(10_000);
			expect(short).toBeLessThanOrEqual(10_200);
			// A picture of 500 kB over a slow line has ten seconds more.
			const long = await answeredAfterMs((await hanging()).write('x'.repeat(500_000)));
			expect(long - short).toBeGreaterThanOrEqual(9_900);
			expect(long - short).toBeLessThanOrEqual(10_100);
		});

		it('looks for the computer every five seconds at the most, a second and a half each time', async () => {
			const phone = await withYard();
			phone.line = 'cut';
			await phone.read();
			phone.line = 'hanging';
			const asked = phone.asked;
			// The clock of the phone goes on by a second with each look at it.
			phone.clockMs += 1000;
			expect(await answeredAfterMs(phone.read())).toBeLessThanOrEqual(100);
			expect(phone.asked).toBe(asked);
			phone.clockMs += 5000;
			expect(await answeredAfterMs(phone.read())).toBe(1500);
			expect(phone.asked).toBe(asked + 1);
		});

		it('brings its copy up to date beside pages once a minute at the most', async () => {
			const phone = await withYard();
			const asked = phone.asked;
			phone.clockMs += 50_000;
			await phone.read();
			expect(phone.asked).toBe(asked + 1);
			phone.clockMs += 10_000;
			await phone.read();
			await vi.advanceTimersByTimeAsync(0);
			expect(phone.asked).toBe(asked + 3);
		});
	});

	it('says why the yard cannot be taken along', async () => {
		const desk = new Desk();
		const { answer } = desk;
		desk.answer = async (request, by) =>
			new URL(request.url).pathname === '/along/yard'
				? json({ title: 'It lies elsewhere.', detail: 'Work with the network.' }, { status: 409 })
				: answer.call(desk, request, by);
		const phone = new Phone(desk, 'ben');
		await expect(phone.device.take()).rejects.toThrow(NotTaken);
		expect(await phone.keeping.yard()).toBeNull();
	});

	it('is left without a trace', async () => {
		const phone = await withYard();
		await phone.device.leave();
		expect(await phone.keeping.yard()).toBeNull();
		expect(phone.pictures).toEqual([]);
	});

	it('converges with another phone and the desk, whatever is done where, and loses nothing that was accepted', async () => {
		const step = fc.oneof(
			fc.record({
				do: fc.constant('write' as const),
				who: fc.nat(2),
				text: fc.string({ minLength: 1, maxLength: 4 })
			}),
			fc.record({
				do: fc.constant('rename' as const),
				who: fc.nat(2),
				text: fc.string({ minLength: 1, maxLength: 4 })
			}),
			fc.record({
				do: fc.constant('line' as const),
				who: fc.nat(1),
				line: fc.constantFrom<Line>('whole', 'cut', 'answer lost')
			}),
			fc.record({ do: fc.constant('restart' as const), who: fc.nat(1) }),
			fc.record({ do: fc.constant('take' as const), who: fc.nat(1) })
		);
		await fc.assert(
			fc.asyncProperty(fc.array(step, { maxLength: 25 }), async (steps) => {
				const desk = new Desk();
				const phones = [await withYard(desk, 'ben'), await withYard(desk, 'cem')] as const;
				const accepted: string[] = [];
				let count = 0;
				for (const one of steps) {
					const phone = phones[one.who];
					if (one.do === 'line' && phone) phone.line = one.line;
					else if (one.do === 'restart') phone?.begin();
					else if (one.do === 'take') await phone?.device.take().catch(() => undefined);
					else if (one.do === 'write') {
						const text = `${++count} ${one.text}`;
						if (phone) await phone.write(text);
						else desk.state.book.push({ id: `desk-${count}`, text, at: '', by: 'desk' });
						accepted.push(text);
					} else if (one.do === 'rename') {
						if (phone) await phone.rename(`${++count} ${one.text}`);
						else desk.state.name = { value: `${++count}`, version: desk.state.name.version + 1 };
					}
				}
				for (const phone of phones) {
					await phone.back();
					// Whoever has to choose, chooses theirs.
					for (let round = 0; round < 30; round++) {
						const [act] = (await phone.device.state()).acts;
						if (!act) break;
						expect(act.refused?.message).toBe('Changed meanwhile.');
						await phone.device.sendAgain(act.id);
					}
					expect((await phone.device.state()).acts).toEqual([]);
				}
				// Each accepted entry stands there once.
				expect([...texts(desk.state)].sort()).toEqual([...accepted].sort());
				for (const phone of phones) {
					await phone.device.take();
					phone.line = 'cut';
					const here = await phone.read();
					expect(texts(here)).toEqual(texts(desk.state));
					expect(here.name).toEqual(desk.state.name);
				}
			}),
			{ numRuns: 500 }
		);
	});
});
