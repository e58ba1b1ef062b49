/** A way in to a released form. */
export interface Door {
  readonly kind: 'staff' | 'outside';
  readonly open: boolean;
  /** Epoch ms; null: no limit. */
  readonly opensAt: number | null;
  readonly closesAt: number | null;
  /** What people read when it is closed; a general sentence stands in for an empty one. */
  readonly closedMessage: string;
}

export type Admission =
  | { readonly admitted: true }
  | { readonly admitted: false; readonly why: 'closed' | 'not-yet' | 'sign-in' | 'inactive'; readonly message: string };

const WHOM_TO_ASK = 'If you need this now, write to the desk.';

/** Whether somebody may come in now. A refusal always says why, and whom to ask. */
export function admit(
  door: Door,
  person: { readonly kind: 'staff' | 'contact' | 'unknown'; readonly active: boolean },
  now: number,
): Admission {
  const refuse = (why: 'closed' | 'not-yet' | 'sign-in' | 'inactive', message: string): Admission => ({
    admitted: false,
    why,
    message,
  });
  const closed = door.closedMessage.trim();
  if (!door.open || (door.closesAt !== null && now >= door.closesAt))
    return refuse('closed', closed || `This form is closed. ${WHOM_TO_ASK}`);
  if (door.opensAt !== null && now < door.opensAt)
    return refuse('not-yet', closed || `This form is not open yet. ${WHOM_TO_ASK}`);
  if (door.kind === 'staff' && person.kind !== 'staff')
    return refuse('sign-in', 'This form is for our own staff. Sign in to go on.');
  if (!person.active)
    return refuse(
      'inactive',
      `New requests can’t be taken from this address. What you asked before can still be read. ${WHOM_TO_ASK}`,
    );
  return { admitted: true };
}
