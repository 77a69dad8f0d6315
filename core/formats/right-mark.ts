/** What people put behind an option that is right: a star, a tick, "(correct)", "<- answer". */
export const rightTail =
	/\s*(?:\*+|[✓✔✅☑]\uFE0F?|[([](?:correct|right|key|x|[✓✔]\uFE0F?)(?:\s+answer)?[)\]]|(?:<|←)-*\s*(?:correct|key|answer))\s*$/iu;
