import { goto } from '$app/navigation';
import { resolve } from '$app/paths';
import type { MoveAnswer, PracticeMove } from '$core/practice/moves';
import { notKept, tell } from '$ui/act';
import { readAnew } from '$ui/read-anew';

/**
 * Does something with the practice tree, says what came of it and reads the page anew; a round that is over is led to how it was judged.
 * @returns null where it was refused, which is said
 */
export async function makeMove(id: string, move: PracticeMove): Promise<MoveAnswer | null> {
	let answer: MoveAnswer;
	try {
		const response = await fetch(resolve('/practice/act'), {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ id, ...move })
		});
		if (!response.ok) {
			const problem = (await response.json()) as { title?: string; detail?: string };
			notKept(
				{ message: problem.title ?? 'It was refused.', advice: problem.detail ?? '' },
				() => void makeMove(id, move)
			);
			return null;
		}
		answer = (await response.json()) as MoveAnswer;
	} catch (cause) {
		notKept(cause, () => void makeMove(id, move));
		return null;
	}
	if (answer.over) await goto(resolve('/practice/[round]', { round: id }), { invalidateAll: true });
	else await readAnew();
	tell({ told: answer.told });
	return answer;
}
