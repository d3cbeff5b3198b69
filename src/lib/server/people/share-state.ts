import { readFileSync } from 'node:fs';
import QRCode from 'qrcode';
import { z } from 'zod';

const shared = z.strictObject({
	/** Addresses of this machine under which the yard answers, the likeliest first. */
	addresses: z.array(z.string()).min(1),
	/** SHA-256 of the local authority, as browsers show it. */
	fingerprint: z.string(),
	certificateFile: z.string()
});
export type Shared = z.infer<typeof shared>;

/** How the yard is shared with its network, as who serves it says; null while it is not. */
export function shareState(said: string | undefined = process.env.BRUNTLE_SHARED): Shared | null {
	return said ? shared.parse(JSON.parse(said)) : null;
}

/** The certificate of the local authority, for phones to take; null while the yard is not shared. */
export function authorityCertificate(): Buffer | null {
	const state = shareState();
	return state && readFileSync(state.certificateFile);
}

/** A QR code of an address, as the source of an image. */
export const qrOf = async (address: string): Promise<string> =>
	`data:image/svg+xml;base64,${Buffer.from(await QRCode.toString(address, { type: 'svg', margin: 2 })).toString('base64')}`;
