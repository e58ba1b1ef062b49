import { meApi } from '../../wire/me.ts';
import { LANGUAGES, type Language } from '../../wire/words.ts';

/** The language that the desk writes in. */
export const useWritten = (): Language => meApi.useMeQuery().data?.desk.language ?? 'en';

/** The languages that what the desk writes can be read in besides. */
export function useOtherLanguages(): readonly Language[] {
  const written = useWritten();
  return LANGUAGES.filter((each) => each !== written);
}
