import { ProblemsAt } from '../../ui/ProblemsAt.tsx';

interface RetiredBoxProps<D> {
  readonly label: string;
  readonly draft: D;
  readonly change: (edit: (before: D) => D) => void;
  readonly error: unknown;
}

/** Whether something is retired, with why it can’t be. */
export function RetiredBox<D extends { readonly retired?: boolean | undefined }>({
  label,
  draft,
  change,
  error,
}: RetiredBoxProps<D>) {
  return (
    <>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="accent-green"
          checked={draft.retired ?? false}
          onChange={({ target }) =>
            change(({ retired: _, ...rest }) => (target.checked ? { ...rest, retired: true } : rest) as D)
          }
        />
        {label}
      </label>
      <ProblemsAt error={error} field="retired" />
    </>
  );
}
