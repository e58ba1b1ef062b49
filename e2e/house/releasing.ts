import type { FormDesign } from '@tolvek/core/form';
import { USUAL_NOTICES } from '@tolvek/core/telling';
import { type Answer, type Caller, ok, onVersion } from './desk.ts';

/** What came of putting another state of a form in force: the number of its release, null where it was refused; and what was found wrong in its notices. */
interface Released {
  readonly release: number | null;
  readonly found: readonly string[];
}

/** Changes a form and puts it in force, as its coordinator would. */
export async function releaseAs(
  who: Caller,
  key: string,
  change: (draft: FormDesign) => FormDesign,
): Promise<Released> {
  const of = { params: { key } };
  const { draft, version } = ok(await who.call('form', of)) as { draft: FormDesign; version: number };
  const body = { draft: change(draft) };
  const saved = ok(await who.call('saveDraft', { ...of, headers: onVersion(version), body }));
  const { findings } = ok(await who.call('form', of)) as Answer['body'];
  const answer = await who.call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } });
  return {
    release: answer.status === 200 ? answer.body.number : null,
    found: (findings as readonly { page: string; severity: string; message: string }[])
      .filter(({ page, severity }) => page === 'notices' && severity === 'error')
      .map(({ message }) => message),
  };
}

/** A form that has these notices, and whose requests go to a team that works on them at once. */
export const telling =
  (rules: readonly object[], team: string | null = 'boats') =>
  (draft: FormDesign): FormDesign => {
    const { handler: _, ...others } = draft.routing.otherwise;
    return {
      ...draft,
      ...(team === null ? {} : { routing: { columns: [], rows: [], otherwise: { ...others, team, path: null } } }),
      notices: { ...(draft.notices ?? USUAL_NOTICES), rules: rules as never },
    };
  };
