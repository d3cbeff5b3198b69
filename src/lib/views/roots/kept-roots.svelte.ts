import { rootMapInput, type RootMap, type RootMapInput } from '$core/roots/map/root-map';
import { planInput, type Plan, type PlanInput } from '$core/roots/plan/plan';

/** Map and plan as they stand after a step. */
export interface Snapshot {
	map: RootMapInput;
	plan: PlanInput;
}

/** A map and its plan as the server keeps them, without what says which they are. */
function asKept(rootMap: RootMap, rootPlan: Plan): { theirs: Snapshot; versions: Versions } {
	const { id: _mapId, version: mapVersion, ...map } = rootMap;
	const { id: _planId, version: planVersion, ...plan } = rootPlan;
	return { theirs: { map, plan }, versions: { map: mapVersion, plan: planVersion } };
}

/** Which state of the record was read; null where there is none yet. */
export interface Versions {
	map: number | null;
	plan: number | null;
}

export type SaveState = 'saved' | 'saving' | 'waiting' | 'refused';

const SAVE_AFTER_MS = 350;
const RETRY_AFTER_MS = 4000;
const HISTORY = 200;

/** Steps that were kept, by tree: who goes to another page of a tree and comes back can still undo them. */
const stepsBefore = new Map<string, { versions: Versions; past: Snapshot[] }>();

/** Under which name a browser keeps the steps of a drawing that are not kept yet. */
export const draftKeyOf = (treeId: string): string => `bruntle-roots-${treeId}`;

/**
 * Steps on a map and its plan: each can be undone, is kept on the server a moment later, and is held in this browser until the server
 * has taken it.
 */
export class KeptRoots {
	now = $state.raw<Snapshot>() as Snapshot;
	past = $state.raw<Snapshot[]>([]);
	future = $state.raw<Snapshot[]>([]);
	saveState = $state<SaveState>('saved');
	problem = $state('');
	/** What was kept elsewhere since this was begun; nothing is sent over it until somebody has chosen. */
	clash = $state.raw<{ theirs: Snapshot; versions: Versions } | null>(null);
	readonly #treeId: string;
	/** Known to forms that send the plan’s version, so they follow it. */
	#versions = $state.raw<Versions>({ map: null, plan: null });
	#timer: ReturnType<typeof setTimeout> | undefined;
	#saving = false;
	#dirty = false;

	constructor(treeId: string, begin: Snapshot, versions: Versions) {
		this.#treeId = treeId;
		this.#versions = versions;
		this.now = begin;
		const left = stepsBefore.get(treeId);
		// Only while nothing else was kept since.
		if (left && left.versions.map === versions.map && left.versions.plan === versions.plan)
			this.past = left.past;
		this.#restoreDraft();
	}

	get map(): RootMapInput {
		return this.now.map;
	}
	get plan(): PlanInput {
		return this.now.plan;
	}

	commit(next: Partial<Snapshot>): void {
		this.past = [...this.past.slice(-HISTORY), this.now];
		this.future = [];
		this.now = { ...this.now, ...next };
		this.#changed();
	}

	undo(): void {
		const before = this.past.at(-1);
		if (!before) return;
		this.future = [...this.future, this.now];
		this.past = this.past.slice(0, -1);
		this.now = before;
		this.#changed();
	}

	redo(): void {
		const after = this.future.at(-1);
		if (!after) return;
		this.past = [...this.past, this.now];
		this.future = this.future.slice(0, -1);
		this.now = after;
		this.#changed();
	}

