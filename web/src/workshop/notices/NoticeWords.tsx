import { mayBeEmpty, type NoticeText, namedInText, SLOT_WORDS, SLOTS, type Slot } from '@tolvek/core/telling';
import { LANGUAGE_NAMES, LANGUAGES, type Language } from '@tolvek/words';
import { lazy, Suspense, useState } from 'react';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { useWritten } from '../languages/useOtherLanguages.ts';
import { otherwiseIn, saidIn, translatedIn, withOtherwise } from './noticeEdits.ts';

const SlotText = lazy(() => import('./SlotText.tsx'));

interface NoticeWordsProps {
  readonly notice: NoticeText;
  readonly set: (next: Partial<NoticeText>) => void;
  readonly id: string;
  /** What is said where nothing is written. */
  readonly usual?: string;
}

/** What an email says: its subject and its text, in each language, and what stands there where something is empty. */
export function NoticeWords({ notice, set, id, usual }: NoticeWordsProps) {
  const { editing } = useBinder();
  const { draft } = editing;
  const written = useWritten();
  const [language, setLanguage] = useState<Language>(written);
  const isWritten = language === written;
  const labelOf = (name: string): string =>
    name in SLOT_WORDS
      ? told(SLOT_WORDS[name as Slot])
      : (draft.fields.find(({ key }) => key === name)?.label ?? say('workshop:lostField', { key: name }));
  const offers = [
    { heading: say('notices:putInRequest'), names: SLOTS },
    { heading: say('notices:putInAnswers'), names: draft.fields.map(({ key }) => key) },
  ];
  const textOf = (place: 'subject' | 'text'): string => (isWritten ? notice[place] : saidIn(notice, language, place));
  const put = (texts: Partial<Pick<NoticeText, 'subject' | 'text'>>): void => {
    if (isWritten) {
      set(texts);
      return;
    }
    let said = notice;
    for (const place of ['subject', 'text'] as const) {
      const { [place]: says } = texts;
      if (says !== undefined) said = { ...said, translations: translatedIn(said, language, place, says) };
    }
    set({ translations: said.translations });
  };
  const both = `${textOf('subject')}\n\n${textOf('text')}`;
  const placeholder = (place: 'subject' | 'text'): string | undefined =>
    isWritten ? (place === 'subject' || usual ? (usual ?? say('notices:subjectAsUsual')) : undefined) : notice[place];
  const field = (place: 'subject' | 'text') => (
    <>
      <span className="pt-1.5 text-soft">{say(`notices:${place}`)}</span>
      <Suspense fallback={<div className="input min-h-9 flex-1" />}>
        <SlotText
          key={`${id} ${language}`}
          name={say(`notices:${place}`)}
          text={textOf(place)}
          set={(text) => put({ [place]: text })}
          {...{ labelOf, offers }}
          prompt={say('notices:putIn')}
          isLine={place === 'subject'}
          placeholder={placeholder(place) ?? ''}
        />
      </Suspense>
    </>
  );
  return (
    <>
      <label htmlFor={`language-${id}`} className="pt-1.5 text-soft">
        {say('notices:inLanguage')}
      </label>
      <select
        id={`language-${id}`}
        className="input w-auto justify-self-start"
        value={language}
        onChange={(event) => setLanguage(event.target.value as Language)}
      >
        {LANGUAGES.map((each) => (
          <option key={each} value={each}>
            {each === written ? say('notices:asWritten', { language: LANGUAGE_NAMES[each] }) : LANGUAGE_NAMES[each]}
          </option>
        ))}
      </select>
      {field('subject')}
      {field('text')}
      {namedInText(both)
        .filter(mayBeEmpty)
        .map((name) => (
          <Otherwise
            key={name}
            label={labelOf(name)}
            id={`${id}-${name}`}
            words={otherwiseIn(both, name)}
            set={(words) =>
              put({
                subject: withOtherwise(textOf('subject'), name, words),
                text: withOtherwise(textOf('text'), name, words),
              })
            }
          />
        ))}
    </>
  );
}

/** What stands in the place of something where it is empty. */
const Otherwise = ({
  label,
  id,
  words,
  set,
}: {
  label: string;
  id: string;
  words: string;
  set: (words: string) => void;
}) => (
  <>
    <span />
    <span className="-mt-1 flex flex-wrap items-center gap-2 text-[13px]">
      <label htmlFor={`otherwise-${id}`} className="text-soft">
        {say('notices:ifEmpty', { label })}
      </label>
      <input
        id={`otherwise-${id}`}
        className="input w-56 py-0.5"
        value={words}
        placeholder={say('notices:ifEmptyHint')}
        onChange={(event) => set(event.target.value)}
      />
    </span>
  </>
);
