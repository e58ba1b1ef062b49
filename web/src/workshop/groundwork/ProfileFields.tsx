import type { RawAnswers } from '@tolvek/core/register';
import { profileFieldsOf } from '@tolvek/core/settings';
import { AroundFieldsProvider, NOTHING_KNOWN } from '../../fields/input.ts';
import { FieldInput } from '../../fields/inputs.tsx';
import { Line } from '../../ui/Line.tsx';
import { groundApi } from './endpoints.ts';

interface ProfileFieldsProps {
  readonly kind: 'staff' | 'contact';
  readonly typed: RawAnswers;
  readonly set: (typed: RawAnswers) => void;
  readonly error: unknown;
  /** Whether what a directory fills in is changed there. */
  readonly isKept?: boolean;
}

/** The fields of somebody’s profile, to be filled in. */
export function ProfileFields({ kind, typed, set, error, isKept = false }: ProfileFieldsProps) {
  const { data } = groundApi.useProfileQuery();
  if (!data) return null;
  return (
    <AroundFieldsProvider value={{ ...NOTHING_KNOWN, ...data }}>
      {profileFieldsOf(data, kind).map((field) => (
        <Line
          key={field.key}
          id={`profile-${field.key}`}
          label={field.label}
          error={error}
          field={`profile.${field.key}`}
        >
          {(about) => (
            <FieldInput
              id={about.id}
              field={field}
              value={typed[field.key] ?? null}
              onChange={(value) => set({ ...typed, [field.key]: value })}
              describedBy={about['aria-describedby']}
              invalid={about['aria-invalid']}
              disabled={isKept && field.directory !== undefined}
            />
          )}
        </Line>
      ))}
    </AroundFieldsProvider>
  );
}
