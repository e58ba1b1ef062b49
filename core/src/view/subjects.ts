import { type Said, said, type Words } from '@tolvek/words';
import type { Field, Kind } from '../register/index.ts';
import { isFact, type ViewFact } from './view.ts';

/** What a fact holds. */
const FACT_KINDS: Readonly<Record<ViewFact, 'text' | 'person' | 'choice' | 'date-time'>> = {
  'request.number': 'text',
  'request.subject': 'text',
  'requester.person': 'person',
  'request.form': 'choice',
  'request.stage': 'choice',
  'request.team': 'choice',
  'request.handler': 'person',
  'request.priority': 'choice',
  'request.arrived': 'date-time',
  'request.due': 'date-time',
  'request.finished': 'date-time',
};

/** Of what kind something that a view names is; null for what is not there. */
export const kindIn = (subject: string, fields: readonly Pick<Field, 'key' | 'type'>[]): Kind['kind'] | null =>
  isFact(subject) ? FACT_KINDS[subject] : (fields.find(({ key }) => key === subject)?.type.kind ?? null);

/** What facts are called. */
const FACT_WORDS: Readonly<Record<ViewFact, Said>> = {
  'request.number': said('views:fact.number'),
  'request.subject': said('views:fact.subject'),
  'requester.person': said('views:fact.requester'),
  'request.form': said('views:fact.form'),
  'request.stage': said('views:fact.stage'),
  'request.team': said('views:fact.team'),
  'request.handler': said('views:fact.handler'),
  'request.priority': said('views:fact.priority'),
  'request.arrived': said('views:fact.arrived'),
  'request.due': said('views:fact.due'),
  'request.finished': said('views:fact.finished'),
};

/** What something that a view names is called; its key where it is not there. */
export const calledIn = (subject: string, fields: readonly Pick<Field, 'key' | 'label'>[]): Words =>
  isFact(subject) ? FACT_WORDS[subject] : (fields.find(({ key }) => key === subject)?.label ?? subject);

const GROUPED: ReadonlySet<string> = new Set<Kind['kind']>([
  ...(['choice', 'level', 'term', 'yes-no', 'person', 'reference', 'date', 'date-time'] as const),
]);
const BOARDED: ReadonlySet<string> = new Set<Kind['kind']>([
  ...(['choice', 'level', 'term', 'yes-no', 'person', 'reference'] as const),
]);
const DATED: ReadonlySet<string> = new Set<Kind['kind']>(['date', 'date-time']);
const ORDERED: ReadonlySet<string> = new Set<Kind['kind']>([
  ...(['text', 'number', 'money', 'duration', 'date', 'date-time', 'yes-no', 'email', 'choice', 'level'] as const),
  ...(['term', 'person', 'reference', 'running-number'] as const),
]);
const SUMMED: ReadonlySet<string> = new Set<Kind['kind']>(['number', 'money', 'duration']);

/** Whether rows can be put together by it: it holds one thing, and few different ones. */
export const canGroup = (subject: string, fields: readonly Field[]): boolean =>
  subject !== 'request.number' && subject !== 'request.subject' && GROUPED.has(kindIn(subject, fields) ?? '');

/** Whether it makes columns or lanes of a board, or lines of a calendar: few values, and no days. */
export const canBoard = (subject: string, fields: readonly Field[]): boolean =>
  canGroup(subject, fields) && BOARDED.has(kindIn(subject, fields) ?? '');

/** Whether it stands on a day. */
export const canDate = (subject: string, fields: readonly Field[]): boolean => DATED.has(kindIn(subject, fields) ?? '');

/** Whether it holds a figure that can be compared: also a level, which is not added up. */
export const canMeasure = (subject: string, fields: readonly Field[]): boolean =>
  canSum(subject, fields) || (!isFact(subject) && kindIn(subject, fields) === 'level');

/** Whether rows can be put in order by it. What a request is called is made for each reader, and is in no order. */
export const canOrder = (subject: string, fields: readonly Field[]): boolean =>
  subject !== 'request.subject' && ORDERED.has(kindIn(subject, fields) ?? '');

/** Whether it is added up, in each group and in all. */
export const canSum = (subject: string, fields: readonly Field[]): boolean =>
  !isFact(subject) && SUMMED.has(kindIn(subject, fields) ?? '');

/** Whether it holds pictures. */
export const canPicture = (subject: string, fields: readonly Pick<Field, 'key' | 'type'>[]): boolean =>
  fields.some(({ key, type }) => key === subject && type.kind === 'files' && type.only === 'pictures');

const OWN: ReadonlySet<string> = new Set<Kind['kind']>(['choice', 'level', 'term', 'yes-no', 'reference']);

/** How an order goes, by what is put in order: “earliest first”. */
export type OrderWay = 'time' | 'size' | 'own' | 'letters';
export function orderWay(subject: string, fields: readonly Field[]): OrderWay {
  const kind = kindIn(subject, fields);
  if (kind === 'date' || kind === 'date-time') return 'time';
  if (kind === 'number' || kind === 'money' || kind === 'duration') return 'size';
  if (subject === 'request.team' || subject === 'request.form') return 'letters';
  // A thing that is referred to stands by its number, a term as in its vocabulary.
  return OWN.has(kind ?? '') ? 'own' : 'letters';
}
