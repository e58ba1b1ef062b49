import { blankDesign, type FormDesign } from '@tolvek/core/form';
import {
  type Field,
  KIND_NAMES,
  type Kind,
  type KindName,
  type RawAnswer,
  type SingleKind,
} from '@tolvek/core/register';
import { people } from '@tolvek/server/schema';
import { english } from '@tolvek/words/english';
import type { Caller, Desk } from './desk.ts';
import { CASES, MEANINGLESS, type Place } from './kindMatrix.ts';

/** The key of the field of a kind, in the form of all kinds. */
export const keyOf = (kind: KindName): string => `f${KIND_NAMES.indexOf(kind)}`;
/** Tells whether a kind makes sense in a place. */
export const has = (kind: KindName, place: Place): boolean => MEANINGLESS[kind]?.[place] === undefined;

/** One form with a field of every kind, and around each of them a rule, a formula, a default, a column. */
export class AllKinds {
  private constructor(
    private readonly ids: ReadonlyMap<string, string>,
    private ref: string,
  ) {}

  /** Makes the form at a desk, releases it, and sends the file for its answers. */
  static async make(desk: Desk, maren: Caller, asking: Caller): Promise<AllKinds> {
    const named = desk.running.house.db.select({ id: people.id, name: people.name }).from(people).all();
    const all = new AllKinds(new Map([...named.map((row) => [row.name, row.id] as const), ...desk.things()]), '');
    const made = await maren.call('createForm', {
      headers: { 'Idempotency-Key': 'form-of-all-kinds' },
      body: { prefix: 'KD', desk: 'estates', doors: { staff: true, outside: false }, draft: all.design() },
    });
    if (made.status !== 200) throw new Error(made.text);
    const releasing = { params: { key: 'all-kinds' }, headers: { 'If-Match': '"1"' }, body: { note: '' } };
    await maren.call('releaseForm', releasing);
    await all.sendFile(desk, asking);
    return all;
  }

  /** Sends a file along for the next request. */
  async sendFile(desk: Desk, asking: Caller): Promise<void> {
    const sent = await fetch(`${desk.running.url}/api/doors/all-kinds/uploads?field=${keyOf('files')}&name=plan.txt`, {
      method: 'POST',
      headers: { cookie: asking.cookie },
      body: 'A plan.',
    });
    this.ref = ((await sent.json()) as { ref: string }).ref;
  }

  /** A text with people and things by their ids, and `F` by the field. */
  put(text: string, kind: KindName): string {
    return text
      .replace(/[@&]([A-Z][\w-]+(?: [A-Z][\w-]+)?)/g, (_, name: string) => this.ids.get(name) ?? '')
      .replace(/\bF\b/g, keyOf(kind));
  }

  /** An answer with people, things and the file as they are known here. */
  answer(raw: RawAnswer): RawAnswer {
    const named = (text: string): string =>
      /^[@&]/.test(text) ? (this.ids.get(text.slice(1)) ?? '') : text.startsWith('#') ? this.ref : text;
    if (typeof raw === 'string') return named(raw);
    if (!Array.isArray(raw)) return raw;
    return (raw as readonly unknown[]).map((each) =>
      typeof each === 'string' ? named(each) : each,
    ) as unknown as RawAnswer;
  }

  /** Answers to every question. */
  answers(): Readonly<Record<string, unknown>> {
    const of = <T>(place: Place, value: (kind: KindName) => readonly [string, T]) =>
      Object.fromEntries(KIND_NAMES.filter((kind) => has(kind, place)).map(value));
    return {
      ...of('form', (kind) => [keyOf(kind), this.answer(CASES[kind].typed)]),
      ...of('rule', (kind) => [`r_${keyOf(kind)}`, `after ${kind}`]),
      lines: [of('line items', (kind) => [keyOf(kind), CASES[kind].typed])],
    };
  }

  /** The form itself. */
  design(): FormDesign {
    const asked = KIND_NAMES.map(
      (kind): Field => ({
        key: keyOf(kind),
        label: `A ${kind}`,
        type: CASES[kind].type,
        source: kind === 'running-number' ? 'given' : 'asked',
      }),
    );
    const defaults = KIND_NAMES.filter((kind) => has(kind, 'default')).map(
      (kind): Field => ({
        key: `d_${keyOf(kind)}`,
        label: `Default ${kind}`,
        type: CASES[kind].type,
        source: 'desk-only',
        preset: { from: 'fixed', value: this.answer(CASES[kind].typed) },
      }),
    );
    const formulas = KIND_NAMES.filter((kind) => has(kind, 'formula')).map(
      (kind): Field => ({
        key: `c_${keyOf(kind)}`,
        label: `Computed ${kind}`,
        type: YES_NO,
        source: 'computed',
        formula: this.put(CASES[kind].condition, kind),
      }),
    );
    const columns = KIND_NAMES.filter((kind) => has(kind, 'line items')).map((kind) => ({
      key: keyOf(kind),
      label: kind,
      type: CASES[kind].type as SingleKind,
      required: false,
    }));
    const lines: Field = {
      key: 'lines',
      label: 'Lines of all',
      type: { kind: 'line-items', columns },
      source: 'asked',
    };
    const follow = KIND_NAMES.filter((kind) => has(kind, 'rule')).map(
      (kind): Field => ({ key: `r_${keyOf(kind)}`, label: `After ${kind}`, type: { kind: 'text' }, source: 'asked' }),
    );
    const fields = [...asked, lines, ...follow, ...defaults, ...formulas];
    return {
      ...blankDesign({
        told: english,
        title: 'All kinds',
        team: 'estates',
        approvers: 'duty-managers',
        calendar: 'desk',
      }),
      subject: KIND_NAMES.map((kind) => `{${keyOf(kind)}}`).join(' '),
      fields,
      parts: fields
        .filter((field) => field.source === 'asked')
        .map((field) => ({ part: 'question', field: field.key, asks: '', help: '', required: false })),
      rules: KIND_NAMES.filter((kind) => has(kind, 'rule')).map((kind) => ({
        id: `rule-${kind}`,
        name: `Rule ${kind}`,
        says: '',
        when: this.put(CASES[kind].condition, kind),
        then: [{ do: 'show', parts: [`r_${keyOf(kind)}`] }],
        otherwise: [],
        on: true,
        runs: 'filling',
      })),
      routing: {
        columns: KIND_NAMES.map((kind) => ({ id: `col-${kind}`, label: kind, input: keyOf(kind) })),
        rows: [
          {
            id: 'all',
            note: 'Every column asks for something',
            cells: Object.fromEntries(KIND_NAMES.map((kind) => [`col-${kind}`, this.put(CASES[kind].cell, kind)])),
            outcome: { team: 'boats', priority: 'high', workingDays: 1, path: null },
          },
        ],
        otherwise: { team: 'estates', priority: 'low', workingDays: 9, path: null },
      },
    };
  }
}

const YES_NO: Kind = { kind: 'yes-no' };
