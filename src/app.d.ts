import type { Person } from '$lib/server/people/sessions';

declare global {
	namespace App {
		interface Error {
			message: string;
			/** The number of the request, by which the log of the server tells more. */
			id?: string;
		}
		interface Locals {
			person: Person | null;
			requestId: string;
			/** The database could not be reached while this was answered. */
			unreachable?: boolean;
		}
	}
}

export {};
