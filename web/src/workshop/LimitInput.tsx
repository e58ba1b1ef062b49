/** A number that may be left out. */
export function LimitInput({
  label,
  value,
  set,
  width = 'w-24',
}: {
  label: string;
  value: number | undefined;
  set: (value: number | undefined) => void;
  width?: string;
}) {
  return (
    <label className="flex items-center gap-2">
      {label}{' '}
      <input
        className={`input ${width}`}
        inputMode="decimal"
        defaultValue={value ?? ''}
        onChange={(event) => {
          const typed = event.target.value.trim();
          if (typed === '') set(undefined);
          else if (Number.isFinite(Number(typed))) set(Number(typed));
        }}
      />
    </label>
  );
}

/** Settings without those that were left out. */
export function without<T extends object>(settings: T): T {
  return Object.fromEntries(Object.entries(settings).filter(([, value]) => value !== undefined)) as T;
}
