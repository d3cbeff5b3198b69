import { and, desc, eq, gt, lt, ne, sql } from 'drizzle-orm';
import { newId } from '../acting';
import type { InvitationTold, NewPerson, PersonTold, Role, Who } from '../../core/vocabulary/people';
import { now } from '../clock';
import type { Reader, Store, Writer } from '../db/database';
import { invitation, person, session } from '../db/schema';
import { invalid, notFound, Refusal } from '../errors';
import { readSetting, writeSetting } from '../settings';
import { keyHash, newKey } from './keys';
import { noteTry, refuseTooSoon } from './misses';
import { hashPassphrase, isPassphrase, refuseGuessable } from './passphrase';

const DAY_MS = 86_400_000;
/** A device that was not used for so long has to sign in again; and each one after the second span, whatever was used. */
const IDLE_DAYS = 30;
const LONGEST_DAYS = 180;
const INVITED_MS = DAY_MS;
/** Its last use is written down this often at the most, ms. */
const SEEN_EVERY_MS = 10 * 60_000;

const before = (ms: number): string => new Date(now().getTime() - ms).toISOString();
const nameKeyOf = (name: string): string => name.trim().normalize('NFKC').toLowerCase();

/** What is kept of who came with an archive: they have no passphrase here until they take an invitation up. */
const NO_PASSPHRASE = '';

/** Whether anybody owns the yard and can come in; without one nothing is opened to the network. */
export async function hasOwner(db: Reader): Promise<boolean> {
	const [owner] = await db
		.select({ id: person.id })
		.from(person)
		.where(and(eq(person.role, 'owner'), ne(person.passHash, NO_PASSPHRASE)))
		.limit(1);
	return owner !== undefined;
}

const KEY_HERE = 'key-here';
/** Whether a key is asked for at this computer too. Only an owner has it so, and who starts Bruntle there can open it again. */
export const keyAskedHere = async (db: Reader): Promise<boolean> =>
	process.env.BRUNTLE_OPEN_HERE !== '1' && (await readSetting(db, KEY_HERE)) === true;

/** Asks for a key at this computer too, or no more. @throws Refusal 409 nobody owns the yard yet */
export async function askKeyHere(store: Store, asked: boolean): Promise<void> {
	if (asked && !(await hasOwner(store.db)))
		throw new Refusal(
			409,
			'Nobody owns this yard yet.',
			'Make yourself its owner first; else nobody could open it.'
		);
	await writeSetting(store, KEY_HERE, asked);
}

/** Makes the first owner of a yard, at the computer itself. @throws Refusal 409 it has one · 422 */
export async function makeOwner(store: Store, input: NewPerson): Promise<Who> {
	const row = await newRow(input, 'owner');
	return store.write(async (tx) => {
		if (await hasOwner(tx)) throw new Refusal(409, 'This yard has an owner.', 'Have them invite you.');
		return addPerson(tx, row);
	}, none);
}
/** People are of no tree. */
const none = (): string[] => [];

async function newRow({ name, passphrase }: NewPerson, role: Role): Promise<typeof person.$inferInsert> {
	refuseGuessable(passphrase, name);
	const passHash = await hashPassphrase(passphrase);
	return { id: newId(), name, nameKey: nameKeyOf(name), role, passHash, madeAt: now().toISOString() };
}

async function addPerson(tx: Writer, row: typeof person.$inferInsert): Promise<Who> {
	const [same] = await tx.select().from(person).where(eq(person.nameKey, row.nameKey));
	if (same?.passHash === NO_PASSPHRASE && same.role === row.role) {
		// Who came with an archive takes their place.
		await tx.update(person).set({ passHash: row.passHash }).where(eq(person.id, same.id));
		return { id: same.id, name: same.name, role: same.role };
	}
	if (same) throw invalid([{ field: 'name', message: 'is that of somebody here already; take another' }]);
	await tx.insert(person).values(row);
	return { id: row.id, name: row.name, role: row.role };
}

