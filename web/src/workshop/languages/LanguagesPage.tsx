import { type PlacedText, stateOf, type Translations } from '@tolvek/core/design';
import { textsOfDoor } from '@tolvek/core/door';
import { partName, spokenAlso, textsToTranslate, translationOf, withTranslation } from '@tolvek/core/form';
import { useId } from 'react';
import { Link } from 'react-router';
import { Button } from '../../ui/Button.tsx';
import { LANGUAGE_NAMES, type Language, say } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { TextLines, useWhatIsLeft } from './TextLines.tsx';
import { useOtherLanguages, useWritten } from './useOtherLanguages.ts';

/** The words of a form in other languages, text by text beside what is written. */
export function LanguagesPage() {
  const { editing } = useBinder();
  const { draft, change } = editing;
  const written = useWritten();
  const others = useOtherLanguages();
  return (
    <>
      <p className="max-w-[44rem] text-soft">{say('languages:intro', { language: LANGUAGE_NAMES[written] })}</p>
      {others.map((language) =>
        draft.translations?.[language] === undefined ? (
          <p key={language} className="mt-5">
            <Button onClick={() => change((before) => spokenAlso(before, language, true))}>
              {say('languages:offer', { language: LANGUAGE_NAMES[language] })}
            </Button>
          </p>
        ) : (
          <InOne key={language} language={language} />
        ),
      )}
    </>
  );
}

/** One language that the form is read in. */
function InOne({ language }: { readonly language: Language }) {
  const { editing } = useBinder();
  const { draft, change } = editing;
  const lines = textsToTranslate(draft).map((text) => {
    const kind = say(`languages:kind.${text.kind}`);
    const name = text.field === null ? '' : partName(draft, text.field);
    return {
      ...text,
      ...translationOf(draft, text, language),
      id: `${text.field ?? ''}/${text.place}`,
      caption: text.field === null || text.kind === 'label' ? kind : `${kind}: ${name}`,
    };
  });
  const id = useId();
  const left = useWhatIsLeft(lines);
  return (
    <section aria-label={LANGUAGE_NAMES[language]} className="mt-6">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b-2 border-rule-strong pb-1.5">
        <h2>{LANGUAGE_NAMES[language]}</h2>
        <p className="text-soft tabular-nums">{say('languages:done', { done: left.done, count: lines.length })}</p>
        <p className="ml-auto text-[13px]">
          <label htmlFor={`${id}-show`} className="text-soft">
            {say('languages:show')}
          </label>{' '}
          <select
            id={`${id}-show`}
            className="border-b-[1.5px] border-green bg-transparent font-semibold text-green"
            value={left.isAll ? 'all' : 'left'}
            onChange={({ target }) => left.show(target.value === 'all')}
          >
            {(['left', 'all'] as const).map((each) => (
              <option key={each} value={each}>
                {say(`languages:show.${each}`)}
              </option>
            ))}
          </select>
        </p>
      </div>
      {left.shown.length === 0 ? <p className="py-4 text-soft">{say('languages:nothingLeft')}</p> : null}
      <TextLines
        lines={left.shown}
        language={language}
        put={(text, says) => {
          left.hold();
          change((before) => withTranslation(before, text, language, says));
        }}
      />
      <Beside language={language} />
      <p className="mt-5">
        <button
          type="button"
          className="text-brick underline"
          onClick={() => change((before) => spokenAlso(before, language, false))}
        >
          {say('languages:withdraw', { language: LANGUAGE_NAMES[language] })}
        </button>{' '}
        <span className="text-[13px] text-soft">{say('languages:withdrawHint')}</span>
      </p>
    </section>
  );
}

/** What doors and stages still have to say in a language: they are set where they are. */
function Beside({ language }: { readonly language: Language }) {
  const { form } = useBinder();
  const isLeft = (
    translations: Translations | undefined,
    { place, text }: Pick<PlacedText, 'place' | 'text'>,
  ): boolean => stateOf(translations?.[language]?.[place], text) !== 'translated';
  const doors = form.doors.flatMap(({ slug, name, door }) => {
    const count = textsOfDoor(door).filter((text) => isLeft(door.translations, text)).length;
    return count > 0 ? [{ slug, words: say('languages:doorLeft', { name, count }) }] : [];
  });
  const stages = form.publicStages.filter(({ publicLabel: text, translations }) =>
    isLeft(translations, { place: 'public', text }),
  ).length;
  if (doors.length === 0 && stages === 0) return null;
  return (
    <div className="mt-4 border-t-2 border-rule-strong pt-3">
      <p className="text-soft">{say('languages:doorsAndStages')}</p>
      <ul>
        {doors.map(({ slug, words }) => (
          <li key={slug}>
            <Link to={`/workshop/${form.key}/doors`}>{words}</Link>
          </li>
        ))}
        {stages > 0 ? (
          <li>
            <Link to={`/workshop/registers/${form.register.key}`}>
              {say('languages:stagesLeft', { count: stages })}
            </Link>
          </li>
        ) : null}
      </ul>
    </div>
  );
}
