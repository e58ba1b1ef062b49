import { all } from '@tolvek/words/all';
import { addTexts, LANGUAGES, newTexts, type Speech, speech } from '@tolvek/words/speech';

const speakers: Readonly<Record<string, Speech>> = Object.fromEntries(
  LANGUAGES.map((language) => {
    const texts = newTexts(language);
    addTexts(texts, language, all[language]);
    return [language, speech(texts, () => ({ language, zone: 'Europe/Dublin', desk: 'desk@skerrow.example' }))];
  }),
);

/** What people never read: a validator’s words, a path into what was sent, a key, a place not filled. */
const RAW =
  /invalid input|expected (string|number|array|object|boolean)|undefined|\[object|\{\{|^[a-z]\w+:[a-z][\w.]+$/i;

/**
 * What is wrong with a refusal (a problem document) as somebody reads it; nothing where it has its three parts
 * in every language.
 *
 * @param language The one that was asked for.
 */
// biome-ignore lint/suspicious/noExplicitAny: whatever was answered is looked at.
export function faults(document: any, language: string): readonly string[] {
  const found: string[] = [];
  const read = (name: string, words: unknown, speaker: Speech | undefined): void => {
    const text = speaker?.told(words as string) ?? '';
    if (text.trim() === '') found.push(`${name} is empty`);
    // What a coordinator wrote is theirs.
    else if (typeof words !== 'string' && !/[.?]["”“]?$/.test(text.trim()))
      found.push(`${name} is no sentence: ${text}`);
    if (RAW.test(text)) found.push(`${name} is raw: ${text}`);
  };
  for (const each of LANGUAGES)
    for (const part of ['happened', 'saved', 'now']) read(`${part} (${each})`, document.said?.[part], speakers[each]);
  for (const problem of document.problems ?? [])
    for (const each of LANGUAGES) {
      read(`the message of ${problem.field} (${each})`, problem.message, speakers[each]);
      read(`the fix of ${problem.field} (${each})`, problem.fix, speakers[each]);
    }
  // Who has no catalogue reads the same in the language that was asked for.
  const speaker = speakers[language];
  if (document.title !== speaker?.told(document.said?.happened)) found.push(`the title is not in ${language}`);
  if (document.detail !== `${speaker?.told(document.said?.saved)} ${speaker?.told(document.said?.now)}`)
    found.push(`the detail is not in ${language}`);
  return found;
}
