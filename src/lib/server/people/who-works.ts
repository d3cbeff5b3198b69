import { AsyncLocalStorage } from 'node:async_hooks';
import type { Who } from '../../core/vocabulary/people';

const working = new AsyncLocalStorage<Who | null>();

/** Runs what one request asks for in the name of who sent it. */
export const workingAs = <T>(who: Who | null, work: () => T): T => working.run(who, work);

/** Who works; null where nobody asked, or nobody known. */
export const whoWorks = (): Who | null => working.getStore() ?? null;
