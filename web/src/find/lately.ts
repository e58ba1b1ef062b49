/** Texts that are kept. */
const MOST = 6;
/** Where they are kept: as long as the page’s window is open, for each person by themselves. */
const placeOf = (personId: string): string => `tolvek-found-${personId}`;

/** What somebody looked for lately, the last first. */
export function latelyOf(personId: string): readonly string[] {
  try {
    const kept: unknown = JSON.parse(sessionStorage.getItem(placeOf(personId)) ?? '[]');
    return Array.isArray(kept) ? kept.filter((each) => typeof each === 'string').slice(0, MOST) : [];
  } catch {
    return [];
  }
}

/** Keeps what somebody looked for and found. */
export function addLately(personId: string, text: string): void {
  if (text === '') return;
  const others = latelyOf(personId).filter((each) => each.toLowerCase() !== text.toLowerCase());
  try {
    sessionStorage.setItem(placeOf(personId), JSON.stringify([text, ...others].slice(0, MOST)));
  } catch {
    // It is not kept then.
  }
}
