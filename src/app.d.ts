import type { Person } from '$lib/server/people/sessions';

declare global {
	namespace App {
		interface Locals {
			person: Person | null;
		}
	}
}

export {};
