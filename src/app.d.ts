import type { Person } from '$lib/server/people/sessions';

declare global {
	namespace App {
		interface Locals {
			person: Person | null;
			/** The database could not be reached while this was answered. */
			unreachable?: boolean;
		}
	}
}

export {};
