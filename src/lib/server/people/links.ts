import { and, eq, gte, lt } from 'drizzle-orm';
import { newId } from '../acting';
import type { z } from 'zod';
import type { LinkTold, linkInput, SharedPage } from '../../core/vocabulary/people';
import { addDays } from '../../core/maths/calendar';
import { today } from '../clock';
import type { Reader, Store } from '../db/database';
import { sharedLink, tree } from '../db/schema';
import { invalid, notFound, Refusal } from '../errors';
import { requireTree } from '../trees';
import { keyHash, newKey } from './keys';

/** A link to one page of a tree holds for so long at the most, days. */
const LONGEST_DAYS = 366;

/**
 * Makes a link by which somebody without a key reads one page of one tree, up to and with a day.
 * @returns its key, told once
 * @throws Refusal 404 · 422
 */
export async function shareLink(
	store: Store,
	{ treeId, page, untilOn }: z.infer<typeof linkInput>
): Promise<string> {
	if (untilOn < today() || untilOn > addDays(today(), LONGEST_DAYS))
		throw invalid([
			{ field: 'untilOn', message: `must lie between ${today()} and ${addDays(today(), LONGEST_DAYS)}` }
		]);
	const key = newKey();
	await store.write(
		async (tx) => {
			await requireTree({ tx }, treeId);
			await tx.delete(sharedLink).where(lt(sharedLink.untilOn, today()));
			await tx.insert(sharedLink).values({ id: newId(), keyHash: keyHash(key), treeId, page, untilOn });
		},
		() => []
	);
	return key;
}

/** What a link shows. @throws Refusal 404 unknown, taken back or over */
export async function linked(db: Reader, key: string): Promise<{ treeId: string; page: SharedPage }> {
	const [found] = await db
		.select({ treeId: sharedLink.treeId, page: sharedLink.page })
		.from(sharedLink)
		.where(and(eq(sharedLink.keyHash, keyHash(key)), gte(sharedLink.untilOn, today())));
	if (!found) throw new Refusal(404, 'This link shows nothing any more.', 'Ask who sent it for another.');
	return found;
}

/** Links that show something still. */
export const openLinks = (db: Reader): Promise<LinkTold[]> =>
	db
		.select({
			id: sharedLink.id,
			treeId: sharedLink.treeId,
			tag: tree.tag,
			page: sharedLink.page,
			untilOn: sharedLink.untilOn
		})
		.from(sharedLink)
		.innerJoin(tree, eq(tree.id, sharedLink.treeId))
		.where(gte(sharedLink.untilOn, today()))
		.orderBy(sharedLink.untilOn);

/** Takes a link back. @throws Refusal 404 */
export async function takeLinkBack(store: Store, id: string): Promise<void> {
	await store.write(
		async (tx) => {
			const gone = await tx.delete(sharedLink).where(eq(sharedLink.id, id)).returning({ id: sharedLink.id });
			if (gone.length === 0) throw notFound('link');
		},
		() => []
	);
}
