import { eq, sql } from 'drizzle-orm';
import { newId } from './acting';
import {
	CASE_SCHEMA,
	CASE_VERSION,
	treeCaseSchema,
	upgradeCase,
	type TreeCase,
	type TreeRecordField
} from '../core/tree/case';
import { fieldProblems, type FieldProblem } from '../core/vocabulary/fields';
import { measured } from '../core/text/measured';
import { percent } from '../core/text/percent';
import { groupNames, liftingWindowNames, type Kind, type KindInput } from '../core/vocabulary/kind';
import type { Reader, Store, Writer } from './db/database';
import * as tables from './db/schema';
import { invalid, Refusal } from './errors';
import type { Aggregate, Identified } from './records/aggregate';
import { kinds, ofTree, places, trees } from './records/records';
import type { CasePicture, Picture } from '../core/take-in/picture';
import { hashOf, pictureBytes, pictureFile, placePicture, readPicture } from './pictures';
import { loadRecords } from './records/tree-records';
import { doWork, type Work } from './records/work';

/** A whole tree as a document. @throws Refusal 404 */
export const exportCase = async (db: Reader, treeId: string): Promise<TreeCase> => {
	const { pictures: taken, mates: _mates, ...records } = await loadRecords(db, treeId);
	const along = await goAlong(taken);
	const withFiles: CasePicture[] = [];
	for (const picture of taken) {
		const file = along.has(picture.id) ? await pictureFile(picture.hash, false) : null;
		withFiles.push({ ...picture, jpegBase64: file?.toString('base64') ?? null });
	}
	return { schema: CASE_SCHEMA, version: CASE_VERSION, ...records, pictures: withFiles };
};

/**
 * Pictures whose files go with a case, by identity: the newest first, as many as it may carry; the record of each goes along in any case.
 */
async function goAlong(taken: readonly Picture[]): Promise<Set<string>> {
	const along = new Set<string>();
	let bytes = 0;
	for (const { id, hash } of [...taken].reverse()) {
		const size = bytes < CASE_PICTURE_BYTES ? await pictureBytes(hash) : null;
		if (size === null || bytes + size > CASE_PICTURE_BYTES) continue;
		bytes += size;
		along.add(id);
	}
	return along;
}

/**
 * How many pictures of a tree stay behind when its case is taken along, because they are too much for one file or have none.
 * @returns their count
 */
export const picturesLeft = async (taken: readonly Picture[]): Promise<number> =>
	taken.length - (await goAlong(taken)).size;

/** Files of pictures that a case carries at most, so that it can be sent back in whole. */
const CASE_PICTURE_BYTES = 15 * 1024 * 1024;

/** The records that a case holds under a field, as they are kept here: a picture without its file. */
export function recordsIn(doc: TreeCase, field: TreeRecordField): readonly Identified[] {
	if (field === 'pictures') return doc.pictures.map(({ jpegBase64: _file, ...picture }) => picture);
	const held = doc[field];
	return held === null ? [] : Array.isArray(held) ? held : [held];
}

const idsOf = (list: readonly Identified[]): string[] => list.map(({ id }) => id);

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
 * What becomes of the kind that a case brings where one of that identity stands here and is another: ours stays and the tree goes by it,
 * theirs comes in beside it as a kind of one's own, or nothing is read in until somebody has chosen.
 */
export const kindChoices = ['ours', 'theirs', 'ask'] as const;
export type KindChoice = (typeof kindChoices)[number];

/**
 * Reads a whole tree from a document, in one transaction: all of it or nothing, told in the journal of the yard and taken back by undo.
 * Records keep their identities, so that a later export is the same document. No kind and no place that stands here is changed.
 * @throws Refusal 409 when the tree or its tag stands here already, or a kind is to be chosen · 422 naming the first fields that are wrong
 */
