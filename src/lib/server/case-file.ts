import { eq, sql } from 'drizzle-orm';
import {
	CASE_SCHEMA,
	CASE_VERSION,
	treeCaseSchema,
	upgradeCase,
	type TreeCase,
	type TreeRecordField
} from '../core/tree/case';
import { fieldProblems } from '../core/vocabulary/fields';
import type { Reader, Store, Writer } from './db/database';
import * as tables from './db/schema';
import { invalid, Refusal } from './errors';
import type { Aggregate, Identified } from './records/aggregate';
import { kinds, ofTree, places, trees } from './records/records';
import type { CasePicture } from '../core/take-in/picture';
import { hashOf, pictureFile, placePicture, readPicture } from './pictures';
import { loadRecords } from './records/tree-records';

/** A whole tree as a document. @throws Refusal 404 */
export const exportCase = async (db: Reader, treeId: string): Promise<TreeCase> => {
	const { pictures: taken, mates: _mates, ...records } = await loadRecords(db, treeId);
	const withFiles: CasePicture[] = [];
	let bytes = 0;
	// Newest first, as many files as a case may carry; the record of each goes along in any case.
	for (const picture of [...taken].reverse()) {
		const file = bytes < CASE_PICTURE_BYTES ? await pictureFile(picture.hash, false) : null;
		const fits = file !== null && bytes + file.length <= CASE_PICTURE_BYTES;
		if (fits) bytes += file.length;
		withFiles.unshift({ ...picture, jpegBase64: fits ? file.toString('base64') : null });
	}
	return { schema: CASE_SCHEMA, version: CASE_VERSION, ...records, pictures: withFiles };
};

/** Files of pictures that a case carries at most, so that it can be sent back in whole. */
const CASE_PICTURE_BYTES = 6 * 1024 * 1024;

/** The records that a case holds under a field, as they are kept here: a picture without its file. */
function recordsIn(doc: TreeCase, field: TreeRecordField): readonly Identified[] {
	if (field === 'pictures') return doc.pictures.map(({ jpegBase64: _file, ...picture }) => picture);
	const held = doc[field];
	return held === null ? [] : Array.isArray(held) ? held : [held];
}

/** The files of a case that is read in, checked like any that is sent. @throws Refusal 422 */
async function placeFiles(list: readonly CasePicture[]): Promise<void> {
	for (const [i, { jpegBase64, hash }] of list.entries()) {
		if (jpegBase64 === null) continue;
		const jpeg = Buffer.from(jpegBase64, 'base64');
		if (hashOf(jpeg) !== hash)
			throw invalid([{ field: `pictures.${i}.hash`, message: 'must be that of its picture' }]);
		const { small } = await readPicture(jpeg);
		await placePicture(jpeg, small);
	}
}

/**
 * Reads a whole tree from a document, in one transaction: all of it or nothing. Records keep their identities, so that
 * a later export is the same document. Kinds and places that stand here already are kept as they are here.
 * @throws Refusal 409 when the tree or its tag stands here already · 422 naming the first fields that are wrong
 */
export async function importCase(store: Store, raw: unknown): Promise<TreeCase['tree']> {
	const parsed = treeCaseSchema.safeParse(upgradeCase(raw));
	if (!parsed.success) throw invalid(fieldProblems(parsed.error));
	const doc = parsed.data;
	checkLinks(doc);
	await placeFiles(doc.pictures);
	await store.write(async (tx) => {
		await refuseDoubles(tx, doc);
		const hereKind = await kinds.get(tx, doc.kind.id);
		if (!hereKind || hereKind.origin === 'shipped') await kinds.put(tx, null, doc.kind);
		for (const place of doc.places) if (!(await places.get(tx, place.id))) await places.put(tx, null, place);
		const treeId = doc.tree.id;
		await trees.put(tx, treeId, doc.tree);
		for (const [field, repository] of Object.entries(ofTree) as [TreeRecordField, Aggregate<Identified>][])
			for (const record of recordsIn(doc, field)) {
				if (await repository.get(tx, record.id))
					throw new Refusal(
						409,
						`A ${repository.noun} of this case stands here already.`,
						'Nothing was imported.'
					);
				await repository.put(tx, treeId, record);
			}
		for (const entry of doc.journal)
			await tx.insert(tables.journal).values({ ...entry, treeId, changes: null });
	});
	return doc.tree;
}

function checkLinks(doc: TreeCase): void {
	const problems = [];
	const placeIds = new Set(doc.places.map((place) => place.id));
	if (doc.tree.kindId !== doc.kind.id)
		problems.push({ field: 'kind.id', message: `must be "${doc.tree.kindId}", the kind of the tree` });
	if (!placeIds.has(doc.tree.placeId))
		problems.push({ field: 'places', message: 'must hold the place of the tree' });
	if (
		[...doc.plantings, ...doc.groundPlans].some(
			(work) => work.placeId !== null && !placeIds.has(work.placeId)
		)
	)
		problems.push({ field: 'places', message: 'must hold the place of each planting and ground work' });
	const roots = new Set(doc.rootMap?.segments.map((segment) => segment.id));
	if (doc.plan?.cuts.some((cut) => !roots.has(cut.segmentId)))
		problems.push({ field: 'plan.cuts', message: 'must cut roots of the map only' });
	const lists = [
		...(Object.keys(ofTree) as TreeRecordField[]).map((field) => [field, recordsIn(doc, field)] as const),
		['journal', doc.journal] as const
	];
	for (const [field, list] of lists)
		if (new Set(list.map((record) => record.id)).size !== list.length)
			problems.push({ field, message: 'must use each identity once' });
	if (problems.length > 0) throw invalid(problems);
}

async function refuseDoubles(tx: Writer, doc: TreeCase): Promise<void> {
	if (await trees.get(tx, doc.tree.id))
		throw new Refusal(409, `${doc.tree.name} stands in this yard already.`, 'Nothing was imported.');
	const [sameTag] = await tx
		.select({ name: tables.tree.name })
		.from(tables.tree)
		.where(eq(sql`lower(${tables.tree.tag})`, doc.tree.tag.toLowerCase()));
	if (sameTag)
		throw new Refusal(
			409,
			`The tag ${doc.tree.tag} is already on ${sameTag.name}.`,
			'Change the tag in the file, or here, and import again. Nothing was imported.'
		);
}
