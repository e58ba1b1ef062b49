/** The first name that is not taken: the stem itself, then with 2, 3 and so on after it and what joins them. */
export function freeName(stem: string, isTaken: (name: string) => boolean, joined = '-'): string {
  for (let n = 1; ; n += 1) {
    const name = n === 1 ? stem : `${stem}${joined}${n}`;
    if (!isTaken(name)) return name;
  }
}
