import type { Cut } from '$core/roots/plan/plan';

type Keep = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

/** What became of a planned cut at the bench. */
export type BenchAnswer = { kind: 'done'; atMm: number | null; note: string } | { kind: 'left'; why: string };

/**
 * The cuts of a stage as they are worked through, one by one. Every answer is kept on this device at once; the record is
 * sent when the stage is through, or sooner.
 */
export class BenchState {
	answers = $state<Record<string, BenchAnswer>>({});
	at = $state(0);
	/** Why it is cut against what stands against it today. */
	because = $state('');
	private keep: Keep | null = null;

	constructor(
		readonly treeId: string,
		/** Planned cuts of the stage in hand. */
		readonly cuts: readonly Cut[]
	) {}

	private get key(): string {
		return `bruntle.bench.${this.treeId}`;
	}

	/** Reads what was answered here before; answers to cuts that are no longer planned are dropped. */
	open(keep: Keep): void {
		this.keep = keep;
		this.because = keep.getItem(`${this.key}.because`) ?? '';
		try {
			const left: unknown = JSON.parse(keep.getItem(this.key) ?? 'null');
			if (typeof left !== 'object' || left === null) return;
			for (const [id, answer] of Object.entries(left as Record<string, unknown>))
				if (this.cuts.some((cut) => cut.id === id) && isAnswer(answer)) this.answers[id] = answer;
			const open = this.cuts.findIndex((cut) => !this.answers[cut.id]);
			this.at = open < 0 ? this.cuts.length : open;
		} catch {
			// What cannot be read is as if it had not been there.
		}
	}

	get current(): Cut | undefined {
		return this.cuts[this.at];
	}
	get answered(): number {
		return this.cuts.filter((cut) => this.answers[cut.id]).length;
	}

	answer(answer: BenchAnswer): void {
		const { current } = this;
		if (!current) return;
		this.answers[current.id] = answer;
		this.store();
		this.at++;
	}

	/** Back to the cut before; its answer stands until it is given anew. */
	back(): void {
		this.at = Math.max(0, this.at - 1);
	}

	say(because: string): void {
		this.because = because;
		this.keep?.setItem(`${this.key}.because`, because);
	}

	clear(): void {
		this.because = '';
		this.keep?.removeItem(`${this.key}.because`);
		this.answers = {};
		this.at = 0;
		this.keep?.removeItem(this.key);
	}

	/** What is sent to the record. */
	get record(): {
		done: { id: string; atMm: number | null; note: string }[];
		left: { id: string; why: string }[];
	} {
		const entries = this.cuts.flatMap((cut) => {
			const answer = this.answers[cut.id];
			return answer ? [{ id: cut.id, answer }] : [];
		});
		return {
			done: entries.flatMap(({ id, answer }) =>
				answer.kind === 'done' ? [{ id, atMm: answer.atMm, note: answer.note }] : []
			),
			left: entries.flatMap(({ id, answer }) => (answer.kind === 'left' ? [{ id, why: answer.why }] : []))
		};
	}

	private store(): void {
		this.keep?.setItem(this.key, JSON.stringify(this.answers));
	}
}

function isAnswer(raw: unknown): raw is BenchAnswer {
	if (typeof raw !== 'object' || raw === null) return false;
	const { kind, atMm, note, why } = raw as Record<string, unknown>;
	return kind === 'left'
		? typeof why === 'string'
		: kind === 'done' &&
				typeof note === 'string' &&
				(atMm === null || (typeof atMm === 'number' && atMm >= 0));
}
