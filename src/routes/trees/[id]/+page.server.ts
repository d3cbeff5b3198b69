import { loading } from '$lib/server/edge/http';
import { getStore } from '$lib/server/store';
import { loadRecords } from '$lib/server/records/tree-records';
import { redirect } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

/** Opens a tree at the stage where its work is: the first one that holds nothing yet, later its recovery. */
export const load: PageServerLoad = ({ params }) =>
	loading(async () => {
		const { db } = await getStore();
		const { tree, examinations, rootMap, plan, plantings, tasks } = await loadRecords(db, params.id);
		const cutsOpen = plan?.cuts.some((cut) => cut.state === 'planned') ?? false;
		const stage =
			tree.state !== 'in-care'
				? 'recovery'
				: examinations.length === 0
					? 'examine'
					: rootMap && cutsOpen && !plan?.cuts.some((cut) => cut.state === 'done')
						? 'roots'
						: plantings.length === 0 && !rootMap
							? 'examine'
							: tasks.some((task) => task.state === 'open')
								? 'aftercare'
								: 'recovery';
		redirect(307, `/trees/${params.id}/${stage}`);
	});
