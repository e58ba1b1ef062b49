/** What whoever sent an email is to a request: it is theirs, or they may write to it at the desk. */
export type SenderRole = 'requester' | 'desk' | null;

/**
 * Why an email is held: nothing is new in it; it names no request, or several; its address belongs to nobody, or to
 * somebody who may not write to that request; it would be a note of the staff, and answers no email that went to them.
 */
export const HELD_WHY = ['empty', 'no-request', 'several', 'unknown-sender', 'may-not', 'unproved'] as const;
export type HeldWhy = (typeof HELD_WHY)[number];

/** What becomes of an email: requests by id. */
export type Place =
  | { readonly is: 'message' | 'note'; readonly request: string }
  | { readonly is: 'held'; readonly why: HeldWhy; readonly request: string | null }
  | { readonly is: 'aside' };

interface Facts {
  readonly isAutomatic: boolean;
  /** Whether something new is in it: words, or a file. */
  readonly saysSomething: boolean;
  /** The email of ours that it answers: about which request, and whether it went to whoever answers. */
  readonly answered: { readonly request: string; readonly wentToSender: boolean } | null;
  /** The requests that its subject names. */
  readonly named: readonly string[];
  /** Whether its address belongs to somebody. */
  readonly isKnown: boolean;
  readonly roleAt: (request: string) => SenderRole;
}

/**
 * What becomes of an email that somebody sent to the desk. Anybody can write any address as the sender of an email: words
 * of whoever asked are taken on that word, as by hand, and tell nobody anything; a note of the staff, which others rely
 * on, only as an answer to an email that went to its sender, as nobody else knows how that is named.
 */
export function placeOf({ isAutomatic, saysSomething, answered, named, isKnown, roleAt }: Facts): Place {
  if (isAutomatic) return { is: 'aside' };
  const request = answered?.request ?? (named.length === 1 ? (named[0] ?? null) : null);
  const held = (why: HeldWhy): Place => ({ is: 'held', why, request });
  if (request === null) return held(named.length > 1 ? 'several' : 'no-request');
  if (!saysSomething) return held('empty');
  const role = roleAt(request);
  if (role === 'requester') return { is: 'message', request };
  if (role === 'desk') return answered?.wentToSender ? { is: 'note', request } : held('unproved');
  return held(isKnown ? 'may-not' : 'unknown-sender');
}
