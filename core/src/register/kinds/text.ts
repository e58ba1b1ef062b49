import { said } from '@tolvek/words';
import type { RawAnswer } from '../field.ts';
import { EMPTY, isBlank, type KindWork, type ReadAnswer, TEXT_WORK, wrong } from './kind.ts';

const read = (raw: RawAnswer, most: number): ReadAnswer => {
  if (isBlank(raw)) return EMPTY;
  if (typeof raw !== 'string') return wrong(said('answers:mustBeText'), said('answers:typeWords'));
  const value = withoutControls(raw.replace(/\r\n?/g, '\n')).trim().normalize('NFC');
  const length = value.length > most ? [...value].length : 0;
  if (length > most)
    return wrong(said('answers:tooLong', { length, most }), said('answers:shortenBy', { n: length - most }));
  return { state: 'value', value };
};

// biome-ignore lint/suspicious/noControlCharactersInRegex: these are what is looked for
const CONTROLS = /[\u0000-\u001f]/;

/** Signs that can’t be seen and mean nothing in an answer, save for line breaks and tabs. */
const withoutControls = (value: string): string =>
  !CONTROLS.test(value) ? value : [...value].filter((sign) => sign >= ' ' || sign === '\n' || sign === '\t').join('');

export const text: KindWork<'text'> = {
  ...TEXT_WORK,
  read: (raw, type) => {
    const result = read(raw, type.most ?? 200);
    return result.state === 'value' && String(result.value).includes('\n')
      ? wrong(said('answers:oneLine'), said('answers:removeBreak'))
      : result;
  },
};

export const longText: KindWork<'long-text'> = {
  ...TEXT_WORK,
  read: (raw, type) => read(raw, type.most ?? 5_000),
};
