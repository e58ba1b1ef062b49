import {
  CalendarDate,
  compileText,
  DateTime,
  namesIn,
  type Scope,
  type Slots,
  type Value,
} from '../expression/index.ts';
import {
  type Field,
  type FieldValue,
  isFilled,
  type Preset,
  type RequestFacts,
  readAnswer,
  valueFromExpression,
} from '../register/index.ts';

/** What stands in a field before anybody has answered, for the values of the moment. */
export type ReadyPreset = (slots: Slots, facts: RequestFacts) => FieldValue | undefined;

/** Prepares a field’s preset once. One that does not fit the field’s kind gives nothing. */
export function readyPreset(field: Field, scope: Scope): ReadyPreset | null {
  if (!isFilled(field) || !field.preset) return null;
  const { preset } = field;
  if (preset.from === 'fixed') {
    return (_, facts) => {
      const read = readAnswer(field, preset.value, facts);
      return read.state === 'value' ? read.value : undefined;
    };
  }
  const value = readyValue(preset, scope);
  return (slots, facts) => valueFromExpression(field, asWanted(field, value(slots, facts)));
}

function readyValue(
  preset: Exclude<Preset, { from: 'fixed' }>,
  scope: Scope,
): (slots: Slots, facts: RequestFacts) => Value {
  switch (preset.from) {
    case 'today':
      return (_, { today }) => CalendarDate.read(today)?.plusDays(preset.plus) ?? null;
    case 'now':
      return (_, { now }) => DateTime.read(now);
    case 'me':
      return (_, { requesterId }) => requesterId;
    case 'department':
      return (_, { department }) => (department === '' ? null : department);
    case 'field': {
      const place = scope.placeOf(preset.field);
      return (slots) => (place?.kind === 'slot' ? (slots[place.index] ?? null) : null);
    }
    case 'formula': {
      const run = compileText(preset.formula, scope);
      return (slots) => run(slots, null);
    }
  }
}

/**
 * A day where a moment is wanted begins it; one person where several are wanted is a list of one.
 */
function asWanted(field: Field, value: Value): Value {
  if (field.type.kind === 'date-time' && value instanceof CalendarDate) return new DateTime(value.day * 86_400);
  return field.type.kind === 'people' && typeof value === 'string' ? [value] : value;
}

/** The names a preset reads, for the order of computing and for circles. */
export function presetReads(preset: Preset): readonly string[] {
  if (preset.from === 'field') return [preset.field];
  return preset.from === 'formula' ? namesIn(preset.formula) : [];
}
