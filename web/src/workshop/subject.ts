/** What a request is called, in pieces: words, then a field by its key and the words after it, and so on. */
export interface SubjectPieces {
  readonly first: string;
  readonly rest: readonly { readonly field: string; readonly after: string }[];
}

/** The pieces of what a register keeps: `{visitor}, {reason}` is two fields with “, ” between them. */
export function piecesOf(subject: string): SubjectPieces {
  const [first = '', ...split] = subject.split(/\{(\w+)\}/);
  const rest = split.flatMap((each, at) => (at % 2 === 0 ? [{ field: each, after: split[at + 1] ?? '' }] : []));
  return { first, rest };
}

export const subjectOf = ({ first, rest }: SubjectPieces): string =>
  first + rest.map(({ field, after }) => `{${field}}${after}`).join('');

/** With a field at the end, a comma between it and what stands there. */
export const withFieldAtEnd = (subject: string, field: string): string =>
  `${subject}${subject.trim() === '' || /\s$/.test(subject) ? '' : ', '}{${field}}`;

/** Without one of its fields: the words around it stay, one of two separators goes with it. */
export function withoutField(subject: string, at: number): string {
  const { first, rest } = piecesOf(subject);
  const gone = rest[at];
  if (!gone) return subject;
  if (at === 0)
    return subjectOf({ first: gone.after.trim() === ',' ? first : first + gone.after, rest: rest.slice(1) });
  const kept = rest.filter((_, index) => index !== at);
  const before = kept[at - 1];
  if (!before) return subject;
  const joined = { ...before, after: gone.after };
  return subjectOf({ first, rest: kept.map((each, index) => (index === at - 1 ? joined : each)) });
}
