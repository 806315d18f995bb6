/** Fonts that are embedded in our PDFs: the application's own, and others for characters it lacks. */
import fs from 'node:fs';
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import { create, type Font } from 'fontkit';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { fontOfWoff } from './woff.ts';

const require = createRequire(import.meta.url);

interface PdfMaker {
  addFonts(fonts: Record<string, object>): void;
  setLocalAccessPolicy(allow: (path: string) => boolean): void;
  setUrlAccessPolicy(allow: (url: string) => boolean): void;
  createPdf(definition: TDocumentDefinitions): { getBuffer(): Promise<Buffer> };
}

/** The first has our letters; the others are fallbacks in this order. */
const PACKAGES = [
  'atkinson-hyperlegible-next',
  ...['noto-sans', 'noto-sans-hebrew', 'noto-sans-arabic', 'noto-sans-thai'],
  ...['noto-sans-sc', 'noto-sans-kr'],
] as const;
type Package = (typeof PACKAGES)[number];

/** A font file with part of the characters. */
interface Subset {
  readonly font: Package;
  /** As in the file names. */
  readonly name: string;
  readonly ranges: readonly (readonly [from: number, to: number])[];
}

const OWN = 'Page';
const fontName = ({ font, name }: Subset): string =>
  font === PACKAGES[0] && name === 'latin' ? OWN : `${font} ${name}`;

/** Each package lists which characters each of its files has. */
function subsetsOf(font: Package): Subset[] {
  // Safe cast: the package's own list of names and ranges such as `U+0-FF,U+131`.
  const listed = require(`@fontsource/${font}/unicode.json`) as Record<string, string>;
  return Object.entries(listed).map(([name, ranges]) => ({
    font,
    name: name.replaceAll(/[[\]]/gu, ''),
    ranges: ranges.split(',').map((range) => {
      const [from = '', to = from] = range.trim().replace(/^U\+/iu, '').split('-');
      return [parseInt(from, 16), parseInt(to, 16)] as const;
    }),
  }));
}

/** An unpacked file at regular weight. */
const unpacked = (full: string, font: Package): Buffer =>
  fontOfWoff(fs.readFileSync(require.resolve(`@fontsource/${font}/files/${full}.woff`)));
const fileName = ({ font, name }: Subset, weight: number) => `${font}-${name}-${weight}-normal`;

const glyphs = new Map<Subset, Font>();
/** Whether a file really has a character; its range may promise more. */
function has(subset: Subset, letter: number): boolean {
  // Safe cast: an unpacked file is one font, not a collection.
  const font = glyphs.get(subset) ?? (create(unpacked(fileName(subset, 400), subset.font)) as Font);
  glyphs.set(subset, font);
  return font.hasGlyphForCodePoint(letter);
}

const subsets = new Map<Package, readonly Subset[]>();
const found = new Map<number, Subset | null>();

/** File that has a character; null if none has. */
function subsetWith(letter: number): Subset | null {
  const known = found.get(letter);
  if (known !== undefined) return known;
  let first: Subset | null = null;
  for (const font of PACKAGES) {
    const own = subsets.get(font) ?? subsetsOf(font);
    subsets.set(font, own);
    first =
      own.find(
        (subset) =>
          subset.ranges.some(([a, b]) => a <= letter && letter <= b) && has(subset, letter),
      ) ?? null;
    if (first) break;
  }
  found.set(letter, first);
  return first;
}

/** The library only reads fonts from files, so they are unpacked into a folder that is removed with this thread. */
class Printer {
  private readonly folder = fs.mkdtempSync(path.join(os.tmpdir(), 'water-clock-fonts-'));
  // A CommonJS library. It reads only its fonts and fetches nothing.
  private readonly maker = require('pdfmake') as PdfMaker;
  private readonly known = new Set<string>();

  constructor() {
    process.on('exit', () => fs.rmSync(this.folder, { recursive: true, force: true }));
    this.maker.setLocalAccessPolicy((file) => file.startsWith(this.folder));
    this.maker.setUrlAccessPolicy(() => false);
    this.use({ font: PACKAGES[0], name: 'latin', ranges: [] });
  }

  /** Registers a font for printing. */
  use(subset: Subset): void {
    const name = fontName(subset);
    if (this.known.has(name)) return;
    this.known.add(name);
    const [regular, bold] = [this.file(subset, 400), this.file(subset, 600)];
    this.maker.addFonts({
      [name]: { normal: regular, bold, italics: regular, bolditalics: bold },
    });
  }

  print(definition: TDocumentDefinitions): Promise<Buffer> {
    return this.maker.createPdf(definition).getBuffer();
  }

  private file(subset: Subset, weight: number): string {
    const full = fileName(subset, weight);
    const file = path.join(this.folder, `${full}.ttf`);
    fs.writeFileSync(file, unpacked(full, subset.font));
    return file;
  }
}

let printer: Printer | null = null;
const thePrinter = () => (printer ??= new Printer());

export const printed = (definition: TDocumentDefinitions): Promise<Buffer> =>
  thePrinter().print(definition);

/** Words of a right-to-left script: the printing library reverses the letters of each word, we reverse the words. */
const RIGHT_TO_LEFT =
  /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]+(?:\s+[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]+)+/gu;

/** Text split by the font file that has its characters, because a missing character is dropped silently. */
function spans(text: string): { text: string; font?: string }[] {
  const pieces: { text: string; font?: string }[] = [];
  const turned = text.replaceAll(RIGHT_TO_LEFT, (words) => words.split(/\s+/u).reverse().join(' '));
  for (const letter of turned) {
    const subset = subsetWith(letter.codePointAt(0) ?? 0);
    const shown = subset ? letter : '?';
    const font = subset ? fontName(subset) : OWN;
    if (subset) thePrinter().use(subset);
    const last = pieces.at(-1);
    if (last && (last.font ?? OWN) === font) last.text += shown;
    else pieces.push(font === OWN ? { text: shown } : { text: shown, font });
  }
  return pieces;
}

export const say = (text: string, more: object = {}): Content => ({ text: spans(text), ...more });

/** Number of pages of a PDF. */
export const pagesIn = (pdf: Buffer): number =>
  pdf.toString('latin1').match(/\/Type\s*\/Page[^s]/gu)?.length ?? 0;
