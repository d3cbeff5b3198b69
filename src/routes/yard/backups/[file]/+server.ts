import { answer } from '$lib/server/edge/http';
import { notFound, Refusal } from '$lib/server/errors';
import { getStore } from '$lib/server/store';
import { packBackup } from '$lib/server/yard-backup/file';
import { backupsOf } from '$lib/server/yard-backup/yard';
import { Readable } from 'node:stream';
import type { RequestHandler } from './$types';

/** A backup as one file, to keep elsewhere. It holds everything, the keys of people as hashes too: for owners. */
export const GET: RequestHandler = ({ params, locals }) =>
	answer(async () => {
		if (locals.who?.role !== 'owner')
			throw new Refusal(403, 'Only an owner of this yard does that.', 'Ask one of them.');
		const { backups, folder } = await backupsOf(await getStore());
		const backup = backups.find(({ madeAt }) => `${madeAt}.zip` === params.file);
		if (!backup || folder === null) throw notFound('backup');
		return new Response(Readable.toWeb(packBackup(folder, backup)) as ReadableStream, {
			headers: {
				'content-type': 'application/zip',
				'cache-control': 'no-store',
				'content-disposition': `attachment; filename="bruntle-yard-${backup.madeAt.slice(0, 10)}.zip"`
			}
		});
	});
