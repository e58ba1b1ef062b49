import { isProblem, isSaid, namesLost, tellsTheSame } from './wording.ts';

/** What was made anew on each side: ids, tokens, and the address the desk runs at. */
const MADE = /127\.0\.0\.1:\d+|[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}|[\w-]{22,}/g;

/**
 * Compares what was read before with what is read now. What was there has to be there, and be the
 * same; what is new besides is nobody’s loss. Ids that are made anew stand for each other once they
 * were met at the same place.
 */
export class Same {
  private known = new Map<string, string>();

  /** Tells whether the two are the same; where they are not, nothing is learnt of ids. */
  are(was: unknown, is: unknown): boolean {
    const before = new Map(this.known);
    if (this.differences(was, is).length === 0) return true;
    this.known = before;
    return false;
  }

  /** Where the two differ, each as a path with both sides. */
  differences(was: unknown, is: unknown, path = ''): readonly string[] {
    if (typeof was === 'string' && typeof is === 'string' && isSheet(was) && isSheet(is))
      return this.differences(cellsOf(was), cellsOf(is), path);
    const [thenProblem, nowProblem] = [problemIn(was), problemIn(is)];
    if (thenProblem && nowProblem) return this.problemsApart(thenProblem, nowProblem, path);
    if (typeof was === 'string' && isSaid(is)) return tellsTheSame(was, is) ? [] : [told(path, was, is)];
    if (typeof was === 'string' && typeof is === 'string') return this.isSameText(was, is) ? [] : [told(path, was, is)];
    if (Array.isArray(was) && Array.isArray(is)) {
      if (was.length !== is.length) return [told(`${path}.length`, was.length, is.length)];
      return was.flatMap((each, index) => this.differences(each, is[index], `${path}[${index}]`));
    }
    if (isObject(was) && isObject(is))
      return Object.keys(was).flatMap((key) => this.differences(was[key], is[key], `${path}.${key}`));
    return was === is ? [] : [told(path, was, is)];
  }

  /** A refusal is the same when it is of the same type and tells of the same: its words are others. */
  private problemsApart(was: Problem, is: Problem, path: string): readonly string[] {
    const { title: _, detail: __, ...of } = was;
    const lost = namesLost(was, is).map((name) => `${path} names ${name} no more`);
    return [
      ...lost,
      ...Object.entries(of).flatMap(([key, value]) =>
        this.differences(value, (is as unknown as Record<string, unknown>)[key], `${path}.${key}`),
      ),
    ];
  }

  private isSameText(was: string, is: string): boolean {
    if (was === is) return true;
    if (was.replace(MADE, '#') !== is.replace(MADE, '#')) return false;
    const made = is.match(MADE) ?? [];
    const pairs = (was.match(MADE) ?? []).map((id, index) => [id, made[index] ?? ''] as const);
    if (!pairs.every(([id, now]) => (this.known.get(id) ?? now) === now)) return false;
    for (const [id, now] of pairs) this.known.set(id, now);
    return true;
  }
}

type Problem = Parameters<typeof namesLost>[0];
/** A refusal, as an answer or as the text of one. */
function problemIn(value: unknown): Problem | null {
  if (isProblem(value)) return value;
  if (typeof value !== 'string' || !value.startsWith('{"type":"urn:')) return null;
  return JSON.parse(value) as Problem;
}

/** What was taken out as CSV, every cell in quotes, is compared cell by cell. */
const isSheet = (text: string): boolean => text.endsWith('"\r\n');
const cellsOf = (text: string): readonly (readonly string[])[] => text.split('"\r\n').map((line) => line.split('","'));

const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const told = (path: string, was: unknown, is: unknown): string =>
  `${path}: ${JSON.stringify(was)?.slice(0, 200)} → ${JSON.stringify(is)?.slice(0, 200)}`;
