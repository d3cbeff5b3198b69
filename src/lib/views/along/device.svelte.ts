import type { AlongAnswer, AlongAsk, AlongState } from '$core/vocabulary/along';

/** What keeps a device from taking the yard along; null where nothing does. */
export type Hindrance = 'insecure' | 'browser' | 'certificate';

/** How the device stands that shows the page: whether it has the yard with it, whether it is alone, what waits. */
class Device {
	/** Null until it is known. */
	state = $state.raw<AlongState | null>(null);
	hindrance = $state.raw<Hindrance | null>(null);
	/** What is under way. */
	busy = $state.raw<AlongAsk['ask'] | null>(null);
	fault = $state.raw<{ message: string; advice: string } | null>(null);
	#back: () => void = () => undefined;
	/** Whether the device was asked what it has. */
	known = $state.raw(false);

	/**
	 * Listens to the device for as long as the pages are open.
	 * @param back called when the computer of the yard answers again, or when nobody is signed in any more
	 */
	listen(back: () => void): () => void {
		this.#back = back;
		const workers = (navigator as { serviceWorker?: ServiceWorkerContainer }).serviceWorker;
		if (!workers) {
			this.hindrance = isSecureContext ? 'browser' : 'insecure';
			this.known = true;
			return () => undefined;
		}
		const told = ({ data }: MessageEvent<AlongAnswer>): void => this.#take(data);
		const online = (): void => {
			if (this.state?.along) void this.ask({ ask: 'send' });
		};
		const seen = (): void => {
			if (document.visibilityState === 'visible' && this.state?.aloneSince) online();
		};
		workers.addEventListener('message', told);
		addEventListener('online', online);
		document.addEventListener('visibilitychange', seen);
		let looks = 0;
		const looking = setInterval(() => {
			if (!isLookedFor(++looks)) return;
			if (this.state?.aloneSince || this.waiting > 0) online();
		}, LOOK_EVERY_MS);
		void this.#begin(workers);
		return () => {
			workers.removeEventListener('message', told);
			removeEventListener('online', online);
			document.removeEventListener('visibilitychange', seen);
			clearInterval(looking);
		};
	}

	async #begin(workers: ServiceWorkerContainer): Promise<void> {
		const registered = await workers.getRegistration().catch(() => undefined);
		if (registered?.active) {
			await this.ask({ ask: 'state' });
			this.known = true;
			// Signed in anew, what waits is sent and the yard comes along again.
			if (this.state?.along) await this.ask({ ask: this.state.locked ? 'take' : 'send' });
			if (this.state?.along && !this.state.locked && this.waiting > 0) await this.ask({ ask: 'send' });
		}
		this.known = true;
	}

	#take(answer: AlongAnswer): void {
		if ('fault' in answer) {
			this.fault = answer.fault;
			return;
		}
		const was = this.state;
		this.state = answer.state;
		const isBack = was?.aloneSince != null && answer.state.aloneSince === null;
		// Signed out meanwhile, the page is no longer theirs to read.
		if (isBack || (answer.state.locked && !was?.locked)) this.#back();
	}

	/** Pieces of work that wait to be sent. */
	get waiting(): number {
		return this.state?.acts.filter(({ refused }) => refused === null).length ?? 0;
	}

	/** Pieces of work that the yard did not take. */
	get refused(): number {
		return this.state?.acts.filter(({ refused }) => refused !== null).length ?? 0;
	}

	/** Whether every page says how the device stands. */
	get isTold(): boolean {
		return this.state?.along != null && (this.state.aloneSince !== null || this.state.acts.length > 0);
	}

	/** Asks the device to do something, and waits until it is done. */
	async ask(message: AlongAsk): Promise<void> {
		const { active } = await navigator.serviceWorker.ready;
		this.busy = message.ask;
		if (message.ask !== 'state') this.fault = null;
		try {
			const answer = await new Promise<AlongAnswer>((answered) => {
				const { port1, port2 } = new MessageChannel();
				port1.onmessage = ({ data }: MessageEvent<AlongAnswer>) => answered(data);
				active?.postMessage(message, [port2]);
			});
			this.#take(answer);
		} finally {
			this.busy = null;
		}
	}

	/** Takes the yard along on this device. */
	async takeAlong(): Promise<void> {
		this.busy = 'take';
		this.fault = null;
		try {
			await navigator.serviceWorker.register('/service-worker.js', { updateViaCache: 'none' });
		} catch (cause) {
			console.error(cause);
			this.hindrance = 'certificate';
			this.busy = null;
			return;
		}
		// What a browser may throw away when it wants room is asked for to stay.
		await (navigator as { storage?: StorageManager }).storage?.persist?.().catch(() => false);
		await this.ask({ ask: 'take' });
	}

	/** Lets go of the yard on this device. */
	async leave(): Promise<void> {
		await this.ask({ ask: 'leave' });
		const registered = await navigator.serviceWorker.getRegistration();
		await registered?.unregister();
	}
}

/** A page just opened looks often, as one coming in from the field opens it to see that its work is sent; later it spares the battery. */
const LOOK_EVERY_MS = 2000;
const QUICK_LOOKS = 30;
const SLOWER = 4;
/** Whether the yard is looked for at this turn, counted from 1 when the page was opened. */
export const isLookedFor = (turn: number): boolean => turn <= QUICK_LOOKS || turn % SLOWER === 0;

/** The one device that shows the page. */
export const device = new Device();
