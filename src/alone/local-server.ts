import type { Along } from '$core/vocabulary/along';
import type { Who } from '$core/vocabulary/people';

/** The last piece of work that was told. */
export interface WorkTold {
	entryId: string;
	what: string;
	treeId: string | null;
	tag: string | null;
	name: string | null;
}

/** The server of the yard where it runs in the browser. */
export interface LocalServer {
	/** Opens a copy of the yard in place of the one before. */
	open(bytes: Uint8Array, along: Pick<Along, 'clockAt'>): Promise<void>;
	respond(request: Request, who: Who): Promise<Response>;
	/** The yard as it stands, as a database. */
	export(): Uint8Array;
	lastTold(): WorkTold | null;
	/** Names of the pictures it tells of, newest first. */
	pictures(most: number): string[];
}
