/** What people put behind an option that is right: a star, a tick, "(correct)", "<- answer". */
export const rightTail =
	/\s*(?:\*+|✓|✔|✅|☑|[([](?:correct|right|key|x|✓|✔)(?:\s+answer)?[)\]]|(?:<|←)-*\s*(?:correct|key|answer))\s*$/iu;
