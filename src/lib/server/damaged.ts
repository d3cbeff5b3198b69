import { eq } from 'drizzle-orm';
import type { DamagedRecord, DamagedRow } from '../core/vocabulary/damaged';
import { rememberedBy, type Store } from './db/database';
import * as tables from './db/schema';
import { invalid, notFound, Refusal } from './errors';
import type { Aggregate, Identified, RawRecord } from './records/aggregate';
import { aggregateNamed, everyRecord, ofTree, trees } from './records/records';
import { doWork } from './records/work';

/**
 * Looks through every record: what cannot be made out is found again from nothing, and text that was kept before it was cleaned is
 * cleaned.
 */
export async function findDamaged(store: Store): Promise<DamagedRecord[]> {
	const found: DamagedRecord[] = [];
	for (const repository of everyRecord) {
		const { damaged, unclean } = await repository.check(store.db);
		found.push(...damaged);
		if (unclean.length === 0) continue;
		// Lists that are read by columns would show it still.
		await store.write(
			async (tx) => {
				for (const { doc, treeId } of unclean) {
					// As it stands by now: it may have been written, or taken out, since it was looked at.
					const now = await repository.get(tx, doc.id).catch(() => null);
					if (now) await repository.put(tx, treeId, now);
				}
			},
			() =>
				unclean.every(({ treeId }) => treeId !== null) ? unclean.flatMap(({ treeId }) => treeId ?? []) : null
		);
	}
	const noted = rememberedBy(store.db)?.damaged;
	noted?.clear();
	for (const one of found) noted?.set(`${one.record}/${one.id}`, one);
	return found;
}

const at = (raw: unknown, path: readonly string[]): unknown =>
	path.reduce<unknown>(
		(value, key) => (typeof value === 'object' && value !== null ? (value as RawRecord)[key] : undefined),
		raw
	);
const written = (value: unknown): string =>
	typeof value === 'string' ? value : JSON.stringify(value ?? null);

/** Every damaged record with what stands in the fields that are wrong. */
export async function damagedRows(store: Store): Promise<DamagedRow[]> {
	const found = await findDamaged(store);
	return Promise.all(
		found.map(async (one) => {
			const repository = aggregateNamed(one.record);
			const raw = (await repository?.raw(store.db, one.id)) ?? {};
			const tree = one.treeId === null ? null : await trees.raw(store.db, one.treeId);
			return {
				...one,
				noun: repository?.noun ?? one.record,
				tree: tree ? `${written(tree.tag)} ${written(tree.name)}` : '',
				// Of a field that is wrong in two ways the first is said.
				cells: one.problems
					.filter(({ field }, i, all) => all.findIndex((other) => other.field === field) === i)
					.map(({ field, message }) => ({
						field,
						message,
						stands: written(at(raw, field.split('.')))
					}))
			};
		})
	);
}

async function damagedOne(store: Store, record: string, id: string) {
	const repository = aggregateNamed(record);
	const raw = await repository?.raw(store.db, id);
	if (!repository || !raw) throw notFound('record');
	if (repository.problemsOf(raw).length === 0)
		throw new Refusal(409, 'This record is whole.', 'Change it where it was written.');
	const [known] = (await repository.check(store.db)).damaged.filter((one) => one.id === id);
	return { repository, raw, treeId: known?.treeId ?? null };
}

/** What was typed in place of a damaged cell: JSON where it is that, a text otherwise. */
function typedValue(text: string): unknown {
	try {
		return JSON.parse(text);
	} catch {
		return text;
	}
}

/** A copy of a record with one value put at a path. */
function withValue(raw: unknown, [key = '', ...rest]: readonly string[], value: unknown): unknown {
	const inner = (one: unknown): unknown => (rest.length === 0 ? value : withValue(one, rest, value));
	if (Array.isArray(raw)) return raw.map((one, i) => (String(i) === key ? inner(one) : one));
	const whole = typeof raw === 'object' && raw !== null ? (raw as RawRecord) : {};
	return { ...whole, [key]: inner(Object.hasOwn(whole, key) ? whole[key] : undefined) };
}

/**
 * Puts right what is wrong with a damaged record; it is kept only when it is whole then.
 * @param typed what is to stand in its fields, by path
 * @returns the journal entry that undo takes
 * @throws Refusal 404 · 409 it is whole · 422 it would still not fit
 */
export async function mendDamaged(
	store: Store,
	of: { record: string; id: string },
	typed: Readonly<Record<string, string>>
): Promise<string> {
	const { repository, raw, treeId } = await damagedOne(store, of.record, of.id);
	const put = (read: (text: string) => unknown): RawRecord =>
		Object.entries(typed).reduce<RawRecord>(
			(record, [field, text]) => withValue(record, field.split('.'), read(text)) as RawRecord,
			raw
		);
	// A field may want a text that looks like a number, such as a tag.
	const tries = [put(typedValue), put((text) => text)];
	const mended = tries.find((one) => repository.problemsOf(one).length === 0);
	if (!mended) throw invalid(repository.problemsOf(tries[0] ?? raw));
	return keepAs(
		store,
		repository,
		{ id: of.id, treeId, what: `Mended a damaged ${repository.noun}` },
		raw,
		mended
	);
}

/**
 * Takes a damaged record out; undo puts it back as it was.
 * @throws Refusal 404 · 409 it is whole, or others hang on it
 */
export async function removeDamaged(store: Store, of: { record: string; id: string }): Promise<string> {
	const { repository, raw, treeId } = await damagedOne(store, of.record, of.id);
	const hanging = await hangingOn(store, of);
	if (hanging !== null)
		throw new Refusal(409, `${hanging} would go with this ${repository.noun}.`, 'Mend it instead.');
	return keepAs(
		store,
		repository,
		{ id: of.id, treeId, what: `Took a damaged ${repository.noun} out` },
		raw,
		null
	);
}

/** What hangs on a record and would be lost with it, in words; null for nothing. */
async function hangingOn(
	store: Store,
	{ record, id }: { record: string; id: string }
): Promise<string | null> {
	const { kindId, placeId } = tables.tree;
	if (record === 'kind' || record === 'place') {
		const [one] = await store.db
			.select({ tag: tables.tree.tag })
			.from(tables.tree)
			.where(eq(record === 'kind' ? kindId : placeId, id))
			.limit(1);
		return one ? `The tree ${one.tag}` : null;
	}
	if (record !== 'tree') return null;
	for (const repository of Object.values(ofTree) as Aggregate<Identified>[])
		if (await repository.anyOf(store.db, id)) return `What was written of it, such as a ${repository.noun},`;
	return null;
}

async function keepAs(
	store: Store,
	repository: Aggregate<Identified>,
	{ id, treeId, what }: { id: string; treeId: string | null; what: string },
	before: RawRecord,
	after: RawRecord | null
): Promise<string> {
	const goes = repository.name === 'tree' && after === null;
	const { entryId } = await doWork(
		store,
		// The journal of a tree goes with it.
		{ treeId: goes ? null : treeId, stage: 'take-in', what },
		(work) => work.replace(repository, { id, treeId }, before, after)
	);
	rememberedBy(store.db)?.damaged.delete(`${repository.name}/${id}`);
	return entryId;
}
