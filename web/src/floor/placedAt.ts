/** Where one is on a page, as its address says it: what is null is not said. */
export function placedAt(before: URLSearchParams, changes: Readonly<Record<string, string | null>>): URLSearchParams {
  const after = new URLSearchParams(before);
  for (const [name, value] of Object.entries(changes)) {
    if (value === null) after.delete(name);
    else after.set(name, value);
  }
  return after;
}
