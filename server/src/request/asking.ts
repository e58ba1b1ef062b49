import { type MayAsk, mayAsk } from '@tolvek/core/access';
import { protectionOf } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { and, inArray, or, type SQL, sql } from 'drizzle-orm';
import { currentRelease, formsOf, releaseById, releasesInto } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { closedElsewhere } from './protection.ts';
import { requests } from './tables.ts';

/** What a viewer may have looked through. */
interface Askable {
  /** Names that stand for nothing here as far as this viewer is concerned. */
  readonly unknown: readonly string[];
  /** The requests on which the viewer may read all that is asked for. */
  readonly where: SQL | undefined;
  /** Whether that is all of them. */
  readonly isAll: boolean;
}

/**
 * Whether a viewer who works at the desk of a register may have its requests looked through by what
 * fields hold, and which of them: that is decided by the plan, whatever they hold. What only a draft
 * has is held by no request yet, and may be asked for.
 */
export const askableOf = (db: Reader, viewer: Viewer, register: RegisterRow, names: readonly string[]): Askable =>
  askableIn(db, viewer, register)(names);

/** The same for many names, each asked by itself. */
export function askableIn(db: Reader, viewer: Viewer, register: RegisterRow): (names: readonly string[]) => Askable {
  const closed = closedElsewhere(db, register);
  const by = (release: { form: string; design: ReturnType<typeof releaseById>['release']['design'] } | null) => {
    const protection = protectionOf(register.access, {
      ...{ fields: register.fields, release, ran: register.ran, closed },
    });
    return (names: readonly string[]): MayAsk => mayAsk(names, protection, viewer);
  };
  const [form] = formsOf(db, register.id);
  const current = form && currentRelease(db, form);
  const now = by(current ? { form: current.formId, design: current.design } : null);
  const releases = releasesInto(db, register.id).map((id) => {
    const { release } = releaseById(db, id);
    return { id, asked: by({ form: release.formId, design: release.design }) };
  });
  return (names) => {
    const stored = names.filter((name) => register.fields.some((field) => field.key === name));
    const { unknown } = now(stored);
    if (unknown.length > 0) return { unknown, where: sql`0`, isAll: false };
    return whereAsked(
      viewer,
      releases.map(({ id, asked }) => ({ id, asked: asked(stored) })),
    );
  };
}

/** The requests of some releases on which a viewer may read all that is asked for; `known`: what they may ask of each. */
function whereAsked(viewer: Viewer, known: readonly { readonly id: string; readonly asked: MayAsk }[]): Askable {
  const those = (is: (each: (typeof known)[number]['asked']) => boolean): string[] =>
    known.flatMap(({ id, asked }) => (is(asked) ? [id] : []));
  const all = those((asked) => asked.unknown.length === 0 && asked.own);
  const others = those((asked) => asked.unknown.length === 0 && !asked.own);
  if (all.length === known.length) return { unknown: [], where: undefined, isAll: true };
  return {
    unknown: [],
    isAll: false,
    where: or(
      all.length > 0 ? inArray(requests.releaseId, all) : sql`0`,
      others.length > 0
        ? and(
            inArray(requests.releaseId, others),
            sql`${requests.requesterId} is not ${viewer.personId} and ${requests.onBehalfId} is not ${viewer.personId}`,
          )
        : undefined,
    ),
  };
}
