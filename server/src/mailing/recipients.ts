import { type AboutRequest, type MailingDesign, type Owed, owedBy, type SentOut } from '@tolvek/core/mailing';
import { own } from '@tolvek/core/own';
import { and, inArray } from 'drizzle-orm';
import { doorAtAddress } from '../door/queries.ts';
import { peopleInGroups } from '../people/lists.ts';
import type { Reader } from '../platform/database.ts';
import { type RegisterRow, registerByKey } from '../register/queries.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { momentOf } from '../request/moment.ts';
import { requestById, type ShownRow } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import type { MailingRow } from './queries.ts';

/** Who stands in a request: by its relations, and in its fields for people. */
function standingIn({ id, requesterId, handlerId, values }: ShownRow, field: string | null): AboutRequest {
  const ids = (value: unknown): readonly string[] =>
    typeof value === 'string' ? [value] : Array.isArray(value) ? value.filter((each) => typeof each === 'string') : [];
  return {
    id,
    named: {
      ...{ '~requester': ids(requesterId), '~handler': ids(handlerId) },
      ...(field === null ? {} : { [field]: ids(own(values, field)) }),
    },
  };
}

/** Whether a request is one that a mailing is about, as it stands now. */
function isMeant(db: Reader, request: ShownRow, register: RegisterRow, { stages, when }: Meant): boolean {
  if (request.trial || (stages.length > 0 && !stages.includes(request.stage))) return false;
  return when.trim() === '' || momentOf(db, request, register, true).holds(when);
}

/** The one request because of which it goes out, and whether somebody has said so; null: because of none. */
type Because = { readonly request: string; readonly isSaid: boolean } | null;

type Meant = Extract<MailingDesign['about'], { is: 'requests' }>;

/** The requests that a mailing is about; `only`: of these, where it goes out because of one. */
function aboutRequests(db: Reader, { about, to }: MailingDesign, only: Because): readonly AboutRequest[] {
  const register = about.is === 'requests' ? registerByKey(db, about.register) : undefined;
  if (about.is !== 'requests' || !register) return [];
  const field = 'named' in to && !to.named.startsWith('~') ? to.named : null;
  const found: AboutRequest[] = [];
  const one = only === null ? undefined : requestById(db, only.request);
  const among =
    only !== null
      ? one?.registerId === register.id
        ? [one]
        : []
      : eachRequest(
          db,
          and(
            countedIn(register.id, 'all'),
            about.stages.length > 0 ? inArray(requests.stage, [...about.stages]) : undefined,
          ),
        );
  // What somebody asks about one request is about that, wherever it stands.
  for (const request of among)
    if (only?.isSaid || isMeant(db, request, register, about)) found.push(standingIn(request, field));
  return found;
}

/** Who has to fill in what when a mailing goes out now; `only`: because of one request. */
export function goesTo(db: Reader, { design }: Pick<MailingRow, 'design'>, only: Because): SentOut {
  const { to } = design;
  const about = aboutRequests(db, design, only);
  const ids = 'named' in to ? about.flatMap(({ named }) => named[to.named] ?? []) : null;
  const who = peopleInGroups(db, ids);
  return owedBy(design, doorAtAddress(db, design.door)?.kind ?? 'staff', who, about);
}

/** What each of some people has to fill in, in the order of the people. */
export function byPerson(owed: readonly Owed[]): ReadonlyMap<string, readonly Owed[]> {
  const each = new Map<string, Owed[]>();
  for (const one of owed) {
    const known = each.get(one.person);
    if (known) known.push(one);
    else each.set(one.person, [one]);
  }
  return each;
}
