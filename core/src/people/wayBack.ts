/** A place of this desk: a path from its root. What a browser would read as another host, or drops from an address, is none. */
const PLACE = /^\/(?![/\\])[^\\\p{Cc}]*$/u;

/**
 * Where somebody goes on who was sent to sign in: the place they came from, and nowhere else, whatever a link says
 * (`open redirects`, CWE-601).
 */
export const wayBack = (asked: string | null | undefined): string => (asked && PLACE.test(asked) ? asked : '/');
