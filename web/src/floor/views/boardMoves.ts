import type { AnswerOf } from '@tolvek/contract';
import { type Field, type FieldValue, type RawAnswer, typedForm } from '@tolvek/core/register';
import { said, type Words } from '@tolvek/words';

type Sheet = AnswerOf<'sheet'>;
export type Value = AnswerOf<'lookAtBoard'>['columns'][number]['value'];

/** Whether something may be moved to where it has another value: `here`, yes, or why not. */
export type Way = 'here' | 'open' | { readonly whyNot: Words };

/** Where nothing says more about it. */
export const NO_WAY: Words = said('views:noWay');

/** What a value that is read by the database is in a field. */
const inField = ({ type }: Pick<Field, 'type'>, value: NonNullable<Value>): FieldValue =>
  type.kind === 'yes-no' ? value === 1 : value;

/** Whether a request may be given another value of something by whoever has its sheet, as that says. */
export function wayTo(sheet: Sheet, subject: string, { value, label }: { value: Value; label: Words }): Way {
  const open = (isOpen: boolean): Way => (isOpen ? 'open' : { whyNot: NO_WAY });
  switch (subject) {
    case 'request.stage': {
      if (sheet.stage.key === value) return 'here';
      const notNow = sheet.notNow.find((each) => each.label === label);
      if (notNow) return { whyNot: notNow.whyNot };
      return open(sheet.may.move && sheet.moves.some(({ key }) => key === value));
    }
    case 'request.handler':
      if ((sheet.handler?.id ?? null) === value) return 'here';
      return open(sheet.may.assign && (value === null || sheet.assignable.some(({ id }) => id === value)));
    case 'request.team':
      if (sheet.teams.some(({ key, here }) => here && key === value)) return 'here';
      return open(sheet.teams.some(({ key }) => key === value));
    case 'request.priority':
      if (sheet.priority === value) return 'here';
      return open(sheet.teams.length > 0 && sheet.priority !== null && value !== null);
    default: {
      const field = sheet.values.fields.find(({ key }) => key === subject);
      const type = sheet.fieldTypes[subject];
      if (!field || !type) return { whyNot: NO_WAY };
      const is = value === null ? null : inField({ type }, value);
      if (is === (field.value ?? null)) return 'here';
      return field.writable ? 'open' : { whyNot: field.why ?? NO_WAY };
    }
  }
}

/** What is asked of the desk to give a request another value of something. */
export type Move =
  | { readonly does: 'moveStage'; readonly body: { readonly stage: string } }
  | { readonly does: 'assign'; readonly body: { readonly person: string | null } }
  | {
      readonly does: 'reroute';
      readonly body: { readonly team: string; readonly priority: NonNullable<Sheet['priority']> };
    }
  | { readonly does: 'changeFields'; readonly body: { readonly changes: Readonly<Record<string, RawAnswer>> } };

export function moveTo(sheet: Sheet, subject: string, value: Value): Move {
  const here = sheet.teams.find((team) => team.here)?.key ?? '';
  const priority = sheet.priority ?? 'normal';
  switch (subject) {
    case 'request.stage':
      return { does: 'moveStage', body: { stage: String(value) } };
    case 'request.handler':
      return { does: 'assign', body: { person: value === null ? null : String(value) } };
    case 'request.team':
      return { does: 'reroute', body: { team: String(value), priority } };
    case 'request.priority':
      return { does: 'reroute', body: { team: here, priority: value as NonNullable<Sheet['priority']> } };
    default: {
      const type = sheet.fieldTypes[subject];
      const raw = value === null || !type ? null : typedForm({ type }, inField({ type }, value));
      return { does: 'changeFields', body: { changes: { [subject]: raw ?? '' } } };
    }
  }
}