/** Brings somebody along with an archive, without a passphrase; who is here under that name stays as they are. */
export async function bringPerson(
	tx: Writer,
	{ id, name, role, madeAt }: Pick<PersonTold, 'id' | 'name' | 'role' | 'madeAt'>
): Promise<void> {
	const row = { id, name, nameKey: nameKeyOf(name), role, passHash: NO_PASSPHRASE, madeAt };
	await tx.insert(person).values(row).onConflictDoNothing();
}

/**
 * Makes an invitation that holds for a day and for one person.
 * @returns its key, told once
 */
export async function invite(store: Store, role: Role): Promise<string> {
	const key = newKey();
	const untilAt = new Date(now().getTime() + INVITED_MS).toISOString();
	await store.write(async (tx) => {
		await tx.delete(invitation).where(lt(invitation.untilAt, now().toISOString()));
		await tx.insert(invitation).values({ id: newId(), keyHash: keyHash(key), role, untilAt });
	}, none);
	return key;
}

/** The role that an invitation is for. @throws Refusal 404 unknown, taken up, or over */
export async function invitedTo(db: Reader, key: string): Promise<Role> {
	const [found] = await db
		.select({ role: invitation.role })
		.from(invitation)
		.where(and(eq(invitation.keyHash, keyHash(key)), gt(invitation.untilAt, now().toISOString())));
	if (!found)
		throw new Refusal(
			404,
			'This invitation holds no more.',
			'It is for one person and one day. Ask for another.'
		);
	return found.role;
}

/** Takes an invitation up. @throws Refusal 404 it holds no more · 422 */
export async function acceptInvitation(store: Store, key: string, input: NewPerson): Promise<Who> {
	const row = await newRow(input, await invitedTo(store.db, key));
	return store.write(async (tx) => {
		// Of two at once the second finds it gone.
		const role = await invitedTo(tx, key);
		await tx.delete(invitation).where(eq(invitation.keyHash, keyHash(key)));
		return addPerson(tx, { ...row, role });
	}, none);
}

/** Takes back an invitation that nobody took up. */
export const takeInvitationBack = (store: Store, id: string): Promise<void> =>
	store.write(async (tx) => {
		await tx.delete(invitation).where(eq(invitation.id, id));
	}, none);

/** Invitations that hold still. */
export const openInvitations = (db: Reader): Promise<InvitationTold[]> =>
	db
		.select({ id: invitation.id, role: invitation.role, untilAt: invitation.untilAt })
		.from(invitation)
		.where(gt(invitation.untilAt, now().toISOString()))
		.orderBy(invitation.untilAt);

/**
 * Whose name and passphrase these are.
 * @param address where they are typed, to slow down who guesses
 * @throws Refusal 401 wrong · 429 wrong several times
 */
export async function recognise(
	db: Reader,
	{ name, passphrase }: { name: string; passphrase: string },
	address: string
): Promise<Who> {
	const nameKey = nameKeyOf(name);
	const tried = [`name ${nameKey}`, `from ${address}`];
	refuseTooSoon(tried);
	const [found] = await db.select().from(person).where(eq(person.nameKey, nameKey));
	const right = await isPassphrase(passphrase, found?.passHash || null);
	noteTry(tried, right);
	if (!found || !right)
		throw new Refusal(
			401,
			'Name and passphrase do not go together.',
			'Look at both; an owner can invite you anew.'
		);
	return { id: found.id, name: found.name, role: found.role };
}

/**
 * Signs somebody in on a device.
 * @param device what it says it is
 * @returns the key that the device keeps
 */
export async function signIn(store: Store, personId: string, device: string): Promise<string> {
	const key = newKey();
	const at = now().toISOString();
	await store.write(async (tx) => {
		await tx.delete(session).where(lt(session.lastAt, before(IDLE_DAYS * DAY_MS)));
		await tx
			.insert(session)
			.values({ id: newId(), personId, keyHash: keyHash(key), device, madeAt: at, lastAt: at });
	}, none);
	return key;
}

