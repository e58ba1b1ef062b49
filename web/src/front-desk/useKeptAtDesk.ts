import type { RawAnswers } from '@tolvek/core/register';
import { useEffect, useRef, useState } from 'react';
import { frontDeskApi } from './endpoints.ts';
import type { KeptAnswers } from './keptAnswers.ts';

/** How long typing rests before it is kept at the desk. */
const REST = 1_500;

/**
 * Where the desk keeps what is typed: for whoever is signed in, behind a link, or nowhere but on
 * this device.
 */
export type KeptAt =
  | { readonly as: 'staff'; readonly owed?: string | undefined }
  | { readonly as: 'link'; readonly token: string }
  | null;

/**
 * Keeps what is typed at the desk too, a moment after the last letter; says whether it is there.
 */
export function useKeptAtDesk(
  slug: string,
  at: KeptAt,
  typed: Pick<KeptAnswers, 'contact' | 'typedAt'>,
  answers: RawAnswers,
  isSent: boolean,
): boolean {
  const [keepForMe] = frontDeskApi.useKeepAnswersMutation();
  const [keepBehindLink] = frontDeskApi.useKeepKeptMutation();
  const [keptAt, setKeptAt] = useState(typed.typedAt);
  const first = useRef(typed.typedAt);
  const latest = useRef({ answers, contact: typed.contact });
  latest.current = { answers, contact: typed.contact };
  const { typedAt } = typed;
  const [as, token] = [at?.as, at?.as === 'link' ? at.token : ''];
  const owed = at?.as === 'staff' ? at.owed : undefined;
  useEffect(() => {
    if (!as || isSent || typedAt === 0 || typedAt === first.current) return;
    const waiting = setTimeout(() => {
      const { answers: now, contact } = latest.current;
      const keeping =
        as === 'staff'
          ? keepForMe({ slug, body: { answers: now, typedAt, owed } })
          : keepBehindLink({ token, body: { answers: now, contact, typedAt } });
      // What can’t be kept there is kept here; the next letter tries again.
      void keeping.then((result) => !('error' in result) && setKeptAt(typedAt));
    }, REST);
    return () => clearTimeout(waiting);
  }, [slug, as, token, owed, typedAt, isSent, keepForMe, keepBehindLink]);
  return as !== undefined && typedAt > 0 && keptAt === typedAt;
}
