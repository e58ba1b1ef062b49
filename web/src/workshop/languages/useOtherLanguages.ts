import { createContext, useContext } from 'react';
import { meApi } from '../../wire/me.ts';
import { LANGUAGES, type Language } from '../../wire/words.ts';

/** The language that the form which is being built is written in, where it says one. */
export const WrittenIn = createContext<Language | undefined>(undefined);

/** The language that the desk writes in, or the form that is being built. */
export function useWritten(): Language {
  const desk = meApi.useMeQuery().data?.desk.language ?? 'en';
  return useContext(WrittenIn) ?? desk;
}

/** The languages that what is written can be read in besides. */
export function useOtherLanguages(): readonly Language[] {
  const written = useWritten();
  return LANGUAGES.filter((each) => each !== written);
}
