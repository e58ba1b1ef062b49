/** A condition that may be there, as it is evaluated; null where there is none, and what has it always holds. */
export const conditionOf = ({ when = '' }: { readonly when?: string | undefined }): string | null =>
  when.trim() === '' ? null : when;
