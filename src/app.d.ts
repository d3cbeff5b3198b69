import type { Format } from '$core/text/format';
import type { PracticeNow } from '$core/practice/moves';
import type { Who } from '$core/vocabulary/people';

declare global {
	namespace App {
		interface Error {
			message: string;
			/** What the person can do about it, one sentence. */
			advice?: string;
		}
		interface Locals {
			nonce: string;
			/** Who looks; null for nobody known. */
			who: Who | null;
			/** Whether the request comes from the computer that Bruntle runs on. */
			here: boolean;
		}
		interface Platform {
			/** Set where the server runs in a browser that is alone with a copy of the yard: who took it along. */
			alone?: { who: Who };
		}
		interface PageState {
			/** Have stages proposed on arrival. */
			propose?: boolean;
		}
		interface PageData {
			format?: Format;
			practice?: PracticeNow | null;
		}
	}
}

export {};
