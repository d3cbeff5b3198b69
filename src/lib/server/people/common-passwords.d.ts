declare module 'fxa-common-password-list' {
	/** Whether a password is among those that are used most. */
	export function test(password: string): boolean;
}
