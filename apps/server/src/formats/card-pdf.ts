/** The timer card as a postcard: one side to read at arm's length, the other with every setting. */
import type { DoorCard } from '@water-clock/core';
import type { Content } from 'pdfmake/interfaces.js';
import { pagesIn, printed, say } from './fonts.ts';

export const CARD_PAPERS = ['a6', '4x6'] as const;
export type CardPaper = (typeof CARD_PAPERS)[number];

/** Points, portrait. */
const SIZES: Readonly<Record<CardPaper, { width: number; height: number }>> = {
  a6: { width: 297.6, height: 419.5 },
  '4x6': { width: 288, height: 432 },
};

const MARGIN = 14;
const INK = '#000000';

/** Font sizes in points, largest first; each side uses the largest that fits. */
const SMALLEST = 5;
const TYPE = [12, 11, 10, 9, 8, 7, 6, 5.5, SMALLEST] as const;

/** In smaller type than this, the stations move to the second side. */
const SMALLEST_WITH_STATIONS = 7;

const heading = (text: string): Content => say(text, { bold: true, margin: [0, 3, 0, 0.5] });

function programLines({ programs, words }: DoorCard): Content[] {
  if (programs.length === 0) return [say(words.nothing)];
  return programs.map(({ label, starts, days, lines }) => ({
    columns: [
      say(label, { bold: true, width: 20, alignment: 'center' }),
      {
        width: '*',
        stack: [
          say(starts.length > 0 ? `${starts.join(', ')}, ${days}` : days, { bold: true }),
          ...lines.map((line) => say(line)),
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

const section = (title: string, lines: readonly string[]): Content[] =>
  lines.length > 0 ? [heading(title), ...lines.map((line) => say(line))] : [];

/** The first side. */
function front(card: DoorCard, middle: readonly Content[]): Content[] {
  const { house, timer, rain, restore, other, breaches, company, phone, date, author, words } =
    card;
  return [
    say(house, { fontSize: 13, bold: true }),
    say(`${timer} · ${date} · ${author}`),
    heading(words.programs),
    ...programLines(card),
    ...middle,
    ...section(words.other, other),
    ...section(words.breaches, breaches),
    ...percentLines(card),
    ...section(words.rain, rain),
    ...(restore.length > 0
      ? [
          heading(words.restore),
          { ol: restore.map((line) => say(line)), margin: [0, 0, 0, 0] } satisfies Content,
        ]
      : []),
    say([company, phone].filter(Boolean).join(', '), { bold: true, margin: [0, 5, 0, 0] }),
  ];
}

const stations = (card: DoorCard): Content[] => [heading(card.words.stations), stationLines(card)];

/** How to reach each setting, as far as the office wrote it. */
function reaching({ reach, hides, words }: DoorCard): Content[] {
  if (reach.length === 0 && hides === null) return [];
  return [
    say(words.reach, { bold: true }),
    ...reach.map(({ setting, line }): Content => ({
      text: [say(`${setting}: `, { bold: true }), say(line)],
      margin: [0, 3, 0, 0],
    })),
    ...(hides === null ? [] : [say(hides, { margin: [0, 6, 0, 0] })]),
  ];
}

/** Content is built for each try, because printing marks what it has printed. */
type Side = () => Content[];

/**
 * The card on one sheet. The second side has what the office wrote about reaching each setting, and the stations if the first has no room for
 * them.
 */
export async function cardPdf(card: DoorCard, paper: CardPaper): Promise<Buffer> {
  const inType = (side: Side, fontSize: number, isSecond = false): Content => ({
    stack: side(),
    fontSize,
    ...(isSecond ? { pageBreak: 'before' } : {}),
  });
  const print = (...content: Content[]): Promise<Buffer> =>
    printed({
      pageSize: SIZES[paper],
      pageMargins: [MARGIN, MARGIN, MARGIN, MARGIN],
      info: { title: card.words.title, author: card.company },
      defaultStyle: { font: 'Page', color: INK, lineHeight: 1.05 },
      content,
    });
  /** Largest type in which a side fits; null: none. */
  const typeFor = async (side: Side): Promise<number | null> => {
    for (const points of TYPE) if (pagesIn(await print(inType(side, points))) === 1) return points;
    return null;
  };
  const whole: Side = () => front(card, stations(card));
  const inFront = await typeFor(whole);
  const isRoomy = inFront !== null && inFront >= SMALLEST_WITH_STATIONS;
  const first: Side = isRoomy ? whole : () => front(card, []);
  const second: Side = () => [...(isRoomy ? [] : stations(card)), ...reaching(card)];
  const type = (isRoomy ? inFront : await typeFor(first)) ?? SMALLEST;
  return second().length === 0
    ? print(inType(first, type))
    : print(inType(first, type), inType(second, (await typeFor(second)) ?? SMALLEST, true));
}
