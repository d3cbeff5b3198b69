// ./bruntle backup FILE and ./bruntle restore FILE: says in one sentence what was done, or why it was not.
import path from 'node:path';

const [command, given, replace] = process.argv.slice(2);
const url = process.env.DATABASE_URL ?? '';
const folder = process.env.BRUNTLE_FOLDER ?? '.';

/** @returns {never} */
function stop(/** @type {string} */ sentence) {
	console.error(sentence);
	process.exit(1);
}

if (!given) stop(`./bruntle ${command} wants a file, like ./bruntle ${command} yard-2026.zip.`);
if (!url.startsWith('file:'))
	stop('The database of this yard is on a server of its own; it is backed up and restored there.');
const database = path.resolve(url.slice('file:'.length));
// Named from where the command was typed, not from where Bruntle lies.
const file = path.resolve(process.env.BRUNTLE_FROM ?? '.', given);

const { backupInto, restoreFrom } = await import(
	new URL('../build/threads/yard-backup.js', import.meta.url).href
);
const counted = (/** @type {any} */ proof) =>
	`${proof.rows.tree ?? 0} trees, ${Object.values(proof.rows).reduce((sum, count) => sum + Number(count), 0)} records, ${proof.pictures.length} pictures`;

try {
	if (command === 'backup') {
		const picturesFolder = process.env.BRUNTLE_PICTURES ?? path.join(path.dirname(database), 'pictures');
		const madeAt = new Date(process.env.BRUNTLE_NOW ?? Date.now()).toISOString();
		const proof = await backupInto(file, { database, picturesFolder, madeAt });
		console.log(`${file}: ${counted(proof)}; opened and counted against the yard.`);
		if (proof.missingPictures > 0) console.log(`${proof.missingPictures} pictures had no file.`);
	} else {
		const { proof, aside } = await restoreFrom(
			file,
			{ folder, database },
			{ replace: replace === 'replace', migrations: process.env.BRUNTLE_MIGRATIONS, at: new Date() }
		);
		console.log(`Restored into ${folder}: ${counted(proof)}, equal to what was backed up.`);
		if (aside) console.log(`The yard before stands in ${aside}.`);
	}
	process.exit(0);
} catch (cause) {
	if (process.env.BRUNTLE_DEBUG) console.error(cause);
	const code = /** @type {NodeJS.ErrnoException} */ (cause).code;
	stop(
		code === 'ENOSPC'
			? 'There is no room on the disk. Nothing was changed.'
			: code === 'EACCES' || code === 'EROFS' || code === 'ENOENT'
				? 'It cannot be written there. Is the folder there, and may you write into it? Nothing was changed.'
				: cause instanceof Error
					? cause.message
					: String(cause)
	);
}
