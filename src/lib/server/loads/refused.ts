/** Something that was asked for cannot be done; the message is for people, and says why and what to do. */
export class Refused extends Error {}
