import { eq, lt } from 'drizzle-orm';
import { AsyncLocalStorage } from 'node:async_hooks';
import { createHash, randomUUID } from 'node:crypto';
import { z } from 'zod';
import { addDays } from '../core/maths/calendar';
import { calendarDate, id, instant } from '../core/vocabulary/fields';
import type { Reader, Writer } from './db/database';
import { sentAct } from './db/schema';
import { Refusal } from './errors';

/*
 * A piece of work that a page sends under a name of its own, with the instant at which it was done. It may have been done on a phone that
 * was alone, and is sent hours later, or twice because an answer was lost: it is kept once, as of its own instant, and what it
 * makes bears the same identities on the phone as here.
 */

/** What is sent beside a piece of work, as JSON in its header. */
export const actHeader = z.strictObject({ id: id(), at: instant(), today: calendarDate() });
export type ActSent = z.infer<typeof actHeader>;

interface Acting extends ActSent {
	byId: string | null;
	/** How many identities were made in it. */
	made: number;
	/** Whether it is noted as done. */
	noted: boolean;
}

const acting = new AsyncLocalStorage<Acting>();

/** Runs what one piece of work asks for as of its own instant. */
export const actingAs = <T>(act: ActSent, byId: string | null, work: () => T): T =>
	acting.run({ ...act, byId, made: 0, noted: false }, work);

/** The instant and the day of the work under way; null where it is done now. */
export const instantOfAct = (): Pick<ActSent, 'at' | 'today'> | null => acting.getStore() ?? null;

const HEX = { version: 12, variant: 16 };

/** An identity that follows from a name and a count: the same wherever it is reckoned [RFC 9562, 5.8: version 8]. */
function idOf(name: string, count: number): string {
	const hex = createHash('sha256').update(`${name} ${count}`).digest('hex').slice(0, 32).split('');
	hex[HEX.version] = '8';
	hex[HEX.variant] = '8';
	return hex.join('').replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
}

/** Identity for a new record. */
export function newId(): string {
	const act = acting.getStore();
	return act ? idOf(act.id, act.made++) : randomUUID();
}

const REMEMBERED_DAYS = 400;

/** Notes the work under way as done, with what it writes and in the same write. @throws Refusal 409 it is being done already */
export async function noteAct(tx: Writer, keptAt: Date): Promise<void> {
	const act = acting.getStore();
	if (!act || act.noted) return;
	const [noted] = await tx
		.insert(sentAct)
		.values({ id: act.id, keptAt: keptAt.toISOString(), byId: act.byId })
		.onConflictDoNothing()
		.returning({ id: sentAct.id });
	if (!noted)
		throw new Refusal(503, 'This is being kept already.', 'Send it again in a moment to see that it is.');
	act.noted = true;
	await tx
		.delete(sentAct)
		.where(lt(sentAct.keptAt, addDays(keptAt.toISOString().slice(0, 10), -REMEMBERED_DAYS)));
}

/** Whether the work under way has written something. */
export const actIsNoted = (): boolean => acting.getStore()?.noted ?? false;

export interface ActAnswer {
	status: number;
	answer: string;
}

/** What a piece of work that is done was answered, or an empty answer where that was lost; null for one that is not done. */
export async function answerOfAct(db: Reader, act: ActSent, byId: string | null): Promise<ActAnswer | null> {
	const [done] = await db.select().from(sentAct).where(eq(sentAct.id, act.id));
	if (!done) return null;
	if (done.byId !== byId)
		throw new Refusal(403, 'This was sent by somebody else.', 'Do it anew under your own name.');
	return { status: done.status ?? 200, answer: done.answer ?? '{}' };
}

/** Keeps what a piece of work was answered. */
export async function keepAnswer(tx: Writer, act: ActSent, { status, answer }: ActAnswer): Promise<void> {
	await tx.update(sentAct).set({ status, answer }).where(eq(sentAct.id, act.id));
}
