import { howSaid, type PlacedText, type Translation } from '@tolvek/core/design';
import { LANGUAGE_NAMES, type Language, say } from '../../wire/words.ts';
import { type TextLine, TextLines } from './TextLines.tsx';
import { useOtherLanguages } from './useOtherLanguages.ts';

interface InOthersProps {
  readonly texts: readonly PlacedText[];
  readonly found: (text: PlacedText, language: Language) => Translation | undefined;
  readonly put: (text: PlacedText, language: Language, says: string) => void;
}

/** A few texts in other languages, where they are set themselves; closed until somebody wants them. */
export function InOthers({ texts, found, put }: InOthersProps) {
  const languages = useOtherLanguages();
  if (texts.length === 0) return null;
  const linesIn = (language: Language) =>
    texts.map((text): TextLine => {
      const caption = say(`languages:kind.${text.kind}`);
      return { ...text, ...howSaid(found(text, language), text.text), id: text.place, caption };
    });
  return (
    <details>
      <summary className="cursor-pointer py-1 text-green underline">{say('languages:others')}</summary>
      <p className="text-[13px] text-soft">{say('languages:othersHint')}</p>
      {languages.map((language) => (
        <section key={language} aria-label={LANGUAGE_NAMES[language]} className="mt-2">
          <h3>{LANGUAGE_NAMES[language]}</h3>
          <TextLines lines={linesIn(language)} {...{ language }} put={(line, says) => put(line, language, says)} />
        </section>
      ))}
    </details>
  );
}
