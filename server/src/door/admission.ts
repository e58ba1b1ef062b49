import { OWN_REQUESTS } from '@tolvek/core/form';
import { inRegister, mayWith, type Viewer } from '@tolvek/core/people';
import { type Refusal, refused } from '@tolvek/words';
import { registerOfForm, releaseInForce } from '../form/queries.ts';
import { personById, viewerIn } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { openLink } from '../platform/links.ts';
import { notFound } from '../platform/problem.ts';
import { holdsThings } from '../register/queries.ts';

/**
 * Why somebody may not add to a register of things, or has nothing by a form that changes what is theirs; null when they
 * may. Things are kept by the desk of their register; by such a form people keep their own, and where theirs is what
 * names them in a field, that are people of the staff. `wasSent`: an entry was sent to them to look at.
 */
export function keptByOthers(db: Reader, formId: string, viewer: Viewer | null, wasSent = false): Refusal | null {
  const register = registerOfForm(db, formId);
  const updates = releaseInForce(db, formId)?.design.updates;
  if (updates) {
    const isForStaff = updates.whose !== OWN_REQUESTS && viewer?.kind === 'contact' && !wasSent;
    return isForStaff ? refused('namesStaff', { register: register.name }) : null;
  }
  if (!holdsThings(register)) return null;
  const isKeeper =
    viewer !== null &&
    mayWith(
      inRegister(viewer, register.id),
      'change',
      register.deskGroups.some((group) => viewer.groups.includes(group)) ? 'team' : 'none',
    );
  return isKeeper ? null : refused('ownRegister', { register: register.name });
}

/** Who holds a follow-up link. A contact made inactive still reads their own past requests. */
export function follower(
  db: Reader,
  token: string,
  now: number,
): { viewer: Viewer; requestId: string; linkId: string } {
  const link = openLink(db, token, 'follow', now);
  const person = personById(db, link.personId);
  if (!person) throw notFound('request');
  return {
    viewer: viewerIn(db, person),
    requestId: link.targetId,
    linkId: link.id,
  };
}
