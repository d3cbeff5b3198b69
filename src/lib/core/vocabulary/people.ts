import { z } from 'zod';
import { calendarDate, id, oneOf, shortText } from './fields';
import { wordsOf } from './words-of';

export const roleNames = {
	owner: 'owner',
	helper: 'helper'
};
export type Role = keyof typeof roleNames;
export const roles = wordsOf(roleNames);
/** What each may do, in a sentence. */
export const roleSentences: Record<Role, string> = {
	owner: 'Does everything: also people, devices, working values and settings.',
	helper:
		'Works on the trees. Cannot delete a tree, and changes no people, devices, working values or settings.'
};

/** Fewest and most characters of a passphrase [OWASP ASVS 4.0.3, 2.1.1 and 2.1.2]. */
export const PASSPHRASE_LEAST = 12;
const PASSPHRASE_MOST = 128;
const lengths = `must be ${PASSPHRASE_LEAST} to ${PASSPHRASE_MOST} characters long; several words are easiest to remember`;

/** A new passphrase, taken as it is typed. */
export const passphraseInput = z
	.string({ error: lengths })
	.min(PASSPHRASE_LEAST, { error: lengths })
	.max(PASSPHRASE_MOST, { error: lengths });

/** Somebody who takes an invitation up. */
export const newPersonInput = z.strictObject({ name: shortText(60), passphrase: passphraseInput });
export type NewPerson = z.infer<typeof newPersonInput>;

export const signInInput = z.strictObject({
	name: shortText(60),
	passphrase: z
		.string({ error: 'must be typed' })
		.min(1, { error: 'must be typed' })
		.max(PASSPHRASE_MOST, { error: lengths })
});

/** What of a tree a reader may be shown by a link. */
export const sharedPageNames = { letter: 'letter to the owner', report: 'report' };
export type SharedPage = keyof typeof sharedPageNames;
export const sharedPages = wordsOf(sharedPageNames);
export const linkInput = z.strictObject({
	treeId: id(),
	page: oneOf(sharedPages),
	untilOn: calendarDate()
});

/** Somebody of the yard, without what is secret. */
export interface PersonTold {
	id: string;
	name: string;
	role: Role;
	madeAt: string;
	/** Came with an archive and has no passphrase here yet. */
	waits: boolean;
	/** Devices signed in, the latest used first. */
	sessions: { id: string; device: string; madeAt: string; lastAt: string }[];
}

/** An invitation that nobody took up yet. */
export interface InvitationTold {
	id: string;
	role: Role;
	untilAt: string;
}

/** A link by which somebody reads one page of one tree. */
export interface LinkTold {
	id: string;
	treeId: string;
	tag: string;
	page: SharedPage;
	untilOn: string;
}

/** Who looks at a page: somebody with a key, or whoever sits at the computer where that needs none. */
export const whoSchema = z.strictObject({
	/** Null at the computer itself, without a key. */
	id: id().nullable(),
	name: z.string(),
	role: oneOf(roles)
});
export type Who = z.infer<typeof whoSchema>;
