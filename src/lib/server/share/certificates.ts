import { createCA, createCert, type Certificate } from 'mkcert';
import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { hostname } from 'node:os';
import path from 'node:path';
import { addressesOfMachine, localName } from './machine';

const AUTHORITY_DAYS = 3650;
/** Phones take no server certificate that holds for longer [CA/Browser Forum Baseline Requirements, 6.3.2: 398 days]. */
const SERVER_DAYS = 397;
/** Made anew when it is over within so many days. */
const RENEWED_DAYS = 30;
const DAY_MS = 86_400_000;

/** Only the user of this machine reads what stands in these. */
const ALONE = { mode: 0o600 };

function kept(folder: string, name: string): Certificate | null {
	const files = [`${name}.key`, `${name}.crt`].map((file) => path.join(folder, file));
	const [key, cert] = files.map((file) => (existsSync(file) ? readFileSync(file, 'utf8') : null));
	return key && cert ? { key, cert } : null;
}

function keep(folder: string, name: string, made: Certificate): Certificate {
	writeFileSync(path.join(folder, `${name}.key`), made.key, ALONE);
	writeFileSync(path.join(folder, `${name}.crt`), made.cert, ALONE);
	return made;
}

/** Whether a certificate is of this authority, for all of these names, and for some time yet. */
function holds(
	{ cert }: Certificate,
	authority: X509Certificate,
	names: readonly string[],
	at: Date
): boolean {
	const own = new X509Certificate(cert);
	return (
		own.verify(authority.publicKey) &&
		Date.parse(own.validTo) > at.getTime() + RENEWED_DAYS * DAY_MS &&
		names.every((name) => (isIP(name) ? own.checkIP(name) : own.checkHost(name)) !== undefined)
	);
}

/** Names and addresses that the yard answers to. */
export const sharedNames = (): string[] => [
	...new Set([
		'localhost',
		'127.0.0.1',
		'::1',
		hostname().toLowerCase(),
		localName(),
		...addressesOfMachine()
	])
];

/**
 * The certificate by which the yard is known in its network, of an authority of its own that is made once.
 * @param folder where both are kept, made when it is missing
 * @param names names and addresses of this machine
 */
export async function certificatesIn(
	folder: string,
	names: readonly string[] = sharedNames(),
	at: Date = new Date()
): Promise<{ key: string; cert: string; fingerprint: string; authorityFile: string }> {
	mkdirSync(folder, { recursive: true, mode: 0o700 });
	const authority =
		kept(folder, 'authority') ??
		keep(
			folder,
			'authority',
			await createCA({
				organization: `Bruntle yard on ${hostname()}`.slice(0, 60),
				countryCode: 'XX',
				state: '-',
				locality: '-',
				validity: AUTHORITY_DAYS
			})
		);
	const known = new X509Certificate(authority.cert);
	const before = kept(folder, 'server');
	const server =
		before && holds(before, known, names, at)
			? before
			: keep(
					folder,
					'server',
					await createCert({ ca: authority, domains: [...names], validity: SERVER_DAYS })
				);
	return {
		key: server.key,
		cert: server.cert,
		fingerprint: known.fingerprint256,
		authorityFile: path.join(folder, 'authority.crt')
	};
}

/**
 * Addresses under which the yard is reached in its network, numbers first, since not every phone asks for names.
 * @param port as it listens
 */
export const sharedAddresses = (port: number): string[] => [
	...addressesOfMachine()
		.filter((address) => !address.includes(':'))
		.map((address) => `https://${address}:${port}`),
	`https://${localName()}:${port}`
];