/** Whose key this is; null for one that is unknown, taken back or too old. Its use is noted now and then. */
export async function whoHas(store: Store, key: string): Promise<Who | null> {
	const [found] = await store.db
		.select({
			id: person.id,
			name: person.name,
			role: person.role,
			session: session.id,
			lastAt: session.lastAt
		})
		.from(session)
		.innerJoin(person, eq(person.id, session.personId))
		.where(
			and(
				eq(session.keyHash, keyHash(key)),
				gt(session.lastAt, before(IDLE_DAYS * DAY_MS)),
				gt(session.madeAt, before(LONGEST_DAYS * DAY_MS))
			)
		);
	if (!found) return null;
	const { session: id, lastAt, ...who } = found;
	if (lastAt < before(SEEN_EVERY_MS))
		await store
			.write(async (tx) => {
				await tx.update(session).set({ lastAt: now().toISOString() }).where(eq(session.id, id));
			}, none)
			// A yard that cannot be written to can still be read.
			.catch((cause: unknown) => console.error('The use of a key was not noted:', cause));
	return who;
}

/** Takes back the key of one device. @throws Refusal 404 not one of theirs */
export async function signOut(
	store: Store,
	which: { key: string } | { id: string; personId?: string }
): Promise<void> {
	await store.write(async (tx) => {
		const gone = await tx
			.delete(session)
			.where(
				'key' in which
					? eq(session.keyHash, keyHash(which.key))
					: and(eq(session.id, which.id), which.personId ? eq(session.personId, which.personId) : sql`true`)
			)
			.returning({ id: session.id });
		if (gone.length === 0 && 'id' in which) throw notFound('device');
	}, none);
}

/** A new passphrase; every other device has to sign in with it. @throws Refusal 401 · 422 · 429 */
export async function changePassphrase(
	store: Store,
	who: Who,
	change: { before: string; passphrase: string },
	keptKey: string | null
): Promise<void> {
	await recognise(store.db, { name: who.name, passphrase: change.before }, `change of ${who.id}`);
	refuseGuessable(change.passphrase, who.name);
	const passHash = await hashPassphrase(change.passphrase);
	await store.write(async (tx) => {
		await tx
			.update(person)
			.set({ passHash })
			.where(eq(person.id, who.id ?? ''));
		await tx
			.delete(session)
			.where(and(eq(session.personId, who.id ?? ''), ne(session.keyHash, keptKey ? keyHash(keptKey) : '')));
	}, none);
}

/** Gives somebody another role. @throws Refusal 404 · 409 nobody would own the yard */
export async function changeRole(store: Store, id: string, role: Role): Promise<void> {
	await store.write(async (tx) => {
		const gone = await tx.update(person).set({ role }).where(eq(person.id, id)).returning({ id: person.id });
		if (gone.length === 0) throw notFound('person');
		await refuseOwnerless(tx);
	}, none);
}

/** Takes somebody out, with the keys of all their devices; what they did stays, under their name. @throws Refusal 404, 409 */
export async function removePerson(store: Store, id: string): Promise<void> {
	await store.write(async (tx) => {
		const gone = await tx.delete(person).where(eq(person.id, id)).returning({ id: person.id });
		if (gone.length === 0) throw notFound('person');
		await refuseOwnerless(tx);
	}, none);
}

async function refuseOwnerless(tx: Writer): Promise<void> {
	if (!(await hasOwner(tx)))
		throw new Refusal(409, 'Then nobody would own this yard.', 'Make somebody else its owner first.');
}

/** Everybody of the yard with their devices, owners first. */
export async function peopleOf(db: Reader): Promise<PersonTold[]> {
	const people = await db
		.select({
			id: person.id,
			name: person.name,
			role: person.role,
			madeAt: person.madeAt,
			waits: sql<number>`${person.passHash} = ${NO_PASSPHRASE}`
		})
		.from(person)
		.orderBy(desc(person.role), person.nameKey);
	const devices = await db
		.select({
			id: session.id,
			personId: session.personId,
			device: session.device,
			madeAt: session.madeAt,
			lastAt: session.lastAt
		})
		.from(session)
		.where(gt(session.lastAt, before(IDLE_DAYS * DAY_MS)))
		.orderBy(desc(session.lastAt));
	return people.map((one) => ({
		...one,
		waits: Number(one.waits) === 1,
		sessions: devices
			.filter(({ personId }) => personId === one.id)
			.map(({ personId: _of, ...device }) => device)
	}));
}