	/** Takes what another action wrote to the plan, such as the cuts that were made. */
	adopt(rootMap: RootMap | null, plan: Plan | null): void {
		if (this.#dirty || this.#saving || this.clash || !rootMap || !plan) return;
		const [map0, plan0] = [this.#versions.map ?? 0, this.#versions.plan ?? 0];
		// A page that was read before the last step was kept knows less than this one.
		if (rootMap.version < map0 || plan.version < plan0) return;
		if (rootMap.version === map0 && plan.version === plan0) return;
		const kept = asKept(rootMap, plan);
		this.#versions = kept.versions;
		this.now = kept.theirs;
	}

	/** What was drawn here is to stand, over what was kept elsewhere. */
	keepMine(): void {
		if (!this.clash) return;
		this.#versions = this.clash.versions;
		this.clash = null;
		this.problem = '';
		this.#changed();
	}

	/** What was kept elsewhere is to stand; undo brings back what was drawn here. */
	takeTheirs(): void {
		if (!this.clash) return;
		this.past = [...this.past.slice(-HISTORY), this.now];
		this.future = [];
		this.now = this.clash.theirs;
		this.#versions = this.clash.versions;
		this.clash = null;
		this.#dirty = false;
		clearTimeout(this.#timer);
		this.saveState = 'saved';
		this.problem = '';
		localStorage.removeItem(this.#draftKey());
	}

	/** Nothing waits to be kept. */
	get isKept(): boolean {
		return !this.#dirty && !this.#saving;
	}

	/** Sends at once what waits, and waits for the answer; gives up when there is none. */
	async flush(): Promise<void> {
		clearTimeout(this.#timer);
		for (let tries = 0; tries < 40 && this.#saving; tries++)
			await new Promise((resolve) => setTimeout(resolve, 50));
		await this.save();
	}

	get planVersion(): number | null {
		return this.#versions.plan;
	}

	#draftKey(): string {
		return draftKeyOf(this.#treeId);
	}

	/** A step that this browser made and the server never took comes back; where others kept something since, it is to be chosen. */
	#restoreDraft(): void {
		if (typeof localStorage === 'undefined') return;
		try {
			const draft = JSON.parse(localStorage.getItem(this.#draftKey()) ?? 'null') as
				(Snapshot & { versions: Versions }) | null;
			if (!draft) return;
			const read = this.now;
			// A step that was refused comes back as it was, to be mended; what is whole is brought up to date.
			const drawn = {
				map: rootMapInput.safeParse(draft.map).data ?? { ...read.map, ...draft.map },
				plan: planInput.safeParse(draft.plan).data ?? { ...read.plan, ...draft.plan }
			};
			// It was taken after all, and only the answer was lost.
			if (JSON.stringify(drawn) === JSON.stringify(read)) return localStorage.removeItem(this.#draftKey());
			this.past = [read];
			this.now = drawn;
			if (draft.versions.map === this.#versions.map && draft.versions.plan === this.#versions.plan) {
				this.problem = 'Your last steps had not been kept yet; they are back.';
				this.#changed();
			} else {
				this.clash = { theirs: read, versions: this.#versions };
				this.saveState = 'refused';
			}
		} catch {
			localStorage.removeItem(this.#draftKey());
		}
	}

	#changed(): void {
		this.#dirty = true;
		this.saveState = 'saving';
		try {
			localStorage.setItem(this.#draftKey(), JSON.stringify({ ...this.now, versions: this.#versions }));
		} catch {
			// A full or forbidden store only means that there is no draft.
		}
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => void this.save(), SAVE_AFTER_MS);
	}

	/** Sends what is not kept yet; waits and tries again when there is no answer. */
	async save(): Promise<void> {
		if (this.#saving || !this.#dirty) return;
		this.#saving = true;
		const sent = this.now;
		this.#dirty = false;
		try {
			const response = await fetch(`/trees/${this.#treeId}/roots`, {
				method: 'PUT',
				headers: { 'content-type': 'application/json', accept: 'application/json' },
				body: JSON.stringify({
					map: sent.map,
					mapVersion: this.#versions.map,
					plan: sent.plan,
					planVersion: this.#versions.plan
				})
			});
			const answer = (await response.json()) as {
				mapVersion: number;
				planVersion: number;
				title?: string;
				detail?: string;
				meanwhile?: { map: RootMap | null; plan: Plan | null };
			};
			if (response.ok) {
				this.#versions = { map: answer.mapVersion, plan: answer.planVersion };
				stepsBefore.set(this.#treeId, { versions: this.#versions, past: this.past });
				this.problem = '';
				if (this.#dirty) this.#changed();
				else {
					this.saveState = 'saved';
					localStorage.removeItem(this.#draftKey());
				}
			} else if (response.status >= 500) {
				throw new Error(answer.title);
			} else {
				if (response.status === 409 && answer.meanwhile?.map && answer.meanwhile.plan)
					this.clash = asKept(answer.meanwhile.map, answer.meanwhile.plan);
				this.saveState = 'refused';
				this.problem = `${answer.title ?? 'It was refused.'} ${answer.detail ?? ''}`;
			}
		} catch {
			this.#dirty = true;
			this.saveState = 'waiting';
			this.#timer = setTimeout(() => void this.save(), RETRY_AFTER_MS);
		} finally {
			this.#saving = false;
		}
		if (this.#dirty && this.saveState === 'saving') void this.save();
	}
}
