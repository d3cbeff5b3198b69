/**
 * Stands for node:async_hooks where requests are answered one after the other: what is current belongs to the only one under way.
 */
export class AsyncLocalStorage<T> {
	private current: T | undefined;

	getStore(): T | undefined {
		return this.current;
	}

	run<R>(value: T, work: () => R): R {
		const before = this.current;
		this.current = value;
		const back = (): void => void (this.current = before);
		let result: R;
		try {
			result = work();
		} catch (cause) {
			back();
			throw cause;
		}
		if (result instanceof Promise) return result.finally(back) as R;
		back();
		return result;
	}
}
