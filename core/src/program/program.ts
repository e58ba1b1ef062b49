import type { Right, Viewer } from '../people/index.ts';

/** What a program can be let do with requests, the least first: it is of no team, and nothing is its own. */
export const PROGRAM_RIGHTS = [
  ...(['read:all', 'history:all', 'change:all', 'move:all', 'assign:all', 'export:all'] as const),
] as const satisfies readonly Right[];
export type ProgramRight = (typeof PROGRAM_RIGHTS)[number];

/** Something it may do: in one register, by its id, or wherever there are requests (null). */
export interface ProgramMay {
  readonly right: ProgramRight;
  readonly register: string | null;
}

/** Another program that works with the desk: it asks by a key of its own, and is told of what happens. */
export interface Program {
  /** Lasting: what it did stands under this. */
  readonly key: string;
  readonly name: string;
  /** What it is for, and who looks after it. */
  readonly note: string;
  /** Where it is told of what happens; empty: it is told nothing. */
  readonly address: string;
  readonly may: readonly ProgramMay[];
  /** It reads fields and sees what anybody in these groups does, by key. It is in none of them: nothing is given to it. */
  readonly groups: readonly string[];
  /** Its keys open nothing, and it is told nothing. */
  readonly retired?: boolean | undefined;
}

/** So many rights and groups a program can have. */
export const MOST_OF_PROGRAM = 60;

const SIGN = '~';

/** How a program stands where people stand by their ids, such as in the history: no person has such an id. */
export const actorOf = (key: string): string => `${SIGN}${key}`;

/** The key of a program by how it stands among people; null for a person. */
export const programIn = (id: string): string | null => (id.startsWith(SIGN) ? id.slice(SIGN.length) : null);

/** A program as what decides about people knows it: with its own rights alone, and none that everybody has. */
export function viewerOfProgram({ key, may, groups }: Program): Viewer {
  const rights = (register: string | null): Right[] =>
    may.flatMap((each) => (each.register === null || each.register === register ? [each.right] : []));
  const registers = [...new Set(may.flatMap(({ register }) => register ?? []))];
  return {
    ...{ personId: actorOf(key), kind: 'staff', groups, rights: rights(null) },
    ...(registers.length === 0 ? {} : { otherwise: Object.fromEntries(registers.map((id) => [id, rights(id)])) }),
  };
}

/**
 * Where a program may be told of what happens: over TLS, or on this machine itself. Without a name or password in it, which
 * would stand in logs.
 */
export function isHookAddress(text: string): boolean {
  if (!URL.canParse(text)) return false;
  const { protocol, hostname, username, password, hash } = new URL(text);
  if (username !== '' || password !== '' || hash !== '') return false;
  return protocol === 'https:' || (protocol === 'http:' && /^(localhost|127\.0\.0\.1|\[::1\])$/.test(hostname));
}
