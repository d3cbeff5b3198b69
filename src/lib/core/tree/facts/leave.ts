import type { Permission } from '../../vocabulary/words';
import { ref, say, type Fact } from '../fact';
import { latestWord, type Sayings } from './said';

/** Whether it may be worked on. */
export interface LeaveFacts {
	permission: Fact<Permission>;
	protectedSpecies: Fact<boolean>;
	servicesLocated: Fact<boolean>;
}

/** Whose leave there is to work at a tree, and what stands against it. */
export function leaveFacts({ records, fact, told }: Sayings): LeaveFacts {
	const { tree } = records;
	return {
		permission: fact<Permission>(
			[
				...say(tree.permission, tree.takenInOn, 'seen', ref('tree', tree), 'taking in'),
				...told((one) => one.permission)
			],
			latestWord
		),
		protectedSpecies: fact(told((one) => one.protectedSpecies)),
		servicesLocated: fact(told((one) => one.servicesLocated))
	};
}
