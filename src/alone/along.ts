import { z } from 'zod';
import {
	ACT_HEADER,
	ALONG_HEADER,
	alongHeader,
	YARD_HEADER,
	type ActTold,
	type AlongState
} from '$core/vocabulary/along';
import type { KeptAct, KeptYard, Keeping, NamedWork, RefusedWork } from './kept';
import type { LocalServer } from './local-server';
import { changes, meantOver, refusedIn, requestSent, thingOf, typedIn } from './sent';

/*
 * A phone that has taken the yard along: it asks the computer of the yard while that answers, and answers itself while it does not. What
 * is done alone is kept here, in order, each piece under a name of its own, and sent when the computer answers again.
 */

/** What the phone stands on. */
export interface Surroundings {
	keeping: Keeping;
	/** Asks the network; throws where there is none. */
	fetch(request: Request): Promise<Response>;
	/** The server of the yard, loaded where it is first needed. */
	server(): Promise<LocalServer>;
	/** Tells the pages how things stand. */
	tell(state: AlongState): void;
	/** Brings the small pictures of these names along, and lets go of others. */
	keepPictures(names: readonly string[]): Promise<void>;
	now(): Date;
	newId(): string;
	/** Where the pages of the yard are, like `https://192.168.1.7:4747`. */
	origin: string;
	/** Which Bruntle this is: a copy of the yard fits the one it was taken with. */
	build: string;
}

/** So long a page is waited for before it is made here, ms. */
const PAGE_WAIT_MS = 4000;
/** Work is waited for longer, and the longer the more it carries. */
const WORK_WAIT_MS = 10_000;
const BYTES_PER_MS = 50;
const THERE_WAIT_MS = 1500;
/** While alone, the computer is looked for so often at the most. */
const LOOK_EVERY_MS = 5000;
/** A copy of the yard that pages were read beside is brought up to date so often at the most. */
const TAKE_EVERY_MS = 60_000;
const MOST_PICTURES = 300;
/** The server is not there, or not yet: what a proxy says for it. */
const AWAY = [502, 503, 504];

export class AlongDevice {
	#turn: Promise<unknown> = Promise.resolve();
	#open = false;
	#lookedAt = 0;
	#takenAt = 0;
	/** How many pieces of work were begun: a copy that was asked for before one is not put over it. */
	#begun = 0;
	#sending: Promise<void> | null = null;

	constructor(private readonly on: Surroundings) {}

