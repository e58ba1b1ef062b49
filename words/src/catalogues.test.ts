import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as de from './de/index.ts';
import * as en from './en/index.ts';
import { WAY_NAMES } from './refusal.ts';
import { addTexts, newTexts, speech } from './speech.ts';

type Texts = Readonly<Record<string, string>>;
const BOTH = { en, de } as unknown as Readonly<Record<'en' | 'de', Readonly<Record<string, Texts>>>>;

/** Every text of a language, by its key. */
const textsOf = (language: 'en' | 'de'): readonly (readonly [key: string, text: string])[] =>
  Object.entries(BOTH[language]).flatMap(([area, texts]) =>
    Object.entries(texts).map(([name, text]) => [`${area}:${name}`, text] as const),
  );
const places = (text: string): readonly string[] =>
  [...text.matchAll(/\{\{([^},]+)/g)].map(([, name]) => name ?? '').sort();
/** Texts without what is filled in. */
const bare = (text: string): string => text.replace(/\{\{[^}]*\}\}/g, '…');

describe('the catalogues', () => {
  it('have the same keys in every language, each with the same places', () => {
    const [english, german] = [new Map(textsOf('en')), new Map(textsOf('de'))];
    expect([...german.keys()].sort()).toEqual([...english.keys()].sort());
    const apart = [...english].filter(([key, text]) => {
      const other = german.get(key) ?? '';
      return new Set([...places(text), ...places(other)]).size !== new Set(places(text)).size;
    });
    // A text that counts need not say the number where it is one.
    const missing = [...english].filter(
      ([key, text]) =>
        !key.endsWith('_one') && new Set(places(text)).size !== new Set(places(german.get(key) ?? '')).size,
    );
    console.log(`${english.size} texts in each of ${Object.keys(BOTH).length} languages`);
    expect([apart.map(([key]) => key), missing.map(([key]) => key)]).toEqual([[], []]);
  });

  it('have both forms of each text that counts', () => {
    for (const language of ['en', 'de'] as const) {
      const keys = new Set(textsOf(language).map(([key]) => key));
      const halves = [...keys].filter(
        (key) =>
          (key.endsWith('_one') && !keys.has(key.replace(/_one$/, '_other'))) ||
          (key.endsWith('_other') && !keys.has(key.replace(/_other$/, '_one'))),
      );
      expect(halves).toEqual([]);
    }
  });

  it('say each refusal in three parts: what happened, what is saved, what to do now', () => {
    for (const language of ['en', 'de'] as const) {
      const texts = BOTH[language].refusals ?? {};
      const names = new Set(Object.keys(texts).map((key) => key.replace(/\.(happened|saved|now)(_one|_other)?$/, '')));
      const parts = (name: string) =>
        ['happened', 'saved', 'now'].filter((part) =>
          ['', '_one', '_other'].some((form) => (texts[`${name}.${part}${form}`] ?? '') !== ''),
        );
      const short = [...names].filter(
        (name) => !WAY_NAMES.some((way) => name.startsWith(`way.${way}`)) && parts(name).length < 3,
      );
      expect([language, short.filter((name) => !name.startsWith('way'))]).toEqual([language, []]);
      expect(names.size).toBeGreaterThan(40);
    }
  });
});

/**
 * What the guide settles against, as whole words of English texts. Each exception stands with its
 * reason; the list only gets shorter.
 */
const AGAINST: readonly (readonly [word: string, pattern: RegExp])[] = [
  ['letter', /\bletters?\b/i],
  ['take away, take out, take in', /\btak(e|es|en|ing) (it |them )?(away|out|in|off|along)\b/i],
  ['mend', /\bmend(s|ed|ing)?\b/i],
  ['answerable', /\banswerable\b/i],
  ['figures', /\bfigures?\b/i],
  ['go on', /\b(go|goes|going|gone|went) on\b/i],
  ['keep, kept', /\b(keep|kept|keeps|keeping)\b/i],
  ['who asks', /\bwho(ever)? asks?\b/i],
  ['holds', /\bholds\b/i],
  ['bring along', /\bbr(ing|ings|ought) along\b/i],
  ['given out', /\bgiven out\b/i],
  ['desk-only', /\bdesk-only\b/i],
  ['exclamation mark', /!/],
];
const because = (reason: string, keys: readonly string[]): Readonly<Record<string, string>> =>
  Object.fromEntries(keys.map((key) => [key, reason]));
const EXCEPTIONS: Readonly<Record<string, string>> = {
  ...because('letters of the alphabet', [
    'answers:nameSigns',
    'designs:thePrefix',
    'refusals:keyMissing.now',
    'wire:keySigns',
    'wire:fieldKeySigns',
    'wire:prefixSigns',
    'wire:slugSigns',
    'workshop:twoToFive',
    'workshop:stateHint',
    'workshopErrors:otherLetters',
    'workshopErrors:otherLettersStay',
  ]),
  ...because('a sign of the expressions', ['expressions:noOrder']),
  ...because('what stays as it is, and is not saved anew', [
    'changes:fieldGone',
    'designs:bothChanged',
    'workshop:recompute.keep',
    'workshop:hasLeft',
    'workshop:fieldUnused',
    'workshop:requestsKeep',
    'workshop:computedStopped_one',
    'workshop:computedStopped_other',
    'workshop:computedFailed_one',
    'workshop:computedFailed_other',
    'workshopErrors:keepKind',
    'workshopErrors:askReader',
    'workshopErrors:correctAnswers',
    'workshopErrors:keepColumnKind',
  ]),
};

