import type { Attachment } from '$core/model/question';
import { tell } from './toasts';

/** Stores a file for a question of a course that is being edited; tells why, and gives null, where it was refused. */
export async function storeFile(courseId: number, file: File): Promise<Attachment | null> {
	const asked = new URLSearchParams({ type: file.type, name: file.name });
	try {
		const answer = await fetch(`/courses/${courseId}/banks/files?${asked}`, { method: 'PUT', body: file });
		const stored = (await answer.json()) as Attachment & { message?: string };
		if (answer.ok) return stored;
		tell(stored.message ?? 'The file was refused.');
	} catch {
		tell('The file could not be sent. Try again.');
	}
	return null;
}
