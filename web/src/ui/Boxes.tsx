interface BoxesProps<K extends string> {
  readonly all: readonly { readonly key: K; readonly label: string }[];
  readonly chosen: readonly string[];
  readonly toggle: (key: K) => void;
}

/** Some of a few, each with a box to tick. */
export const Boxes = <K extends string>({ all, chosen, toggle }: BoxesProps<K>) => (
  <span className="flex flex-wrap gap-x-5 gap-y-1">
    {all.map(({ key, label }) => (
      <label key={key} className="flex min-h-[24px] items-center gap-2">
        <input type="checkbox" className="accent-green" checked={chosen.includes(key)} onChange={() => toggle(key)} />
        {label}
      </label>
    ))}
  </span>
);
