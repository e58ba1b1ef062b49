/**
 * Whom a form is sent to, about what, and when it is due: read word for word from what is settled. It knows nothing of
 * how core does it, and takes nothing of it.
 */

interface Who {
  readonly personId: string;
  readonly kind: string;
  readonly active: boolean;
  readonly groups: readonly string[];
}

interface Mailing {
  readonly to:
    | { readonly audience: { readonly in: object; readonly outOf: readonly string[] } }
    | { readonly named: string };
  readonly about: { readonly is: string };
}

interface Entry {
  readonly id: string;
  readonly named: Readonly<Record<string, readonly string[]>>;
}

/** In the group, or named by an @ before the id. */
const isIt = (word: string, who: Who): boolean =>
  word[0] === '@' ? `@${who.personId}` === word : who.groups.some((group) => group === word);

function means(to: Mailing['to'], who: Who): boolean {
  if (!('audience' in to)) return false;
  // Out wins over in.
  for (const word of to.audience.outOf) if (isIt(word, who)) return false;
  const { everyone, anyOf, allOf } = to.audience.in as { everyone?: true; anyOf?: string[]; allOf?: string[] };
  if (everyone) return true;
  if (anyOf) return anyOf.filter((word) => isIt(word, who)).length > 0;
  return allOf !== undefined && allOf.length > 0 && allOf.filter((word) => !isIt(word, who)).length === 0;
}

/** `person about-what` for each form that is sent, and `person about-what why` for each that is not, in any order. */
export function sentBy(mailing: Mailing, door: string, people: readonly Who[], entries: readonly Entry[]): string[] {
  const { to, about } = mailing;
  const lines: string[] = [];
  const hinders = (who: Who): string =>
    who.active === false
      ? ' inactive'
      : who.kind === 'contact' && door === 'staff'
        ? ' door-for-staff'
        : who.kind === 'contact' && about.is === 'each-other'
          ? ' asks-outside'
          : '';
  if (about.is === 'nothing')
    for (const who of people) if (means(to, who)) lines.push(`${who.personId} -${hinders(who)}`);
  if (about.is === 'each-other')
    for (const who of people)
      for (const other of people) {
        if (who === other || !means(to, who) || !means(to, other) || hinders(other) !== '') continue;
        lines.push(`${who.personId} @${other.personId}${hinders(who)}`);
      }
  if (about.is === 'requests')
    for (const entry of entries) {
      const ids =
        'named' in to
          ? (entry.named[to.named] ?? []).filter((id, at, all) => all.indexOf(id) === at)
          : people.filter((who) => means(to, who)).map(({ personId }) => personId);
      if (ids.length === 0) lines.push(`nobody ${entry.id} nobody`);
      for (const id of ids) {
        const who = people.find(({ personId }) => personId === id);
        lines.push(`${id} ${entry.id}${who ? hinders(who) : ' unknown'}`);
      }
    }
  return lines;
}

/** The days (ISO 8601) of a year on which somebody works: from Monday to Friday, but for holidays. */
export function workdaysOf(year: number, holidays: readonly string[]): string[] {
  const days: string[] = [];
  for (let at = Date.UTC(year, 0, 1); new Date(at).getUTCFullYear() === year; at += 86_400_000) {
    const date = new Date(at);
    const day = date.toISOString().slice(0, 10);
    if (date.getUTCDay() % 6 !== 0 && !holidays.includes(day)) days.push(day);
  }
  return days;
}
