/**
 * Where one is on a page, as its address says it by now, with some changes: what is null is not said. What a page was drawn
 * with is not asked: pressed twice in a row, the second change would take the first one back.
 */
export function placedAt(changes: Readonly<Record<string, string | null>>): URLSearchParams {
  const after = new URLSearchParams(window.location.search);
  for (const [name, value] of Object.entries(changes)) {
    if (value === null) after.delete(name);
    else after.set(name, value);
  }
  return after;
}
