/** Why the application can’t start, in words for whoever starts it: no mistake of ours. */
export class CannotStart extends Error {}
