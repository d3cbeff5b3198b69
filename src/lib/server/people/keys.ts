import { createHash, randomBytes } from 'node:crypto';

/** Bytes of a key that is handed out: 256 bits, far past guessing [OWASP ASVS 4.0.3, 3.2.2 asks for 64]. */
const KEY_BYTES = 32;

/** A key to hand out once. */
export const newKey = (): string => randomBytes(KEY_BYTES).toString('base64url');

/** What of a key is kept: enough to know it again, not enough to use it. */
export const keyHash = (key: string): string => createHash('sha256').update(key).digest('hex');
