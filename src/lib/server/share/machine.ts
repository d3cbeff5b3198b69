import { hostname, networkInterfaces } from 'node:os';

/** Addresses of this machine in its networks, those that need no scope, its own loop left out. */
export const addressesOfMachine = (): string[] =>
	Object.values(networkInterfaces()).flatMap((list = []) =>
		list
			.filter(({ internal, address }) => !internal && !address.toLowerCase().startsWith('fe80'))
			.map(({ address }) => address.toLowerCase())
	);

/** Name of this machine as others in its network ask for it [RFC 6762]. */
export const localName = (): string =>
	`${hostname()
		.toLowerCase()
		.replace(/\.local$/, '')}.local`;

/** Names and addresses of this machine, as others in its network call it; IPv6 in brackets. */
export const namesOfMachine = (): string[] => [
	hostname().toLowerCase(),
	localName(),
	...Object.values(networkInterfaces()).flatMap((list = []) =>
		list.map(({ address, family }) => (family === 'IPv6' ? `[${address.toLowerCase()}]` : address))
	)
];
