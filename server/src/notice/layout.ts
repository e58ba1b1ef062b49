import { Body } from '@react-email/body';
import { Button } from '@react-email/button';
import { Container } from '@react-email/container';
import { Head } from '@react-email/head';
import { Html } from '@react-email/html';
import { Link } from '@react-email/link';
import { Preview } from '@react-email/preview';
import { render } from '@react-email/render';
import { Section } from '@react-email/section';
import { Text } from '@react-email/text';
import { type Layout, MARK, pieceOf, type SLOTS_OF_LAYOUT } from '@tolvek/core/notice';
import { createElement as h, type ReactElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';

const INK = '#1f2926';
const SOFT = '#5a645e';
const RULE = '1px solid #ddd4c2';
const WORDS = { fontFamily: 'sans-serif', fontSize: '16px', lineHeight: '1.5', color: INK, margin: '0 0 16px' };
const SMALL = { ...WORDS, fontSize: '14px', color: SOFT };

const slot = (name: (typeof SLOTS_OF_LAYOUT)[number]): string => `${MARK}${name}${MARK}`;

const whole = (): ReactElement =>
  h(
    Html,
    { lang: slot('language') },
    h(Head),
    h(Preview, null, slot('preview')),
    h(
      Body,
      { style: { background: '#fffdf8', margin: '0', padding: '20px' } },
      h(
        Container,
        { align: 'left', style: { maxWidth: '40rem', margin: '0' } },
        slot('content'),
        h(Text, { style: { ...SMALL, margin: '24px 0 0' } }, slot('signature')),
      ),
    ),
  );

const cell = { padding: '5px 0', borderBottom: RULE, fontFamily: 'sans-serif', fontSize: '16px', lineHeight: '1.5' };

const PIECES = {
  paragraph: () => h(Text, { style: WORDS }, slot('words')),
  small: () => h(Text, { style: SMALL }, slot('words')),
  list: () => h('ul', { style: { paddingLeft: '20px', margin: '0 0 16px' } }, slot('content')),
  item: () =>
    h(
      'li',
      { style: { ...WORDS, margin: '6px 0' } },
      h(Link, { href: slot('url'), style: { color: slot('colour') } }, slot('words')),
    ),
  facts: () =>
    h(
      'table',
      { cellPadding: '0', cellSpacing: '0', style: { borderCollapse: 'collapse', margin: '12px 0' } },
      h('tbody', null, slot('content')),
    ),
  fact: () =>
    h(
      'tr',
      null,
      h('td', { style: { ...cell, padding: '5px 18px 5px 0', color: SOFT, verticalAlign: 'top' } }, slot('label')),
      h('td', { style: { ...cell, color: INK } }, slot('words')),
    ),
  button: () =>
    h(
      Section,
      { style: { margin: '20px 0 6px' } },
      h(
        Button,
        {
          href: slot('url'),
          style: {
            ...{ background: slot('colour'), color: '#fffdf8', padding: '9px 16px', borderRadius: '3px' },
            ...{ fontFamily: 'sans-serif', fontSize: '16px', fontWeight: 600 },
          },
        },
        slot('words'),
      ),
    ),
} as const satisfies Readonly<Record<Exclude<keyof Layout, 'whole'>, () => ReactElement>>;

/** Cut at its slots. Links say nothing of windows: that is for whoever reads emails where. */
const cut = (html: string) => pieceOf(html.replaceAll(' target="_blank"', ''));

/** How emails look: rendered once, when the application starts; what a letter says is put in between. */
export const LAYOUT: Layout = {
  whole: cut(await render(whole())),
  ...(Object.fromEntries(
    Object.entries(PIECES).map(([name, piece]) => [name, cut(renderToStaticMarkup(piece()))]),
  ) as Omit<Layout, 'whole'>),
};
