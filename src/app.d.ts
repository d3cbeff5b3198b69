import type { Format } from '$core/text/format';

declare global {
	namespace App {
		interface Error {
			message: string;
			/** What the person can do about it, one sentence. */
			advice?: string;
		}
		interface Locals {
			nonce: string;
		}
		interface PageState {
			/** Have stages proposed on arrival. */
			propose?: boolean;
		}
		interface PageData {
			format?: Format;
		}
	}
}

export {};
