/** What was sent from this device and waits for its address to be confirmed. */
export interface Waiting {
  /** Of the link by which the sender sees what became of it. */
  readonly token: string;
  /** Of the door it was sent by. */
  readonly slug: string;
}

const PLACE = 'tolvek:to-confirm';
/** More than these are forgotten, the oldest first. */
const MOST = 5;

/** What waits, the newest first. */
export function waiting(): readonly Waiting[] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(PLACE) ?? '[]');
    return Array.isArray(found) ? found.filter(isWaiting) : [];
  } catch {
    return [];
  }
}

const isWaiting = (each: unknown): each is Waiting =>
  typeof each === 'object' && each !== null && 'token' in each && 'slug' in each && typeof each.token === 'string';

/** Remembers that a step is left, so that whoever comes back to this device is told of it. */
export const leftToConfirm = (sent: Waiting): void =>
  put([sent, ...waiting().filter(({ token }) => token !== sent.token)]);

/** Forgets what was confirmed, or can’t be any more. */
export const confirmed = (token: string): void => put(waiting().filter((each) => each.token !== token));

/** Whether nothing is behind the link any more; a lost connection says nothing of that. */
export const isGone = (error: unknown): boolean =>
  typeof error === 'object' && error !== null && 'status' in error && (error.status === 404 || error.status === 410);

function put(left: readonly Waiting[]): void {
  try {
    localStorage.setItem(PLACE, JSON.stringify(left.slice(0, MOST)));
  } catch {
    // A device that remembers nothing tells of nothing.
  }
}