	/** One after the other, whatever it is. */
	#inTurn<T>(work: () => Promise<T>): Promise<T> {
		const run = this.#turn.then(work);
		this.#turn = run.catch(() => undefined);
		return run;
	}

	async #ask(request: Request, waitMs: number): Promise<Response> {
		const stop = new AbortController();
		const timer = setTimeout(() => stop.abort(), waitMs);
		try {
			return await this.on.fetch(new Request(request, { signal: stop.signal }));
		} finally {
			clearTimeout(timer);
		}
	}

	/** Answers a request of a page. */
	async answer(request: Request): Promise<Response> {
		const yard = await this.on.keeping.yard();
		if (!yard || isLocked(yard)) return this.on.fetch(request);
		if (changes(request)) return this.#answerWork(request, yard);
		if (await this.#isAlone()) return this.#answerHere(request, yard);
		try {
			const response = await this.#ask(request.clone(), PAGE_WAIT_MS);
			// Led elsewhere, it may be to where a key is asked for.
			if (response.type === 'opaqueredirect') void this.#look();
			else if (this.on.now().getTime() - this.#takenAt > TAKE_EVERY_MS)
				void this.take().catch(() => undefined);
			return response;
		} catch {
			await this.#goAlone();
			return this.#answerHere(request, yard);
		}
	}

	/** Whether the computer of the yard is away; where it is back, what waits is sent first. */
	async #isAlone(): Promise<boolean> {
		if ((await this.on.keeping.aloneSince()) === null) return false;
		const now = this.on.now().getTime();
		if (now - this.#lookedAt < LOOK_EVERY_MS) return true;
		this.#lookedAt = now;
		return !(await this.comeBack());
	}

	async #goAlone(): Promise<void> {
		this.#lookedAt = this.on.now().getTime();
		const yard = await this.on.keeping.yard();
		if (yard && (await this.on.keeping.aloneSince()) === null)
			await this.on.keeping.keepAloneSince(this.#instant(yard).toISOString());
		await this.tell();
	}

	/** Looks for the computer of the yard, and sends what waits where it is there. @returns whether pages are to be asked of it */
	async comeBack(): Promise<boolean> {
		const found = await this.#look();
		if (found === 'locked') return true;
		if (found === 'away') return false;
		await this.send(found.who);
		return (await this.on.keeping.aloneSince()) === null;
	}

	/** Whether the yard answers, is the one that was taken along, and knows who asks. Without a key the copy is let go of. */
	async #look(): Promise<'away' | 'locked' | { who: string | null }> {
		const yard = await this.on.keeping.yard();
		try {
			const response = await this.#ask(
				new Request(`${this.on.origin}/along/there`, { cache: 'no-store', redirect: 'manual' }),
				THERE_WAIT_MS
			);
			if (response.type === 'opaqueredirect') {
				await this.#lock();
				return 'locked';
			}
			const said = there.safeParse(response.ok ? await response.json() : null).data;
			return said && said.yard === yard?.along.yard ? { who: said.who } : 'away';
		} catch {
			return 'away';
		}
	}

	/** Nobody is signed in any more: the copy goes, and only what was done and not sent stays. */
	#lock(): Promise<void> {
		return this.#inTurn(async () => {
			const yard = await this.on.keeping.yard();
			if (!yard || isLocked(yard)) return;
			await this.on.keeping.keepYard({ ...yard, bytes: new Uint8Array(), etag: null }, 'all');
			await this.on.keeping.keepAloneSince(null);
			await this.on.keepPictures([]);
			this.#open = false;
			await this.tell();
		});
	}

	async #openHere(yard: KeptYard): Promise<LocalServer> {
		const server = await this.on.server();
		if (!this.#open) await server.open(yard.bytes, yard.along);
		this.#open = true;
		// Done at the yard, and this device ended before the copy had it.
		for (const act of await this.on.keeping.doneThere()) {
			const response = await server.respond(this.#requestOf(act, yard), yard.along.who);
			// The copy was of before somebody else's work: it is taken anew with the next page.
			if ((await refusedIn(response)) !== null) this.#takenAt = 0;
			await this.on.keeping.keepYard({ ...yard, bytes: server.export(), etag: null }, act.id);
		}
		return server;
	}

	#answerHere(request: Request, yard: KeptYard): Promise<Response> {
		return this.#inTurn(async () => {
			const kept = (await this.on.keeping.yard()) ?? yard;
			return (await this.#openHere(kept)).respond(request, kept.along.who);
		});
	}

	async #answerWork(request: Request, yard: KeptYard): Promise<Response> {
		const sent = await requestSent(request);
		const at = this.#instant(yard);
		const act = {
			...sent,
			id: this.on.newId(),
			at: at.toISOString(),
			today: dayOf(at, yard.along.clockAt !== null)
		};
		this.#begun++;
		if (await this.#isAlone()) return this.#doHere(act);
		try {
			const waitMs = WORK_WAIT_MS + sent.body.byteLength / BYTES_PER_MS;
			const response = await this.#ask(this.#requestOf(act, yard), waitMs);
			// What is done there is done here too, so that the copy has it when the network goes.
			// What opens doors is not written down here: a passphrase may be in it.
			if (opensDoors.test(sent.path)) void this.#look();
			else if ((await refusedIn(response)) === null) {
				await this.on.keeping.keepDoneThere(act);
				void this.#mirror().catch(() => undefined);
			}
			return response;
		} catch {
			await this.#goAlone();
			return this.#doHere(act);
		}
	}

	/** The instant it is by the clock of the yard. */
	#instant = ({ along }: KeptYard): Date => (along.clockAt ? new Date(along.clockAt) : this.on.now());

	#requestOf(act: NamedWork, { along }: KeptYard): Request {
		return new Request(this.on.origin + act.path, {
			method: act.method,
			headers: {
				...act.headers,
				[ACT_HEADER]: JSON.stringify({ id: act.id, at: act.at, today: act.today }),
				[YARD_HEADER]: along.yard
			},
			body: act.body.byteLength > 0 ? act.body : null,
			redirect: 'manual'
		});
	}

	/** Does a piece of work on this phone, and keeps it to be sent. */
	#doHere(act: NamedWork): Promise<Response> {
		return this.#inTurn(async () => {
			const yard = await this.on.keeping.yard();
			if (!yard) throw new Error('no yard is here any more');
			const server = await this.#openHere(yard);
			const before = server.lastTold()?.entryId;
			const response = await server.respond(this.#requestOf(act, yard), yard.along.who);
			if ((await refusedIn(response)) !== null || response.status >= 400) return response;
			const told = server.lastTold();
			const mine = told && (told.entryId !== before || act.method === 'PUT') ? told : null;
			const tree =
				mine?.treeId && mine.tag !== null ? { id: mine.treeId, tag: mine.tag, name: mine.name ?? '' } : null;
			try {
				await this.on.keeping.keepAct(
					{ ...act, what: mine?.what ?? 'Taken back', tree, by: yard.along.who.id, refused: null },
					{ ...yard, bytes: server.export() }
				);
			} catch (cause) {
				// What is not kept was not done: the copy is read anew as it was.
				this.#open = false;
				console.error(cause);
				return Response.json(
					{
						type: 'error',
						status: 507,
						error: {
							message: 'This device has no room to keep it.',
							advice: 'Make room on it, then send it again.'
						}
					},
					{ status: 507 }
				);
			}
			await this.tell();
			return response;
		});
	}

	/** Does here what was done there. */
	#mirror(): Promise<void> {
		return this.#inTurn(async () => {
			const yard = await this.on.keeping.yard();
			if (yard && !isLocked(yard)) await this.#openHere(yard);
		});
	}

	/**
	 * Sends what waits, in the order it was done. What the yard does not take stays, with its reason; what cannot be sent now waits on.
	 * @param who in whose name it is sent; null at the computer itself
	 */
	send(who: string | null): Promise<void> {
		this.#sending ??= this.#sendAll(who).finally(() => (this.#sending = null));
		return this.#sending;
	}

	async #sendAll(who: string | null): Promise<void> {
		const yard = await this.on.keeping.yard();
		if (!yard) return;
		for (;;) {
			// What is done while it is sent comes after; what somebody else did waits for them.
			const act = (await this.on.keeping.acts()).find(({ refused, by }) => refused === null && by === who);
			if (!act) break;
			const clash = await this.#clashBefore(act);
			if (clash) await this.#keepRefused({ ...act, refused: clash });
			const sent = clash !== null || (await this.#sendOne(act, yard));
			await this.tell();
			if (!sent) return;
		}
		await this.on.keeping.keepAloneSince(null);
		await this.tell();
		// Pages do not wait for it: the copy here has all that was done here.
		void this.take().catch(() => undefined);
	}

	/**
	 * Why an earlier change of the same thing was not taken. What was built on it bears a count that the yard may have reached by
	 * somebody else's change, and would win over that unseen.
	 */
	async #clashBefore(act: KeptAct): Promise<RefusedWork | null> {
		const acts = await this.on.keeping.acts();
		const thing = await thingOf(act);
		for (const earlier of acts.slice(
			0,
			acts.findIndex(({ id }) => id === act.id)
		))
			if (earlier.refused?.meanwhile && (await thingOf(earlier)) === thing) return earlier.refused;
		return null;
	}

	/** @returns whether the yard answered */
	async #sendOne(act: KeptAct, yard: KeptYard): Promise<boolean> {
		let response: Response;
		try {
			response = await this.#ask(
				this.#requestOf(act, yard),
				WORK_WAIT_MS + act.body.byteLength / BYTES_PER_MS
			);
		} catch {
			return false;
		}
		// Without a key nothing is refused for good: it waits until somebody signs in.
		if (response.status === 401 || response.type === 'opaqueredirect') return false;
		const refused = await refusedIn(response);
		if (refused?.status === 401 || AWAY.includes(refused?.status ?? 0)) return false;
		if (refused === null) await this.on.keeping.dropAct(act.id);
		else await this.#keepRefused({ ...act, refused });
		return true;
	}

	/** A drawing that was refused and drawn on since is one piece of work: its last state, over what it was begun from. */
	async #keepRefused(act: KeptAct): Promise<void> {
		if (act.method === 'PUT')
			for (const one of await this.on.keeping.acts())
				if (one.refused && one.path === act.path && one.method === 'PUT' && one.id !== act.id)
					await this.on.keeping.dropAct(one.id);
		await this.on.keeping.changeAct(act);
	}

	/** Takes the yard along, or brings the copy up to date; never over work that waits to be sent. */
	async take(): Promise<void> {
		this.#takenAt = this.on.now().getTime();
		const before = await this.on.keeping.yard();
		const waits = async (): Promise<boolean> =>
			(await this.on.keeping.acts()).some(
				({ refused, by }) => refused === null && by === before?.along.who.id
			);
		if (before && !isLocked(before) && (await waits())) return;
		const begun = this.#begun;
		const known = before?.build === this.on.build ? before.etag : null;
		const response = await this.on.fetch(
			new Request(`${this.on.origin}/along/yard`, {
				headers: known ? { 'if-none-match': known } : {},
				cache: 'no-store',
				redirect: 'manual'
			})
		);
		if (response.status === 304) return;
		if (response.type === 'opaqueredirect') return this.#lock();
		if (!response.ok) {
			const said = await refusedIn(response);
			throw new NotTaken(said?.message ?? 'The yard could not be read.', said?.advice ?? 'Try again.');
		}
		const along = alongHeader.parse(JSON.parse(decodeURIComponent(response.headers.get(ALONG_HEADER) ?? '')));
		const bytes = new Uint8Array(await response.arrayBuffer());
		const pictures = await this.#inTurn(async () => {
			// Work that was done meanwhile is not in it.
			if (begun !== this.#begun) {
				this.#takenAt = 0;
				return null;
			}
			await this.on.keeping.keepYard(
				{ along, bytes, etag: response.headers.get('etag'), build: this.on.build },
				'all'
			);
			const server = await this.on.server();
			await server.open(bytes, along);
			this.#open = true;
			return server.pictures(MOST_PICTURES);
		});
		await this.tell();
		// In their own time: nothing waits for them, least of all when the line goes in between.
		if (pictures) void this.on.keepPictures(pictures).catch(() => undefined);
	}

	/** How things stand, for the pages. */
	async state(): Promise<AlongState> {
		const [yard, acts, aloneSince] = await Promise.all([
			this.on.keeping.yard(),
			this.on.keeping.acts(),
			this.on.keeping.aloneSince()
		]);
		const told = await Promise.all(
			acts.map(async ({ id, at, what, tree, by, refused, path, method, ...sent }): Promise<ActTold> => ({
				id,
				at,
				what,
				tree,
				path,
				mine: by === yard?.along.who.id,
				refused,
				typed: refused ? await typedIn({ path, method, ...sent }) : [],
				// Only a drawing of roots is put, and it is compared where it is drawn.
				drawing: method === 'PUT' && refused ? new TextDecoder().decode(sent.body) : null
			}))
		);
		return { along: yard?.along ?? null, locked: yard !== null && isLocked(yard), aloneSince, acts: told };
	}

	async tell(): Promise<void> {
		this.on.tell(await this.state());
	}

	/** A piece of work that was refused is dropped: what stands at the yard is to stand. */
	async drop(id: string): Promise<void> {
		await this.on.keeping.dropAct(id);
		await this.tell();
	}

	/** A piece of work that was refused is meant nevertheless, over what stands there by now. */
	async sendAgain(id: string): Promise<void> {
		const act = (await this.on.keeping.acts()).find((one) => one.id === id);
		if (!act?.refused) return;
		const { meanwhile } = act.refused;
		const sent =
			meanwhile?.version === undefined ? act : { ...act, ...(await meantOver(act, meanwhile.version)) };
		await this.on.keeping.changeAct({ ...sent, refused: null });
		await this.comeBack();
		if (meanwhile) await this.#standsNow(act, meanwhile);
		await this.tell();
	}

	/** What was kept over what stood there is what later changes of the same thing meet, should they be meant too. */
	async #standsNow(act: KeptAct, meanwhile: Record<string, string>): Promise<void> {
		const acts = await this.on.keeping.acts();
		if (acts.some(({ id }) => id === act.id)) return;
		const version = String(Number(meanwhile.version) + 1);
		const stands = { ...meanwhile, ...Object.fromEntries(await typedIn(act)), version };
		const thing = await thingOf(act);
		for (const one of acts) {
			const { refused } = one;
			if (refused === null || refused.meanwhile?.version !== meanwhile.version) continue;
			if ((await thingOf(one)) === thing)
				await this.on.keeping.changeAct({ ...one, refused: { ...refused, meanwhile: stands } });
		}
	}

	/** Lets go of the yard, and of all that was done here and not sent. */
	async leave(): Promise<void> {
		await this.#inTurn(async () => {
			await this.on.keeping.clear();
			await this.on.keepPictures([]);
			this.#open = false;
		});
		await this.tell();
	}
}

/** Addresses by which somebody comes in, or lets others in. */
const opensDoors = /^\/(key|invited|shared|yard\/(people|devices|backups))\b/;

const there = z.looseObject({ yard: z.string(), who: z.string().nullable() });
/** Whether nobody is signed in any more, so that the copy is gone. */
const isLocked = ({ bytes }: KeptYard): boolean => bytes.byteLength === 0;

/** The yard was not taken along, for a reason told by it. */
export class NotTaken extends Error {
	constructor(
		message: string,
		readonly advice: string
	) {
		super(message);
	}
}

/** A calendar day: of a clock that stands still in UTC, otherwise of this device. */
function dayOf(at: Date, pinned: boolean): string {
	if (pinned) return at.toISOString().slice(0, 10);
	const two = (n: number): string => String(n).padStart(2, '0');
	return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}
