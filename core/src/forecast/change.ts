/** Something that could be done at a desk. */
export type Change =
  /** A team works longer on a day: all who are there then. Moments are epoch ms. */
  | { readonly do: 'longer'; readonly team: string; readonly from: number; readonly to: number }
  /** All that somebody has in hand is given to whoever of the team has the least. */
  | { readonly do: 'hand-over'; readonly person: string }
  /** What waits for a decision is decided within the next two hours of work: the requests of a form, by its id. */
  | { readonly do: 'decide'; readonly form: string };
