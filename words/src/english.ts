import { all } from './all.ts';
import type { Words } from './said.ts';
import { addTexts, newTexts, speech } from './speech.ts';

const texts = newTexts('en');
addTexts(texts, 'en', all.en);
const { told } = speech(texts, () => ({ language: 'en', zone: 'Europe/Dublin', desk: 'desk@skerrow.example' }));

/** What was said as codes, anywhere in a value, in English: for tests, and for logs that operators read. */
// biome-ignore lint/suspicious/noExplicitAny: it has the shape of what it was said in.
export const english = (value: unknown): any => spoken(value);

function spoken(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(spoken);
  if (typeof value !== 'object' || value === null) return value;
  if (
    'say' in value &&
    typeof value.say === 'string' &&
    Object.keys(value).every((key) => key === 'say' || key === 'with')
  )
    return told(value as Words);
  if (Object.getPrototypeOf(value) !== Object.prototype) return value;
  return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, spoken(each)]));
}
