import { said } from '@tolvek/words';
import type { Level } from '../field.ts';
import { EMPTY, isBlank, type KindWork, wrong } from './kind.ts';

const levelOf = (levels: readonly Level[], worth: unknown): Level | undefined =>
  levels.find((each) => each.worth === worth);

/**
 * A step of an ordered scale, stored and compared by its worth: “at least” is then plain
 * arithmetic, and a level added in the middle takes a worth between its neighbours, so that no
 * condition written before means something else.
 */
export const level: KindWork<'level'> = {
  read: (raw, type) => {
    if (isBlank(raw)) return EMPTY;
    const found = type.levels.find((each) => each.worth === raw || String(each.worth) === raw || each.label === raw);
    if (!found) return wrong(said('answers:notALevel'), said('answers:chooseLevel'));
    if (found.retired) return wrong(said('answers:optionRetired', { label: found.label }), said('answers:chooseLevel'));
    return { state: 'value', value: found.worth };
  },
  show: (value, type) => levelOf(type.levels, value)?.label ?? String(value),
  typed: (value) => Number(value),
  toExpression: (value) => Number(value),
  fromExpression: (value, type) => levelOf(type.levels, value)?.worth,
  scopeType: ({ levels }) => ({
    kind: 'number',
    places: 0,
    least: Math.min(...levels.map((each) => each.worth)),
    most: Math.max(...levels.map((each) => each.worth)),
    names: levels.map((each) => ({ key: String(each.worth), label: each.label })),
  }),
  stored: () => ({ ordered: true, written: (value) => (typeof value === 'number' ? value : undefined) }),
};
