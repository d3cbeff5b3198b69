import type { Refused } from '$ui/field';

/** So much of a file is sent at once, bytes. */
const PIECE = 8 * 1024 * 1024;

const refusal = (message: string, advice: string): { refused: Refused } => ({
	refused: { message, advice, problems: [], typed: {} }
});

/**
 * Sends a file piece by piece, so that its size does not matter.
 * @param told share that is sent, 0 to 1
 * @returns the name under which it was sent, or why it was not
 */
export async function sendInPieces(
	file: Blob,
	told: (share: number) => void
): Promise<{ sending: string } | { refused: Refused }> {
	const sending = crypto.getRandomValues(new Uint32Array(4)).join('-');
	for (let at = 0; at < Math.max(1, file.size); at += PIECE) {
		const answer = await fetch(`/yard/archive?sending=${sending}&at=${at}`, {
			method: 'PUT',
			headers: { 'content-type': 'application/zip' },
			body: file.slice(at, at + PIECE)
		}).catch(() => null);
		if (!answer)
			return refusal(
				'No answer from Bruntle.',
				'Is it still running, and the network there? Choose the file again; nothing was read in.'
			);
		if (!answer.ok) {
			const { title, detail } = (await answer.json().catch(() => ({}))) as {
				title?: string;
				detail?: string;
			};
			return refusal(title ?? 'It was not taken.', detail ?? 'Choose the file again; nothing was read in.');
		}
		told(Math.min(1, (at + PIECE) / file.size));
	}
	return { sending };
}
