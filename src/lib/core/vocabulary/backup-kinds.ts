/** What a backup was taken as. */
export const backupKinds = ['hardwood', 'softwood', 'root', 'division', 'layer', 'graft', 'seed'] as const;
export type BackupKind = (typeof backupKinds)[number];
export const backupKindNames: Record<BackupKind, string> = {
	hardwood: 'hardwood cuttings',
	softwood: 'softwood cuttings',
	root: 'root cuttings',
	division: 'divisions, suckers with roots',
	layer: 'layers',
	graft: 'grafts',
	seed: 'seed'
};
