import { belongs, NO_REQUEST, type Somebody } from '../people/index.ts';
import type { About, MailingDesign, Recipients, Topic } from './mailing.ts';

/** Somebody a form could be sent to. */
export interface Recipient extends Somebody {
  readonly personId: string;
  readonly kind: 'staff' | 'contact';
  readonly active: boolean;
}

/** A request that a form is about, with who stands in it: ids by the name of the relation or the field. */
export interface AboutRequest {
  readonly id: string;
  readonly named: Readonly<Record<string, readonly string[]>>;
}

export interface Owed {
  readonly person: string;
  readonly about: Topic;
}

/** Why a form that should be sent is not. */
export interface NotSent {
  /** Null where there is nobody it could be sent to. */
  readonly person: string | null;
  readonly about: Topic;
  readonly why: 'nobody' | 'unknown' | 'inactive' | 'door-for-staff' | 'asks-outside';
}

export interface SentOut {
  readonly owed: readonly Owed[];
  readonly notSent: readonly NotSent[];
}

/** Who can be asked at which kind of door, about what. */
const hindrance = (
  { kind, active }: Recipient,
  about: About['is'],
  door: 'staff' | 'outside',
): NotSent['why'] | null => {
  if (!active) return 'inactive';
  if (kind === 'contact' && door === 'staff') return 'door-for-staff';
  // Staff are not named to whoever comes from outside.
  return kind === 'contact' && about === 'each-other' ? 'asks-outside' : null;
};

/** Whether somebody is among those an audience means, where no request is in question. */
export const isRecipient = (to: Recipients, who: Recipient): boolean =>
  'audience' in to && belongs(to.audience, who, NO_REQUEST);

/**
 * Who has to fill in what when a form goes out now: each person once about each thing, in the order of the people
 * (and of the requests). `people`: all who could be meant; `requests`: those it is about.
 */
export function owedBy(
  { to, about }: Pick<MailingDesign, 'to' | 'about'>,
  door: 'staff' | 'outside',
  people: readonly Recipient[],
  requests: readonly AboutRequest[],
): SentOut {
  const owed: Owed[] = [];
  const notSent: NotSent[] = [];
  const give = (who: Recipient, topic: Topic): void => {
    const why = hindrance(who, about.is, door);
    if (why === null) owed.push({ person: who.personId, about: topic });
    else notSent.push({ person: who.personId, about: topic, why });
  };
  const meant = people.filter((who) => isRecipient(to, who));
  switch (about.is) {
    case 'nothing':
      for (const who of meant) give(who, null);
      break;
    case 'each-other': {
      // About whoever is gone nobody is asked.
      const others = meant.filter((who) => hindrance(who, 'each-other', door) === null);
      for (const who of meant)
        for (const other of others) if (other.personId !== who.personId) give(who, { person: other.personId });
      break;
    }
    case 'requests': {
      const byId = new Map(people.map((who) => [who.personId, who]));
      for (const { id, named } of requests) {
        const ids = 'named' in to ? [...new Set(named[to.named] ?? [])] : meant.map(({ personId }) => personId);
        if (ids.length === 0) notSent.push({ person: null, about: { request: id }, why: 'nobody' });
        for (const person of ids) {
          const who = byId.get(person);
          if (who) give(who, { request: id });
          else notSent.push({ person, about: { request: id }, why: 'unknown' });
        }
      }
    }
  }
  return { owed, notSent };
}
