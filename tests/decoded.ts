import type { Decoder } from '$core/compute/calculation';
import { pixelsOf } from '$lib/server/pictures';

/** Decodes pictures of a calculation as the server does. */
export const decoded: Decoder = (base64, field) => pixelsOf(Buffer.from(base64, 'base64'), field);
