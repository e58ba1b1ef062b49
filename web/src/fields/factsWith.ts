import type { KnownFile, KnownRequest, RequestFacts } from '@tolvek/core/register';

/** What the form’s rules may know, with the files that were sent and what was chosen for references. */
export const factsWith = (
  facts: RequestFacts,
  { files, references }: { readonly files: readonly KnownFile[]; readonly references: readonly KnownRequest[] },
): RequestFacts => ({
  ...facts,
  files,
  references: [...facts.references.filter((each) => !references.some((known) => known.id === each.id)), ...references],
});
