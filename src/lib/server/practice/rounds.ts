import { desc, eq, isNull, isNotNull } from 'drizzle-orm';
import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { defaultValues } from '../../core/values/values';
import { truthOf } from '../../core/practice/truth';
import { openStore, type Store } from '../db/database';
import { practiceRound } from '../db/schema';
import { notFound, Refusal } from '../errors';
import { yardStore, yardUrl } from '../store';
import type { PracticeAct } from '../../core/practice/round';
import type { Judged } from '../../core/practice/judged';

export type RoundRow = typeof practiceRound.$inferSelect;

/**
 * Practice trees are the same for everybody: they are drawn and judged by the shipped numbers, whatever the owner of a yard set in their
 * place.
 */
export const practiceValues = defaultValues;

/** Calendar day on which the tree of a round is taken in. */
export const startOf = (round: Pick<RoundRow, 'wish'>): string => truthOf(round.wish, practiceValues).startOn;

/** A round by its identity; null where there is none. */
export async function readRound(id: string): Promise<RoundRow | null> {
	const { db } = await yardStore();
	const [row] = await db.select().from(practiceRound).where(eq(practiceRound.id, id));
	return row ?? null;
}

/** The round of a person. @throws Refusal 404 */
export async function roundOf(id: string, byId: string | null): Promise<RoundRow> {
	const round = await readRound(id);
	if (!round || round.byId !== byId) throw notFound('practice round');
	return round;
}

const byWhom = (byId: string | null) =>
	byId === null ? isNull(practiceRound.byId) : eq(practiceRound.byId, byId);

/** Rounds of a person, the latest first. */
export async function roundsOf(byId: string | null): Promise<RoundRow[]> {
	const { db } = await yardStore();
	return db.select().from(practiceRound).where(byWhom(byId)).orderBy(desc(practiceRound.startedAt));
}

/** Rounds of everybody that are over, the latest first. */
export async function allJudged(): Promise<RoundRow[]> {
	const { db } = await yardStore();
	return db
		.select()
		.from(practiceRound)
		.where(isNotNull(practiceRound.endedAt))
		.orderBy(desc(practiceRound.startedAt));
}

/** Keeps a round that begins. */
export async function keepRound(row: RoundRow): Promise<void> {
	const store = await yardStore();
	await store.write(async (tx) => void (await tx.insert(practiceRound).values(row)));
}

/**
 * Keeps how far a round is: acts that were done are put after those that stand, so that two at once are both kept.
 * @throws Refusal 404 · 409 it went on to another day meanwhile
 */
export async function keepProgress(
	round: Pick<RoundRow, 'id' | 'day'>,
	{ acts = [], ...set }: { day?: number; acts?: PracticeAct[]; endedAt?: string; judged?: Judged }
): Promise<void> {
	const store = await yardStore();
	await store.write(async (tx) => {
		const [now] = await tx.select().from(practiceRound).where(eq(practiceRound.id, round.id));
		if (!now) throw notFound('practice round');
		if (now.day !== round.day || now.endedAt !== null)
			throw new Refusal(409, 'This round went on in another window.', 'Look at the page anew.');
		await tx
			.update(practiceRound)
			.set({ ...set, acts: [...now.acts, ...acts] })
			.where(eq(practiceRound.id, round.id));
	});
}

/** Takes a round out with its yard. */
export async function removeRound(id: string): Promise<void> {
	const store = await yardStore();
	await store.write(async (tx) => void (await tx.delete(practiceRound).where(eq(practiceRound.id, id))));
	await closeRound(id);
	for (const ending of ['', '-wal', '-shm']) rmSync(fileOf(id) + ending, { force: true });
}

/** Where the yards of rounds lie: beside the yard where that is a file. */
function folder(): string {
	const url = yardUrl();
	const beside = url.startsWith('file:')
		? path.dirname(path.resolve(url.slice('file:'.length)))
		: path.resolve('data');
	return path.join(beside, 'practice');
}
const fileOf = (id: string): string => path.join(folder(), `${id}.db`);

const open = new Map<string, Promise<Store>>();
const OPEN_MOST = 6;
/** Yards of so many rounds are kept; of older ones what was done and how it was judged. */
const KEPT = 30;

async function closeRound(id: string): Promise<void> {
	const store = await open.get(id)?.catch(() => null);
	open.delete(id);
	store?.close();
}

/** The yard of a round. @throws Refusal 404 where it was tidied away */
export function roundStore(id: string): Promise<Store> {
	const known = open.get(id);
	if (known) {
		open.delete(id);
		open.set(id, known);
		return known;
	}
	if (!existsSync(fileOf(id)))
		return Promise.reject(
			new Refusal(404, 'The yard of this round was tidied away.', 'How it was judged stands under Practise.')
		);
	return opened(id);
}

function opened(id: string): Promise<Store> {
	const store = openStore(`file:${fileOf(id)}`, { replica: false });
	store.catch(() => open.delete(id));
	open.set(id, store);
	const oldest = [...open.keys()][0];
	if (open.size > OPEN_MOST && oldest) void closeRound(oldest);
	return store;
}

/** A new yard for a round, and the oldest of others tidied away. */
export async function newRoundStore(id: string): Promise<Store> {
	mkdirSync(folder(), { recursive: true });
	const { db } = await yardStore();
	const rows = await db
		.select({ id: practiceRound.id })
		.from(practiceRound)
		.orderBy(desc(practiceRound.startedAt))
		.limit(KEPT);
	const kept = new Set(rows.map((row) => row.id));
	for (const file of readdirSync(folder())) {
		const of = file.replace(/\.db(-wal|-shm)?$/, '');
		if (kept.has(of) || of === id) continue;
		await closeRound(of);
		rmSync(path.join(folder(), file), { force: true });
	}
	return opened(id);
}
