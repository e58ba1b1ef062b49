import { type Said, said, type Words } from '@tolvek/words';
import { type DeadlineRule, FINISH, type Hearer, type Ring, type RingAct } from './plan.ts';

/** What a deadline is called: the finish by itself where it has no name. */
export const deadlineName = ({ key, name }: Pick<DeadlineRule, 'key' | 'name'>): Words =>
  name.trim() !== '' ? name : said(key === FINISH ? 'deadlines:finish' : 'deadlines:unnamed');

const minutes = (ms: number): { readonly minutes: number } => ({ minutes: Math.round(ms / 60_000) });

/** How long a deadline is, in words; `label`: what a field is called. */
export function lengthInWords({ length }: Pick<DeadlineRule, 'length'>, label: (field: string) => Words): Said {
  switch (length.by) {
    case 'routing':
      return said('deadlines:length.routing');
    case 'days':
      return said('deadlines:length.days', { count: length.days });
    case 'time':
      return said('deadlines:length.time', { length: minutes(length.time) });
    case 'formula':
      return said(`deadlines:length.${length.unit === 'days' ? 'formulaDays' : 'formulaHours'}`, {
        formula: length.formula,
      });
    case 'field': {
      const named = { label: label(length.field), count: Math.abs(length.days) };
      if (length.days === 0) return said('deadlines:length.onDay', { label: named.label });
      const side = length.days < 0 ? 'before' : 'after';
      return said(`deadlines:length.${side}${length.counted === 'working' ? 'Working' : ''}`, named);
    }
  }
}

/** When something rings, in words. */
export function ringInWords({ at, days }: Pick<Ring, 'at' | 'days'>): Said {
  if (days === 0) return said('deadlines:ring.onDay');
  if (days !== undefined)
    return said(`deadlines:ring.${days < 0 ? 'daysBefore' : 'daysAfter'}`, { count: Math.abs(days) });
  if (at === 0) return said('deadlines:ring.at');
  return said(`deadlines:ring.${at < 0 ? 'before' : 'after'}`, { length: minutes(Math.abs(at)) });
}

/** What the words of a ring name, as it is called now: groups, stages, paths, fields and rosters by key, people by id. */
export interface RingNames {
  readonly group: (key: string) => string;
  readonly person: (id: string) => string;
  readonly stage: (key: string) => string;
  readonly path: (id: string) => Words;
  readonly field: (key: string) => Words;
  readonly roster: (key: string) => string;
}

/** Who is told, in words. */
export function hearerInWords(hearer: Hearer, names: RingNames): Words {
  if (typeof hearer === 'string') return said(`deadlines:hears.${hearer}`);
  if ('group' in hearer) return names.group(hearer.group);
  if ('person' in hearer) return names.person(hearer.person);
  if ('duty' in hearer) return said('deadlines:hears.duty', { roster: names.roster(hearer.duty) });
  return said('deadlines:hears.field', { label: names.field(hearer.field) });
}

function actInWords(act: RingAct, names: RingNames): Said {
  switch (act.do) {
    case 'priority':
      return said(`deadlines:does.${act.to}`);
    case 'team':
      return said('deadlines:does.team', { team: names.group(act.team) });
    case 'stage':
      return said('deadlines:does.stage', { stage: names.stage(act.stage) });
    case 'decide':
      return said('deadlines:does.decide', { path: names.path(act.path) });
  }
}

/** What a ring does, in words: who is told, and what is done besides. */
export const doesInWords = ({ tells, does }: Pick<Ring, 'tells' | 'does'>, names: RingNames): readonly Said[] => [
  ...(tells.length > 0 ? [said('deadlines:tells', { who: tells.map((hearer) => hearerInWords(hearer, names)) })] : []),
  ...does.map((act) => actInWords(act, names)),
];
