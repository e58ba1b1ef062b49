import { type PlacedText, stateOf, type Translations } from '@tolvek/core/design';
import { textsOfDoor } from '@tolvek/core/door';
import {
  type FormDesign,
  namedBy,
  partName,
  spokenAlso,
  type TakenBack,
  textsIn,
  textsOut,
  textsToTranslate,
  translationOf,
  type UnitOut,
  withTranslation,
} from '@tolvek/core/form';
import { termsLeft } from '@tolvek/core/register';
import type { UsualKind } from '@tolvek/core/telling';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import { Button } from '../../ui/Button.tsx';
import { saveFile } from '../../ui/saveFile.ts';
import { meApi } from '../../wire/me.ts';
import { LANGUAGE_NAMES, LANGUAGES, type Language, say } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { FilePick } from '../FilePick.tsx';
import { TextLines, useWhatIsLeft } from './TextLines.tsx';
import { readTranslators, writeTranslators } from './translators.ts';
import { useOtherLanguages, useWritten } from './useOtherLanguages.ts';

/** The words of a form in other languages, text by text beside what is written. */
export function LanguagesPage() {
  const { editing } = useBinder();
  const { draft, change } = editing;
  const others = useOtherLanguages();
  return (
    <>
      <p className="max-w-[44rem] text-soft">{say('languages:intro')}</p>
      <WrittenLine />
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

/** In which language the form itself is written, where that is not the desk’s. */
function WrittenLine() {
  const { editing } = useBinder();
  const { draft, change } = editing;
  const desk = meApi.useMeQuery().data?.desk.language ?? 'en';
  const written = useWritten();
  const id = useId();
  return (
    <p className="mt-3 flex flex-wrap items-baseline gap-2">
      <label htmlFor={id} className="text-soft">
        {say('languages:writtenIn')}
      </label>
      <select
        id={id}
        className="input w-auto"
        value={written}
        onChange={({ target: { value } }) =>
          change(({ written: _, ...before }) => (value === desk ? before : { ...before, written: value as Language }))
        }
      >
        {LANGUAGES.map((each) => (
          <option key={each} value={each} disabled={draft.translations?.[each] !== undefined}>
            {LANGUAGE_NAMES[each]}
            {draft.translations?.[each] === undefined ? '' : ` ${say('languages:isTranslation')}`}
          </option>
        ))}
      </select>
    </p>
  );
}

/** What came of a file from translators: what is worth a look. */
function TakenSaid({ taken }: { readonly taken: Omit<TakenBack, 'design'> }) {
  const { unknown } = taken;
  return (
    <ul role="status" className="mt-2 border-l-[3px] border-green bg-green-wash px-3 py-2">
      {(['taken', 'outdated', 'same', 'empty'] as const).map((each) =>
        taken[each] > 0 || each === 'taken' ? (
          <li key={each}>{say(`languages:back.${each}`, { count: taken[each] })}</li>
        ) : null,
      )}
      {unknown.length > 0 ? (
        <li className="text-brick">
          {say('languages:back.unknown', { count: unknown.length, names: unknown.slice(0, 5) })}
        </li>
      ) : null}
    </ul>
  );
}

/** The texts as a file for translators, out and back. */
function Translators({ language }: { readonly language: Language }) {
  const { editing, form } = useBinder();
  const { draft, change } = editing;
  const written = useWritten();
  const [back, setBack] = useState<Omit<TakenBack, 'design'> | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const take = async (file: File): Promise<void> => {
    setBack(null);
    const read = await readTranslators(await file.text());
    if (!read) return setWrong(say('languages:noTranslators', { name: file.name }));
    if (!read.to.toLowerCase().startsWith(language)) {
      const to = LANGUAGES.find((each) => read.to.toLowerCase().startsWith(each));
      const given = { found: to ? LANGUAGE_NAMES[to] : read.to, language: LANGUAGE_NAMES[language] };
      return setWrong(say('languages:otherLanguage', given));
    }
    setWrong(null);
    const { design: _, ...came } = textsIn(draft, language, read.units);
    if (came.taken > 0) change((before) => textsIn(before, language, read.units).design);
    setBack(came);
  };
  return (
    <details className="mt-4 border-t-2 border-rule-strong pt-3">
      <summary className="cursor-pointer text-green underline">{say('languages:translators')}</summary>
      <p className="mt-1 max-w-[44rem] text-soft">{say('languages:translatorsHint')}</p>
      <p className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2">
        <Button
          onClick={async () => {
            const noteOf = ({ kind, ...of }: UnitOut): string =>
              [say(`languages:kind.${kind}`), nameOf(draft, of)].filter(Boolean).join(': ');
            const units = textsOut(draft, language);
            const content = await writeTranslators(units, { from: written, to: language, noteOf });
            saveFile(`${form.key}-${language}.xlf`, 'application/xliff+xml', content);
          }}
        >
          {say('languages:takeOut')}
        </Button>
        <span className="text-soft">{say('languages:takeIn')}</span>
        <FilePick name={say('languages:takeIn')} accept=".xlf,.xliff,application/xliff+xml" onChoose={take} />
      </p>
      {wrong ? (
        <p role="alert" className="mt-2 text-brick">
          {wrong}
        </p>
      ) : null}
      {back ? <TakenSaid taken={back} /> : null}
    </details>
  );
}

/** What a text is of: a field or a notice, by name; empty for the form itself. */
function nameOf(draft: FormDesign, { field, notice }: Pick<UnitOut, 'field' | 'notice'>): string {
  if (notice === undefined) return field === null ? '' : partName(draft, field);
  const [of, key = ''] = notice.split(' ');
  return of === 'usual'
    ? say(`notices:usual.${key as UsualKind}`)
    : (draft.notices?.rules.find((each) => each.key === key)?.name ?? '');
}

/** One language that the form is read in. */
function InOne({ language }: { readonly language: Language }) {
  const { editing } = useBinder();
  const { draft, change } = editing;
  const lines = textsToTranslate(draft).map((text) => {
    const kind = say(`languages:kind.${text.kind}`);
    const name = nameOf(draft, text);
    return {
      ...text,
      ...translationOf(draft, text, language),
      id: `${text.notice ?? text.field ?? ''}/${text.place}`,
      caption: name === '' || text.kind === 'label' ? kind : `${kind}: ${name}`,
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
      <Translators language={language} />
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
  const { form, editing } = useBinder();
  const named = namedBy({ fields: editing.draft.fields }).vocabularies;
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
  const vocabularies = form.vocabularies.flatMap(({ key, name, terms }) => {
    const count = named.includes(key) ? termsLeft(terms, language) : 0;
    return count > 0 ? [{ key, words: say('languages:termsLeft', { name, count }) }] : [];
  });
  if (doors.length === 0 && stages === 0 && vocabularies.length === 0) return null;
  return (
    <div className="mt-4 border-t-2 border-rule-strong pt-3">
      <p className="text-soft">{say('languages:doorsAndStages')}</p>
      <ul>
        {doors.map(({ slug, words }) => (
          <li key={slug}>
            <Link to={`/workshop/${form.key}/doors`}>{words}</Link>
          </li>
        ))}
        {vocabularies.map(({ key, words }) => (
          <li key={key}>
            <Link to={`/workshop/groundwork/vocabularies/${key}`}>{words}</Link>
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
