import {
	asksProtected,
	triageAdvice,
	triageLook,
	type TriageAdvice,
	type TriageDecision,
	type TriageLook,
	needsNewLook
} from '$core/examine/triage/triage';
import { beforeWorkBegin, triageSubjectOf } from '$core/tree/before-work';
import { rotLeft } from '$core/tree/rot-known';
import type { TreeRecords } from '$core/tree/case';
import type { Values } from '$core/values/values';
import type { Kind } from '$core/vocabulary/kind';
import type { Place } from '$core/vocabulary/place';

/** What is looked at before the work. */
export interface BeforeWorkOf {
	records: TreeRecords;
	kind: Kind;
	place: Place | null;
	values: Values;
	today: string;
}

/** The look before lifting or treating while it is taken, what follows from it, and the decision on it. */
export class BeforeWorkState {
	of = $state.raw() as BeforeWorkOf;
	/** The look as it stands in the form; what belongs to lifting stays there while the work is to treat. */
	typed = $state() as TriageLook;
	#decision = $state<{ taken: TriageDecision; advised: TriageDecision | null } | null>(null);

	constructor(of: BeforeWorkOf) {
		this.of = of;
		this.typed = beforeWorkBegin(of.records, of.today, of.values);
	}

	get lifting(): boolean {
		return this.typed.purpose === 'lift';
	}
	/** Whether the law of species and sites is asked of this work; once answered, the answer counts and stands in sight. */
	get asksProtected(): boolean {
		return this.typed.protectedSpecies !== null || asksProtected(this.typed, this.subject);
	}
	get on(): string {
		return this.typed.decidedOn || this.of.today;
	}
	/** The look as it counts. */
	get look(): TriageLook {
		const { typed, lifting, on } = this;
		return {
			...typed,
			decidedOn: on,
			servicesLocated: lifting ? typed.servicesLocated : null,
			rootsKept: lifting ? typed.rootsKept : null,
			ballDiameterMm: lifting ? typed.ballDiameterMm : null,
			ballDepthMm: lifting ? typed.ballDepthMm : null
		};
	}
	get subject() {
		const { records, kind, place, values } = this.of;
		return triageSubjectOf(records, kind, place, this.on, values);
	}
	/** Rot by all that was seen up to the day of the decision; null where nobody looked. */
	get rot() {
		return rotLeft(this.of.records, this.on, this.of.values);
	}
	get checked() {
		return triageLook.safeParse(this.look);
	}
	/** Null while something in the look cannot be. */
	get advice(): TriageAdvice | null {
		const { checked } = this;
		return checked.success ? triageAdvice(checked.data, this.subject, this.of.values) : null;
	}
	/** A decision on another advice is not theirs any more. */
	get turned(): boolean {
		return this.#decision !== null && this.#decision.advised !== (this.advice?.decision ?? null);
	}
	get decision(): TriageDecision | '' {
		return this.#decision === null || this.turned ? '' : this.#decision.taken;
	}
	/** The decision before, where it is too old to work by. */
	get stale() {
		const last = this.of.records.triages.at(-1);
		return last && needsNewLook(last, this.of.today, this.of.values) ? last : null;
	}

	decide(taken: TriageDecision): void {
		this.#decision = { taken, advised: this.advice?.decision ?? null };
	}
	/** It was kept: the next one is decided anew. */
	kept(): void {
		this.#decision = null;
	}
}
