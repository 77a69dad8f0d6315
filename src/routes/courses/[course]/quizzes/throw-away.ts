import { goto } from '$app/navigation';
import { page } from '$app/state';
import type { Quiz } from '$lib/server/quizzes/quiz';
import { send } from '$lib/ui/doing';
import { tell } from '$lib/ui/toasts';

/** Throws a quiz away and tells so, with the way back; whoever is on its page is led to the list. */
export async function throwAway(courseId: number, { id, title }: { id: number; title: string }): Promise<void> {
	const list = `/courses/${courseId}/quizzes`;
	const gone = await send<Quiz>(`${list}/${id}`, {}, 'DELETE');
	if (!gone.ok) {
		tell(gone.message);
		return;
	}
	const quiz = gone.value;
	await goto(list, { invalidateAll: true });
	tell(`“${title}” is thrown away; its questions stay in their banks.`, {
		name: 'Undo',
		act: () => {
			const parts = quiz.parts.map((part) => ({ ...part, lost: [] }));
			void send<{ quizId: number }>(`${list}/back`, { ...quiz, parts }).then(async (back) => {
				if (back.ok && page.url.pathname === list) await goto(list, { invalidateAll: true });
				tell(back.ok ? `“${title}” is back.` : back.message);
			});
		}
	});
}
