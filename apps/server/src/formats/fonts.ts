/** The fonts that what we print carries with it, so that it prints alike everywhere: the application's own, and others for the letters that it lacks. */
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

/** The first has our letters; the others stand in for one another in this order. */
const PACKAGES = [
  'atkinson-hyperlegible-next',
  ...['noto-sans', 'noto-sans-hebrew', 'noto-sans-arabic', 'noto-sans-thai'],
  ...['noto-sans-sc', 'noto-sans-kr'],
] as const;
type Package = (typeof PACKAGES)[number];

/** A file of a font: some of its letters. */
interface Subset {
  readonly font: Package;
  /** As in the names of its files. */
  readonly name: string;
  readonly ranges: readonly (readonly [from: number, to: number])[];
}

const OWN = 'Page';
const fontName = ({ font, name }: Subset): string =>
  font === PACKAGES[0] && name === 'latin' ? OWN : `${font} ${name}`;

/** Each package says which letters each of its files has. */
function subsetsOf(font: Package): Subset[] {
  // The cast trusts the package's own list: names and ranges such as `U+0-FF,U+131`.
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

/** A file unpacked, at the weight of running text. */
const unpacked = (full: string, font: Package): Buffer =>
  fontOfWoff(fs.readFileSync(require.resolve(`@fontsource/${font}/files/${full}.woff`)));
const fileName = ({ font, name }: Subset, weight: number) => `${font}-${name}-${weight}-normal`;

const glyphs = new Map<Subset, Font>();
/** Whether a file has a letter indeed: its range may promise more. */
function has(subset: Subset, letter: number): boolean {
  // The cast holds because a file that is unpacked is one font, not a collection.
  const font = glyphs.get(subset) ?? (create(unpacked(fileName(subset, 400), subset.font)) as Font);
  glyphs.set(subset, font);
  return font.hasGlyphForCodePoint(letter);
}

const subsets = new Map<Package, readonly Subset[]>();
const found = new Map<number, Subset | null>();

/** The file that has a letter; null: none of them has it. */
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

/** The library takes fonts from files alone, so they are unpacked into a folder that goes with this thread. */
class Printer {
  private readonly folder = fs.mkdtempSync(path.join(os.tmpdir(), 'water-clock-fonts-'));
  // The cast is for a library that is not an ES module. It reads nothing but its fonts, and fetches nothing.
  private readonly maker = require('pdfmake') as PdfMaker;
  private readonly known = new Set<string>();

  constructor() {
    process.on('exit', () => fs.rmSync(this.folder, { recursive: true, force: true }));
    this.maker.setLocalAccessPolicy((file) => file.startsWith(this.folder));
    this.maker.setUrlAccessPolicy(() => false);
    this.use({ font: PACKAGES[0], name: 'latin', ranges: [] });
  }

  /** Makes a font ready to print with. */
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

/** Words of a script that runs from right to left: the printing turns each word, and the words are turned here. */
const RIGHT_TO_LEFT =
  /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]+(?:\s+[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]+)+/gu;

/** Text in pieces, by the font file that has the letters: a font that lacks one drops it silently. */
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
