import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { RawAnswers } from '@tolvek/core/register';
import { useEffect, useRef, useState } from 'react';
import { frontDeskApi } from './endpoints.ts';

export type LeadsTo = AnswerOf<'checkAnswers'>['leadsTo'];

/** So long after the last letter it is asked where answers lead, ms. */
const PAUSE = 300;

/**
 * Where the answers so far lead, as the house says a moment after one of some questions is answered otherwise; null while
 * it is asked here. Where it could not be asked, the house looks again when it is sent.
 */
export function useLed(
  slug: string,
  by: readonly string[],
  answers: RawAnswers,
  shows: Omit<BodyOf<'checkAnswers'>, 'answers'>,
): LeadsTo {
  const [ask] = frontDeskApi.useCheckAnswersMutation();
  const [led, setLed] = useState<{ readonly with: string; readonly to: LeadsTo } | null>(null);
  const latest = useRef({ answers, shows });
  latest.current = { answers, shows };
  const given = JSON.stringify(by.map((key) => answers[key] ?? null));
  const isAsked = by.some((key) => answers[key] !== undefined);
  useEffect(() => {
    if (!isAsked) return;
    let isOver = false;
    const timer = setTimeout(async () => {
      const now = latest.current;
      const said = await ask({ slug, body: { answers: now.answers, ...now.shows } });
      if (!isOver && 'data' in said && said.data) setLed({ with: given, to: said.data.leadsTo });
    }, PAUSE);
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [ask, slug, given, isAsked]);
  // What was said of other answers is not said of these.
  return isAsked && led?.with === given ? led.to : null;
}
