import type { AnswerOf } from '@tolvek/contract';
import { inLanguage } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import type { RawAnswers } from '@tolvek/core/register';
import type { Language } from '@tolvek/words/speech';
import { doorsFor } from '../door/queries.ts';
import { releaseInForce } from '../form/queries.ts';
import { admissionOf } from '../intake/admission.ts';
import { enterFor } from '../intake/commands.ts';
import { addPerson } from '../people/commands.ts';
import { personByEmail } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { write } from '../platform/work.ts';
import { addTo, leftEmail } from './held.ts';

/** The forms by which somebody of the staff can ask for others, each once, by a door that admits them. */
export function formsToEnter(
  db: Reader,
  viewer: Viewer,
  now: number,
  reads: Language,
): AnswerOf<'incomingEmail'>['forms'] {
  const forms = new Map<string, AnswerOf<'incomingEmail'>['forms'][number]>();
  for (const door of [...doorsFor(db, 'staff'), ...doorsFor(db, 'outside')]) {
    const release = releaseInForce(db, door.formId);
    if (!release || forms.has(door.formId) || door.design.unnamed || release.design.updates) continue;
    if (!admissionOf(db, door, viewer, now).admitted) continue;
    forms.set(door.formId, { slug: door.slug, title: inLanguage(release.design, reads).title });
  }
  return [...forms.values()];
}

interface Asking {
  readonly id: string;
  readonly slug: string;
  readonly release: number;
  readonly answers: RawAnswers;
  readonly key: string;
}

/**
 * Asks by a door in the name of whoever wrote an email: they hear of it as if they had asked themselves, and their email
 * stands with it. Who is not known becomes a contact.
 *
 * @throws Problem 403, 404 or 409 where the door does not admit whoever enters it, 409 where the email has a request
 *   already, 422 for answers that are wrong
 */
export function askByEmail(house: House, viewer: Viewer, asking: Asking): AnswerOf<'askByEmail'> {
  const { id, slug, release, answers, key } = asking;
  return write(house, (work) => {
    const { tx, now } = work;
    const content = { id, release, answers };
    return once(tx, { key, scope: `email ${slug} ${viewer.personId}`, content, now }, () => {
      const email = leftEmail(tx, id);
      const asks =
        personByEmail(tx, email.fromAddress) ??
        addPerson(work, { kind: 'contact', name: email.fromName || email.fromAddress, email: email.fromAddress });
      const request = enterFor(work, { slug, release, answers }, { enters: viewer, asks });
      addTo(work, viewer, request, email, 'note');
      return { number: request.number };
    });
  });
}
