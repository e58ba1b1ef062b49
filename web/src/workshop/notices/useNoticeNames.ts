import { whenInWords } from '@tolvek/core/form';
import type { NoticeNames } from '@tolvek/core/telling';
import { useSearchParams } from 'react-router';
import { useBinder } from '../binder.ts';
import { useRingNames } from '../deadlines/deadlineSentences.ts';

/** How the sentences of notices name what is in the draft that is being worked on. */
export function useNoticeNames(): NoticeNames {
  const { editing } = useBinder();
  const { draft, proof } = editing;
  return {
    ...useRingNames(),
    condition: (text) => whenInWords(text, proof.scope),
    deadlines: draft.deadline,
  };
}

/** Which notice is being changed, by its key or kind; it stands in the address. */
export function useOpenNotice(): readonly [string | null, (notice: string | null) => void] {
  const [params, setParams] = useSearchParams();
  const open = (notice: string | null): void =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        if (notice === null) next.delete('notice');
        else next.set('notice', notice);
        return next;
      },
      { replace: true, preventScrollReset: true },
    );
  return [params.get('notice'), open];
}
