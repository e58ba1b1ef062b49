/** Bytes, in base 64, as JSON can hold them. */
export interface Bytes {
  readonly base64: string;
}
/** A row as it lies in the database, by the names of its columns. */
export type LaidRow = Readonly<Record<string, string | number | null | Bytes>>;

/** Everything there was of a request, table by table, in the order in which it can be put back. */
export type Laid = Readonly<Record<string, readonly LaidRow[]>>;
