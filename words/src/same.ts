/** The same names as another language has, each with a text. */
export type Same<Texts> = { readonly [Name in keyof Texts]: string };
