/** The homeowner's page as a PDF, with the application's own font embedded so that it prints the same everywhere. */
import {
  LOOK_TILE,
  lookOf,
  PROGRAM_LOOKS,
  type HomeownerPage,
  type WeekRun,
} from '@water-clock/core';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { pagesIn, printed, say } from './fonts.ts';

export const PAPERS = ['a4', 'letter'] as const;
export type Paper = (typeof PAPERS)[number];

const INK = '#16211c';
const SOFT = '#4d5a53';
const SKY = '#fdf3d4';

/** The colours and patterns of the screens. White marks tell programs apart without colour. */
const PATTERNS = PROGRAM_LOOKS.map(({ colour, mark }, look) => {
  const line = mark
    ? `<path d="${mark.path}" stroke="#ffffff" stroke-width="${mark.width}" fill="none"/>`
    : '';
  return `<pattern id="program-${look}" width="${LOOK_TILE}" height="${LOOK_TILE}" patternUnits="userSpaceOnUse"><rect x="-1" y="-1" width="${LOOK_TILE + 2}" height="${LOOK_TILE + 2}" fill="${colour}"/>${line}</pattern>`;
}).join('');
const DEFS = `<defs>${PATTERNS}</defs>`;
/** A plain colour needs no pattern, whose tile edges would show. */
function fillOf(letter: string): string {
  const look = lookOf(letter);
  const { colour = INK, mark = null } = PROGRAM_LOOKS[look] ?? {};
  return mark ? `url(#program-${look})` : colour;
}

/** A program's letter on its fill, as on screen. */
const badge = (letter: string, label: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="34" height="34" viewBox="0 0 34 34">${DEFS}<rect width="34" height="34" fill="${fillOf(letter)}"/><rect x="7" y="7" width="20" height="20" fill="#ffffff"/><text x="17" y="23" text-anchor="middle" font-size="16" font-family="Page" fill="${INK}">${label}</text></svg>`;

const DAY_SECONDS = 86_400;
const DAY_WIDTH = 66;
const PICTURE_HEIGHT = 116;
const PICTURE_TOP = 16;

/** Picture of the week: a column for each day, midnight at the top. */
function weekPicture({ programs, week: { days, hours: names, runs } }: HomeownerPage): string {
  const labelOf = new Map(programs.map(({ letter, label }) => [letter, label]));
  const width = days.length * DAY_WIDTH + 34;
  const at = (seconds: number) => PICTURE_TOP + (seconds / DAY_SECONDS) * PICTURE_HEIGHT;
  const columns = days
    .map((day, i) => {
      const x = 34 + i * DAY_WIDTH;
      return `<rect x="${x}" y="${PICTURE_TOP}" width="${DAY_WIDTH - 4}" height="${PICTURE_HEIGHT}" fill="${SKY}"/>
        <text x="${x + 2}" y="11" font-size="9" font-family="Page" fill="${INK}">${day}</text>`;
    })
    .join('');
  const hours = names
    .map((name, i) => [i * 6, name] as const)
    .map(
      ([hour, name]) =>
        `<line x1="30" x2="${width}" y1="${at(hour * 3600)}" y2="${at(hour * 3600)}" stroke="#c3cac5" stroke-width="0.5"/>
         <text x="0" y="${at(hour * 3600) + 3}" font-size="7" font-family="Page" fill="${SOFT}">${name}</text>`,
    )
    .join('');
  const block = (run: WeekRun, day: number, from: number, to: number) => {
    const x = 34 + day * DAY_WIDTH;
    const height = Math.max(1.5, at(to) - at(from));
    const letter =
      height >= 7
        ? `<rect x="${x + 2}" y="${at(from) + 0.5}" width="9" height="6.5" fill="#ffffff"/><text x="${x + 4}" y="${at(from) + 6.5}" font-size="7" font-family="Page" fill="${INK}">${labelOf.get(run.program) ?? run.program}</text>`
        : '';
    return `<rect x="${x}" y="${at(from)}" width="${DAY_WIDTH - 4}" height="${height}" fill="${fillOf(run.program)}"/>${letter}`;
  };
  const blocks = runs
    .map((run) =>
      run.to <= DAY_SECONDS
        ? block(run, run.day, run.from, run.to)
        : block(run, run.day, run.from, DAY_SECONDS) +
          (run.day + 1 < days.length ? block(run, run.day + 1, 0, run.to - DAY_SECONDS) : ''),
    )
    .join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${PICTURE_TOP + PICTURE_HEIGHT + 6}">${DEFS}${columns}${blocks}${hours}</svg>`;
}

/** Percent by month, if it changes. */
const monthsTable = ({ months, words }: HomeownerPage): Content[] =>
  months.length === 0
    ? []
    : [
        say(words.months, { bold: true, margin: [0, 6, 0, 2] }),
        {
          table: {
            widths: months.map(() => '*'),
            body: [
              months.map(({ month }) => say(month.slice(0, 3), { color: SOFT })),
              months.map(({ percent }) => say(percent, { bold: true })),
            ],
          },
          layout: 'lightHorizontalLines',
        },
      ];

