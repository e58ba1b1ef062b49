import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { brotliCompressSync, brotliDecompressSync, constants, gunzipSync, gzipSync } from 'node:zlib';
import type { Call, Reading } from './read.ts';

const AT = import.meta.dirname;

/** Releases whose data is kept here, the oldest first. */
export const RELEASES = readdirSync(AT, { withFileTypes: true })
  .filter((each) => each.isDirectory())
  .map((each) => each.name)
  .sort();

/** Puts the files of a folder into one, gzipped: their paths and contents as JSON. */
export function keepFolder(folder: string, release: string): number {
  const files = readdirSync(folder, { recursive: true, withFileTypes: true }).filter((each) => each.isFile());
  const packed = files
    .map((each) => join(each.parentPath, each.name))
    .filter((path) => !/lock\.\w+$|-wal$|-shm$/.test(path))
    .map((path) => {
      const bytes = readFileSync(path);
      const head = Buffer.from(`${relative(folder, path)}\n${bytes.length}\n`);
      return Buffer.concat([head, bytes]);
    });
  const whole = gzipSync(Buffer.concat(packed), { level: 9 });
  mkdirSync(join(AT, release), { recursive: true });
  writeFileSync(join(AT, release, 'folder.gz'), whole);
  return whole.length;
}

/** Lays the folder of a release out again. */
export function layOut(release: string, folder: string): void {
  let rest = gunzipSync(readFileSync(join(AT, release, 'folder.gz')));
  const line = (): string => {
    const end = rest.indexOf(10);
    const text = rest.subarray(0, end).toString();
    rest = rest.subarray(end + 1);
    return text;
  };
  while (rest.length > 0) {
    const [path, length] = [line(), Number(line())];
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), rest.subarray(0, length), { mode: 0o600 });
    rest = rest.subarray(length);
  }
}

interface Kept extends Omit<Reading, 'reads' | 'goesOn'> {
  readonly bodies: readonly unknown[];
  readonly reads: readonly KeptCall[];
  readonly goesOn: readonly KeptCall[];
}
/** A call with the place of its answer: many read the same. */
type KeptCall = Omit<Call, 'body'> & { readonly body: number };

export function keepReading(reading: Reading, release: string): number {
  const places = new Map<string, number>();
  const placed = (calls: readonly Call[]): readonly KeptCall[] =>
    calls.map((call) => {
      const text = JSON.stringify(call.body);
      const place = places.get(text) ?? places.size;
      places.set(text, place);
      return { ...call, body: place };
    });
  const [reads, goesOn] = [placed(reading.reads), placed(reading.goesOn)];
  const kept: Kept = { ...reading, reads, goesOn, bodies: [...places.keys()].map((text) => JSON.parse(text)) };
  const params = { [constants.BROTLI_PARAM_QUALITY]: 11, [constants.BROTLI_PARAM_LGWIN]: 24 };
  const whole = brotliCompressSync(JSON.stringify(kept), { params });
  writeFileSync(join(AT, release, 'reading.json.br'), whole);
  return whole.length;
}

export function keptReading(release: string): Reading {
  const text = brotliDecompressSync(readFileSync(join(AT, release, 'reading.json.br'))).toString();
  const kept = JSON.parse(text) as Kept;
  const whole = (calls: readonly KeptCall[]): readonly Call[] =>
    calls.map((call) => ({ ...call, body: kept.bodies[call.body] }));
  return { facts: kept.facts, posted: kept.posted, reads: whole(kept.reads), goesOn: whole(kept.goesOn) };
}
