/** The timer card as a postcard: one side to read at arm's length, the other with every setting. */
import type { DoorCard } from '@water-clock/core';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { printed, say } from './fonts.ts';

export const CARD_PAPERS = ['a6', '4x6'] as const;
export type CardPaper = (typeof CARD_PAPERS)[number];

/** Points, portrait. */
const SIZES: Readonly<Record<CardPaper, { width: number; height: number }>> = {
  a6: { width: 297.6, height: 419.5 },
  '4x6': { width: 288, height: 432 },
};

const MARGIN = 14;
const INK = '#000000';

/** Font sizes in points, largest first; the card uses the largest that fits. */
const TYPE = [12, 11, 10, 9, 8, 7, 6] as const;

const pagesIn = (pdf: Buffer) => pdf.toString('latin1').match(/\/Type\s*\/Page[^s]/gu)?.length ?? 0;

const heading = (text: string): Content => say(text, { bold: true, margin: [0, 3, 0, 0.5] });

function programLines({ programs, words }: DoorCard): Content[] {
  if (programs.length === 0) return [say(words.nothing)];
  return programs.map(({ label, starts, days, over }) => ({
    columns: [
      say(label, { bold: true, width: 20, alignment: 'center' }),
      {
        width: '*',
        stack: [
          say(starts.length > 0 ? `${starts.join(', ')}, ${days}` : days, { bold: true }),
          ...(over === null ? [] : [say(over)]),
        ],
      },
    ],
    columnGap: 4,
    margin: [0, 1, 0, 0],
  }));
}

/** Above this, stations stand in two columns. */
const MOST_IN_ONE = 8;

function stationLines({ stations }: DoorCard): Content {
  const line = ({ number, name, runs }: DoorCard['stations'][number]): Content => ({
    columns: [
      say(String(number), { bold: true, width: 16, alignment: 'right' }),
      say([name, runs].filter(Boolean).join(' · '), { width: '*' }),
    ],
    columnGap: 4,
  });
  if (stations.length <= MOST_IN_ONE) return { stack: stations.map(line) };
  const half = Math.ceil(stations.length / 2);
  return {
    columns: [stations.slice(0, half), stations.slice(half)].map((own) => ({
      width: '*',
      stack: own.map(line),
    })),
    columnGap: 6,
  };
}

function percentLines({ percents, words }: DoorCard): Content[] {
  if (percents.length === 0) return [];
  if (percents.length < 12)
    return [
      say(percents.map(({ name, percent }) => `${name} ${percent}`).join(', '), {
        margin: [0, 3, 0, 0],
      }),
    ];
  const rows = [percents.slice(0, 6), percents.slice(6)];
  return [
    heading(words.percents),
    {
      table: {
        widths: Array.from({ length: 6 }, () => '*'),
        body: rows.map((row) =>
          row.map(({ name, percent }) => say(`${name} ${percent}`, { alignment: 'center' })),
        ),
      },
      layout: {
        hLineWidth: () => 0.3,
        vLineWidth: () => 0.3,
        paddingTop: () => 0.5,
        paddingBottom: () => 0.5,
      },
    },
  ];
}

/** The card. It has a second side only if the office wrote lines for it. */
export async function cardPdf(card: DoorCard, paper: CardPaper): Promise<Buffer> {
  const { house, timer, rain, restore, company, phone, date, initials, reach, hides, words } = card;
  const behind: Content[] =
    reach.length === 0 && hides === null
      ? []
      : [
          say(words.reach, {
            bold: true,
            fontSize: 11,
            pageBreak: 'before',
          }),
          ...reach.map(({ setting, line }): Content => ({
            text: [say(`${setting}: `, { bold: true }), say(line)],
            margin: [0, 3, 0, 0],
          })),
          ...(hides === null ? [] : [say(hides, { margin: [0, 6, 0, 0] })]),
        ];
  const definition = (fontSize: number, content: Content[]): TDocumentDefinitions => ({
    pageSize: SIZES[paper],
    pageMargins: [MARGIN, MARGIN, MARGIN, MARGIN],
    info: { title: words.title, author: company },
    defaultStyle: { font: 'Page', fontSize, color: INK, lineHeight: 1.05 },
    content,
  });
  // Built again for each try, because printing marks what it has printed.
  const front = (): Content[] => [
    say(house, { fontSize: 13, bold: true }),
    say(`${timer} · ${date} · ${initials}`),
    heading(words.programs),
    ...programLines(card),
    heading(words.stations),
    stationLines(card),
    ...percentLines(card),
    heading(words.rain),
    ...rain.map((line) => say(line)),
    ...(restore.length > 0
      ? [
          heading(words.restore),
          { ol: restore.map((line) => say(line)), margin: [0, 0, 0, 0] } satisfies Content,
        ]
      : []),
    say([company, phone].filter(Boolean).join(', '), { bold: true, margin: [0, 5, 0, 0] }),
  ];
  for (const points of TYPE) {
    const side = await printed(definition(points, front()));
    if (pagesIn(side) > 1 && points !== TYPE.at(-1)) continue;
    return behind.length === 0 ? side : printed(definition(points, [...front(), ...behind]));
  }
  throw new Error('there is a smallest type');
}
