import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, concatBytes, utf8ToBytes } from '@noble/hashes/utils.js';

/** Stands for node:crypto: what the server asks of it, and no more. */

class Hash {
	private parts: Uint8Array[] = [];

	update(data: string | Uint8Array): this {
		this.parts.push(typeof data === 'string' ? utf8ToBytes(data) : data);
		return this;
	}

	digest(_encoding: 'hex'): string {
		return bytesToHex(sha256(concatBytes(...this.parts)));
	}
}

export function createHash(name: string): Hash {
	if (name !== 'sha256') throw new Error(`${name} is not worked out here`);
	return new Hash();
}

export const randomUUID = (): string => crypto.randomUUID();

const notHere = (): never => {
	throw new Error('keys are made on the computer of the yard alone');
};
export const randomBytes = notHere;
export const timingSafeEqual = notHere;
export const X509Certificate = class {};