/** How densely the page is set: font size in points, stations side by side, width of the picture as a share of the page's. */
interface Density {
  readonly fontSize: number;
  readonly across: number;
  readonly picture: number;
}

/** Roomiest first; the page uses the first that fits on one sheet. */
const DENSITIES: readonly Density[] = [
  { fontSize: 9, across: 2, picture: 1 },
  { fontSize: 8.2, across: 2, picture: 0.86 },
  { fontSize: 7.5, across: 2, picture: 0.72 },
  { fontSize: 6.8, across: 3, picture: 0.64 },
  { fontSize: 6, across: 3, picture: 0.56 },
  { fontSize: 5.4, across: 3, picture: 0.5 },
  { fontSize: 5, across: 4, picture: 0.5 },
];

/** A program's stations as a table: number, name, run time as set and, where it differs, this month's. */
function stationsTable(
  { stations }: HomeownerPage['programs'][number],
  { asSet, thisMonth }: HomeownerPage['words'],
  across: number,
): Content {
  const [first] = stations;
  if (!first) return '';
  const columns = Math.min(across, stations.length);
  const hasAdjusted = first.adjusted !== null;
  const right = (text: string, bold = true) => say(text, { bold, alignment: 'right' });
  const cells = stations.map(({ number, name, length, adjusted }) => [
    right(String(number)),
    say(name),
    right(length),
    ...(adjusted === null ? [] : [right(adjusted)]),
  ]);
  const empty = first.adjusted === null ? ['', '', ''] : ['', '', '', ''];
  const headings = ['', '', right(asSet, false), right(thisMonth, false)];
  const body = Array.from({ length: Math.ceil(cells.length / columns) }, (_, row) =>
    Array.from({ length: columns }, (__, i) => cells[row * columns + i] ?? empty).flat(),
  );
  return {
    table: {
      widths: Array.from({ length: columns }, () =>
        hasAdjusted ? ['auto', '*', 'auto', 'auto'] : ['auto', '*', 'auto'],
      ).flat(),
      body: hasAdjusted ? [Array.from({ length: columns }, () => headings).flat(), ...body] : body,
    },
    layout: {
      defaultBorder: false,
      paddingTop: () => 0,
      paddingBottom: () => 0,
      paddingLeft: () => 2,
      paddingRight: () => 4,
    },
  };
}

function definitionOf(
  page: HomeownerPage,
  paper: Paper,
  { fontSize, across, picture }: Density,
): TDocumentDefinitions {
  const programs = page.programs.map((program): Content[] => [
    { svg: badge(program.letter, program.label), width: fontSize > 8 ? 24 : 20 },
    {
      stack: [
        say(program.when, { bold: true }),
        ...(program.over === null ? [] : [say(program.over, { color: SOFT })]),
      ],
    },
    stationsTable(program, page.words, across),
  ]);
  return {
    pageSize: paper === 'letter' ? 'LETTER' : 'A4',
    pageMargins: [36, 30, 36, 30],
    info: { title: page.words.title, author: page.company },
    defaultStyle: { font: 'Page', fontSize, color: INK, lineHeight: 1.1 },
    content: [
      say(page.words.title, { fontSize: 17, bold: true }),
      say(page.words.byline, {
        color: SOFT,
        margin: [0, 0, 0, 6],
      }),
      ...[...page.held, ...page.breaches].map((sentence) =>
        say(sentence, { bold: true, margin: [0, 0, 0, 4] }),
      ),
      {
        table: {
          widths: [24, fontSize * 14, '*'],
          body: programs.length > 0 ? programs : [['', say(page.words.nothing), '']],
        },
        layout: 'lightHorizontalLines',
      },
      ...(page.percent === null ? [] : [say(page.percent, { margin: [0, 4, 0, 0] })]),
      ...monthsTable(page),
      say(page.words.week, { bold: true, margin: [0, 6, 0, 0] }),
      {
        svg: weekPicture(page),
        width: (paper === 'letter' ? 540 : 523) * picture,
        margin: [0, 3, 0, 4],
      },
      {
        columns: [0, 1].map((column) => ({
          width: '*',
          stack: page.sections
            .filter((_, i) => i % 2 === column)
            .flatMap(({ heading, lines }): Content[] => [
              say(heading, { bold: true, fontSize: fontSize * 1.15, margin: [0, 5, 0, 1] }),
              ...lines.map((line) => say(line, { margin: [0, 0, 0, 2] })),
            ]),
        })),
        columnGap: 16,
      },
    ],
  };
}

/** The page as a PDF on one sheet, as roomy as that allows. */
export async function pagePdf(page: HomeownerPage, paper: Paper): Promise<Buffer> {
  for (const density of DENSITIES) {
    const pdf = await printed(definitionOf(page, paper, density));
    if (pagesIn(pdf) === 1 || density === DENSITIES.at(-1)) return pdf;
  }
  throw new Error('there is a densest setting');
}
