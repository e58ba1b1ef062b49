import { type HowSaid, namedBeyond, type PlacedText } from '@tolvek/core/design';
import { useId, useState } from 'react';
import { LANGUAGE_NAMES, type Language, say } from '../../wire/words.ts';

/** A text to translate, with what it is now. */
export interface TextLine extends PlacedText, HowSaid {
  readonly id: string;
  /** What kind of text it is, and where it stands besides. */
  readonly caption: string;
}

/** Texts as they are written, each with what it is in another language beside it. */
export function TextLines<Each extends TextLine>({
  lines,
  language,
  put,
}: {
  readonly lines: readonly Each[];
  readonly language: Language;
  readonly put: (line: Each, says: string) => void;
}) {
  const elsewhere = new Map(
    lines.flatMap(({ text, says, state }) => (state === 'translated' ? [[text, says] as const] : [])),
  );
  return (
    <ul className="mt-3">
      {lines.map((line) => (
        <Line
          key={line.id}
          {...{ line, language }}
          same={line.state === 'missing' ? elsewhere.get(line.text) : undefined}
          put={(says) => put(line, says)}
        />
      ))}
    </ul>
  );
}

/** The lines that a text takes at about 40 signs each. */
const rowsFor = (text: string): number =>
  Math.min(
    10,
    text.split('\n').reduce((rows, line) => rows + Math.max(1, Math.ceil(line.length / 40)), 0),
  );

function Line({
  line,
  language,
  same,
  put,
}: {
  readonly line: TextLine;
  readonly language: Language;
  /** What the same text is said as elsewhere. */
  readonly same: string | undefined;
  readonly put: (says: string) => void;
}) {
  const id = useId();
  const { text, caption, state, says, of } = line;
  const isLong = text.length > 70 || text.includes('\n');
  const about = {
    ...{ id, lang: language, className: 'input', value: says },
    'aria-label': say('languages:inLanguage', { text: text.slice(0, 80), language: LANGUAGE_NAMES[language] }),
    'aria-invalid': state === 'unfit',
    'aria-describedby': state === 'outdated' || state === 'unfit' ? `${id}-was` : undefined,
  };
  return (
    <li className="grid grid-cols-2 gap-x-5 border-t border-rule py-2.5">
      <p className="whitespace-pre-line">
        <span className="block text-[12.5px] text-soft">{caption}</span>
        {text}
      </p>
      <div className="pt-[18px]">
        {isLong ? (
          <textarea
            {...about}
            rows={rowsFor(says.length > text.length ? says : text)}
            onChange={({ target }) => put(target.value)}
          />
        ) : (
          <input {...about} onChange={({ target }) => put(target.value)} />
        )}
        {state === 'outdated' ? (
          <p id={`${id}-was`} className="mt-1 text-[13px] text-soft">
            {say('languages:wasOf', { text: of })}{' '}
            <button type="button" className="text-green underline" onClick={() => put(says)}>
              {say('languages:stillRight')}
            </button>
          </p>
        ) : null}
        {state === 'unfit' ? (
          <p id={`${id}-was`} className="mt-1 text-[13px] text-brick">
            {say('languages:beyond', { names: namedBeyond(says, text).map((name) => `{${name}}`) })}
          </p>
        ) : null}
        {state === 'missing' && same === undefined && !isLong ? (
          <button type="button" className="mt-1 text-[13px] text-green underline" onClick={() => put(text)}>
            {say('languages:asItIs')}
          </button>
        ) : null}
        {same === undefined ? null : (
          <button type="button" className="mt-1 text-[13px] text-green underline" onClick={() => put(same)}>
            {say('languages:takeSame', { says: same.length > 40 ? `${same.slice(0, 40)} …` : same })}
          </button>
        )}
      </div>
    </li>
  );
}

/**
 * What is still to do, or all: what was to do when one began stays in its place while it is typed, so that nothing jumps away
 * under the hands.
 */
export function useWhatIsLeft<Each extends TextLine>(lines: readonly Each[]) {
  const [isAll, setAll] = useState(() => lines.every(({ state }) => state === 'translated'));
  const [left, setLeft] = useState<ReadonlySet<string> | null>(null);
  const now = lines.flatMap(({ id, state }) => (state === 'translated' ? [] : [id]));
  const shownIds = left ?? new Set(now);
  return {
    isAll,
    shown: isAll ? lines : lines.filter(({ id }) => shownIds.has(id) || now.includes(id)),
    show: (all: boolean): void => {
      setAll(all);
      setLeft(null);
    },
    /** To be called before something is typed. */
    hold: (): void => setLeft((before) => before ?? new Set(now)),
    done: lines.length - now.length,
  };
}
