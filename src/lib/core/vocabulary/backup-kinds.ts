import { wordsOf } from './words-of';

/** What a backup was taken as. */
export const backupKindNames = {
	hardwood: 'hardwood cuttings',
	softwood: 'softwood cuttings',
	root: 'root cuttings',
	division: 'divisions, suckers with roots',
	layer: 'layers',
	graft: 'grafts',
	seed: 'seed'
};
export type BackupKind = keyof typeof backupKindNames;
export const backupKinds = wordsOf(backupKindNames);