/** Words of the desk that neither the Front desk nor an email says. */
const INSIDE = /\b(doors?|registers?|release[sd]?|rows?|desk-only|stages?)\b/i;
const OUTSIDE_AREAS = ['desk', 'emails', 'answers', 'doors'];
/** Where such a word is said all the same, with the reason. */
const OF_THE_WORKSHOP = 'said in the Workshop, of a change of a door';
const INSIDE_EXCEPTIONS: Readonly<Record<string, string>> = {
  'desk:pasteLines': 'rows of a spreadsheet',
  ...Object.fromEntries(
    [
      'staffDoor',
      'outsideDoor',
      'isOpen',
      'theOpening',
      'theClosing',
      'theMessage',
      'theDoor',
      'noName',
      'closesFirst',
    ].map((name) => [`doors:${name}`, OF_THE_WORKSHOP]),
  ),
};

describe('the English texts', () => {
  const texts = textsOf('en');

  it('use none of the words that were settled against', () => {
    const found = texts
      .filter(([key]) => !Object.hasOwn(EXCEPTIONS, key))
      .flatMap(([key, text]) =>
        AGAINST.filter(([, pattern]) => pattern.test(bare(text))).map(([word]) => `${key} says “${word}”: ${text}`),
      );
    expect(found).toEqual([]);
    // Each exception is one still.
    const idle = Object.keys(EXCEPTIONS).filter(
      (key) => !AGAINST.some(([, pattern]) => pattern.test(bare(new Map(texts).get(key) ?? ''))),
    );
    expect(idle).toEqual([]);
  });

  it('say no word of the desk at the Front desk and in emails', () => {
    const found = texts
      .filter(([key]) => OUTSIDE_AREAS.includes(key.split(':')[0] ?? ''))
      .filter(([key, text]) => INSIDE.test(bare(text)) && !Object.hasOwn(INSIDE_EXCEPTIONS, key))
      .map(([key, text]) => `${key}: ${text}`);
    expect(found).toEqual([]);
  });

  it('are sentences of at most 25 words, and of 14 on average', () => {
    const lengths = texts.flatMap(([key, text]) =>
      bare(text)
        .split(/(?<=[.?])\s+/)
        .filter((sentence) => /[.?]$/.test(sentence))
        .map((sentence) => ({ key, sentence, words: sentence.split(/\s+/).length })),
    );
    const average = lengths.reduce((sum, { words }) => sum + words, 0) / lengths.length;
    console.log(`${lengths.length} sentences, ${average.toFixed(1)} words on average`);
    expect(lengths.filter(({ words }) => words > 25)).toEqual([]);
    expect(average).toBeLessThan(14);
  });
});

/** What a finding’s last sentence asks for: a step, begun by its verb. */
const STEP =
  /^(then |or |to [^,]+, )?(add|allow|ask|change|check|choose|complete|correct|delete|enter|give|leave|limit|make|move|name|open|protect|put|remove|rename|set|split|turn|use|write)\b|^did you mean/i;
/** What stands inside of a finding, or beside it. */
const PARTS = /^(findings:(aColumn|columnOf|defaultOf|byNumber|aText)|routing:(row|lastRow)|expressions:habit\..*)$/;

describe('a finding', () => {
  it('says what it means, and ends with the step that corrects it', () => {
    let looked = 0;
    for (const language of ['en', 'de'] as const) {
      const short = textsOf(language)
        .filter(([key]) => /^(findings|routing|expressions):/.test(key) && !PARTS.test(key))
        // Where another finding is told, it brings its own step.
        .filter(([, text]) => !/\{\{(message|fix)\}\}$/.test(text))
        .filter(([, text]) => {
          looked += 1;
          const sentences = bare(text).split(/(?<=[.?]["”“]?)\s+/);
          const last = sentences.at(-1) ?? '';
          const isStep = language === 'en' ? STEP.test(last) : /\bSie\b/.test(last);
          return sentences.length < 2 || !isStep;
        })
        .map(([key, text]) => `${key}: ${text}`);
      expect([language, short]).toEqual([language, []]);
    }
    console.log(`${looked} texts of findings`);
    expect(looked).toBeGreaterThan(200);
  });
});

describe('what is filled in', () => {
  const said = { en: newTexts('en'), de: newTexts('de') } as const;
  addTexts(said.en, 'en', BOTH.en);
  addTexts(said.de, 'de', BOTH.de);

  it('stays as it was typed, whatever signs of templates, keys or markup it has', () => {
    const typed = fc.oneof(
      fc.string(),
      fc.constantFrom(
        '{{label}}',
        '$t(common:save)',
        '{{count, number}}',
        '<b>x</b>',
        'common:save',
        '$& $1',
        '”“',
        '&amp;',
      ),
      fc
        .array(fc.constantFrom('{{', '}}', '$t(', ')', ',', 'label', '<', '>', '&', ' '), { maxLength: 9 })
        .map((each) => each.join('')),
    );
    fc.assert(
      fc.property(typed, typed, fc.constantFrom('en', 'de'), (from, to, language) => {
        const { say } = speech(said[language], () => ({ language, zone: 'Europe/Dublin', desk: 'desk@x.example' }));
        expect(say('history:stage', { from, to })).toBe(`${from} → ${to}`);
      }),
      { numRuns: 1_000 },
    );
  });
});
