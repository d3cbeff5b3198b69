import { isRecentEvent, type RecentEvent } from '$core/vocabulary/season-and-events';
import type { Examination } from '$core/examine/diagnosis/examination';
import type { Finding } from '$core/examine/diagnosis/finding';
import { isSignId, topGrade, type SignId } from '$core/vocabulary/signs';

type Keep = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

/**
 * A look that is being made. It is kept on this device at every touch, so that going over to measure, or a flat battery,
 * loses nothing.
 */
export class LookDraft {
	answers = $state<Partial<Record<SignId, number>>>({});
	events = $state<RecentEvent[]>([]);
	failingFast = $state(false);
	/** The kept look that is corrected by this one; null for a new one. */
	corrects = $state<Pick<Examination, 'id' | 'version' | 'examinedOn' | 'note'> | null>(null);
	/** Signs in the order in which they were set, for taking the last one back. */
	private order: SignId[] = [];
	private keep: Keep | null = null;

	/** @param day of a practice round: a look belongs to its day; null for a real tree */
	constructor(
		readonly treeId: string,
		private readonly day: number | null = null
	) {}

	private get key(): string {
		return `bruntle.look.${this.treeId}${this.day === null ? '' : `.${this.day}`}`;
	}

	/** Reads what was left here before, and keeps from now on. */
	open(keep: Keep): void {
		this.keep = keep;
		try {
			const left: unknown = JSON.parse(keep.getItem(this.key) ?? 'null');
			if (typeof left !== 'object' || left === null) return;
			const { answers, events, failingFast } = left as Record<string, unknown>;
			if (typeof answers === 'object' && answers !== null)
				for (const [sign, grade] of Object.entries(answers))
					if (isSignId(sign) && typeof grade === 'number' && grade >= 0 && grade <= topGrade(sign)) {
						this.answers[sign] = grade;
						this.order.push(sign);
					}
			if (Array.isArray(events)) this.events = events.filter(isRecentEvent);
			this.failingFast = failingFast === true;
		} catch {
			// A draft that cannot be read is no draft.
		}
	}

	set(sign: SignId, grade: number | null): void {
		this.order = this.order.filter((other) => other !== sign);
		if (grade === null) delete this.answers[sign];
		else {
			this.answers[sign] = grade;
			this.order.push(sign);
		}
		this.store();
	}

	/** Takes the sign that was set last back. */
	undo(): void {
		const last = this.order.pop();
		if (last) delete this.answers[last];
		this.store();
	}

	setEvents(events: RecentEvent[]): void {
		this.events = events;
		this.store();
	}

	setFailingFast(failing: boolean): void {
		this.failingFast = failing;
		this.store();
	}

	/** Begins from an earlier look. */
	begin(findings: readonly Finding[]): void {
		this.answers = Object.fromEntries(
			findings.filter((finding) => finding.measuredBy === null).map(({ signId, grade }) => [signId, grade])
		);
		this.order = Object.keys(this.answers) as SignId[];
		this.store();
	}

	/** Takes a kept look up to correct it in its place. */
	correct(look: Examination): void {
		this.answers = Object.fromEntries(look.findings.map(({ signId, grade }) => [signId, grade]));
		this.order = Object.keys(this.answers) as SignId[];
		this.events = [...look.events];
		this.failingFast = look.failingFast;
		const { id, version, examinedOn, note } = look;
		this.corrects = { id, version, examinedOn, note };
	}

	clear(): void {
		this.corrects = null;
		this.answers = {};
		this.events = [];
		this.failingFast = false;
		this.order = [];
		this.keep?.removeItem(this.key);
	}

	get count(): number {
		return Object.keys(this.answers).length;
	}

	/** What was set by hand, and for the other signs what was measured lately. */
	findings(measured: readonly Finding[]): Finding[] {
		const byHand = Object.entries(this.answers).map(([sign, grade]) => ({
			signId: sign as SignId,
			grade,
			measuredBy: null
		}));
		return [...byHand, ...measured.filter((finding) => this.answers[finding.signId] === undefined)];
	}

	/** Signs that were set by hand otherwise than they were measured. */
	overruled(measured: readonly Finding[]): Finding[] {
		return measured.filter((finding) => {
			const answer = this.answers[finding.signId];
			return answer !== undefined && answer !== finding.grade;
		});
	}

	private store(): void {
		if (this.count === 0 && this.events.length === 0 && !this.failingFast) this.keep?.removeItem(this.key);
		else
			this.keep?.setItem(
				this.key,
				JSON.stringify({ answers: this.answers, events: this.events, failingFast: this.failingFast })
			);
	}
}