export async function importCase(
	store: Store,
	raw: unknown,
	choice: KindChoice = 'ours'
): Promise<{ tree: TreeCase['tree']; entryId: string; withoutFile: number }> {
	const parsed = treeCaseSchema.safeParse(upgradeCase(raw));
	if (!parsed.success) throw invalid(fieldProblems(parsed.error));
	const doc = parsed.data;
	checkLinks(doc);
	await placeFiles(doc.pictures);
	const treeId = doc.tree.id;
	const { result, entryId } = await doWork(
		store,
		{ treeId: null, stage: 'take-in', what: `Read ${doc.tree.tag} ${doc.tree.name} in from a file` },
		async (work) => {
			await refuseDoubles(work.tx, doc);
			const tree = { ...doc.tree, kindId: await kindFor(work, doc.kind, choice) };
			const fields = Object.entries(ofTree) as [TreeRecordField, Aggregate<Identified>][];
			const records = fields.map(([field, repository]) => ({ repository, list: recordsIn(doc, field) }));
			// Asked together, before anything is written.
			const [placesHere, ...here] = await Promise.all([
				places.standing(work.tx, idsOf(doc.places)),
				...records.map(({ repository, list }) => repository.standing(work.tx, idsOf(list)))
			]);
			const double = records.find((_, i) => (here[i] ?? []).length > 0);
			if (double)
				throw new Refusal(
					409,
					`A ${double.repository.noun} of this case stands here already.`,
					'Nothing was imported.'
				);
			for (const place of doc.places)
				if (!placesHere.includes(place.id)) await work.take(places, null, place);
			await work.take(trees, treeId, tree);
			for (const { repository, list } of records)
				for (const record of list) await work.take(repository, treeId, record);
			for (const entry of doc.journal)
				await work.tx.insert(tables.journal).values({ ...entry, treeId, changes: null });
			return tree;
		}
	);
	const withoutFile = doc.pictures.filter(({ jpegBase64 }) => jpegBase64 === null).length;
	return { tree: result, entryId, withoutFile };
}

/** What a person may change of a kind, in words. */
const kindWords: { [F in keyof KindInput]: readonly [label: string, said: (value: KindInput[F]) => string] } =
	{
		genus: ['Genus', String],
		commonName: ['Common name', String],
		group: ['Group', (group) => groupNames[group]],
		coldestC: ['Coldest night in a pot', (coldest) => measured(coldest, '°C')],
		wetnessTrigger: ['Dried before water', (dried) => percent(dried)],
		liftingWindow: ['When it is lifted', (season) => liftingWindowNames[season]],
		sap: ['Sap', String],
		caution: ['Caution', (text) => text || 'none']
	};

/** What two kinds differ in. */
function differences(ours: Kind, theirs: Kind): FieldProblem[] {
	const told = <F extends keyof KindInput>(field: F): FieldProblem[] => {
		const [label, said] = kindWords[field];
		return ours[field] === theirs[field]
			? []
			: [{ field, message: `${label}: ${said(ours[field])} here, ${said(theirs[field])} in the file` }];
	};
	return (Object.keys(kindWords) as (keyof KindInput)[]).flatMap((field) => told(field));
}

/** The kind that a tree which is read in goes by. @throws Refusal 409 where it is to be chosen */
async function kindFor(work: Work, theirs: Kind, choice: KindChoice): Promise<string> {
	const ours = await kinds.get(work.tx, theirs.id);
	if (!ours) {
		// Only what came with this Bruntle is shipped.
		await work.take(kinds, null, { ...theirs, origin: 'own' });
		return theirs.id;
	}
	const differs = differences(ours, theirs);
	if (differs.length === 0 || choice === 'ours') return ours.id;
	if (choice === 'ask')
		throw new Refusal(
			409,
			`${ours.commonName} is kept here otherwise than in the file.`,
			'Choose which of the two this tree goes by; nothing was imported, and ours stays as it is.',
			differs
		);
	const beside = {
		...theirs,
		id: newId(),
		origin: 'own' as const,
		commonName: `${theirs.commonName.slice(0, 50)}, read in`
	};
	await work.take(kinds, null, beside);
	return beside.id;
}

/** Looks whether what a case points to is in it. @throws Refusal 422 */
export function checkLinks(doc: TreeCase): void {
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
	if (await trees.raw(tx, doc.tree.id))
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
