import { conditionInWords, parseExpression } from '@tolvek/core/expression';
import { said, type Words } from '@tolvek/words';
import { profileScopeOf } from '../access/ruleWords.ts';
import { useBinder } from '../binder.ts';
import { workshopApi } from '../endpoints.ts';

/** What the words of a door’s audience are called: as the house knows them, and what has just been added. */
export function useDoorNames(known: Readonly<Record<string, Words>>): (word: string) => Words {
  const { form } = useBinder();
  const { data: ground } = workshopApi.useGroundQuery();
  const scope = profileScopeOf(ground);
  return (word) => {
    if (known[word] !== undefined) return known[word];
    const group = (ground?.groups ?? form.groups).find(({ key }) => key === word);
    if (group) return group.name;
    if (word.startsWith('@')) return '…';
    const parsed = word.startsWith('?') && scope ? parseExpression(word.slice(1)) : null;
    return parsed?.ok && scope ? said('people:whoMeets', { condition: conditionInWords(parsed.value, scope) }) : word;
  };
}
