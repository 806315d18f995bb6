/** The font that what we print carries with it, so that it prints alike everywhere. */
import fs from 'node:fs';
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { fontOfWoff } from './woff.ts';

const require = createRequire(import.meta.url);

interface PdfMaker {
  addFonts(fonts: Record<string, object>): void;
  setLocalAccessPolicy(allow: (path: string) => boolean): void;
  setUrlAccessPolicy(allow: (url: string) => boolean): void;
  createPdf(definition: TDocumentDefinitions): { getBuffer(): Promise<Buffer> };
}

/** The library takes fonts from files alone, so they are unpacked into a folder that goes with this thread. */
function makeFonts(): PdfMaker {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'water-clock-fonts-'));
  process.on('exit', () => fs.rmSync(folder, { recursive: true, force: true }));
  const font = (subset: string, weight: number) => {
    const name = `atkinson-hyperlegible-next-${subset}-${weight}-normal`;
    const packed = require.resolve(`@fontsource/atkinson-hyperlegible-next/files/${name}.woff`);
    const file = path.join(folder, `${name}.ttf`);
    fs.writeFileSync(file, fontOfWoff(fs.readFileSync(packed)));
    return file;
  };
  const family = (subset: string) => ({
    normal: font(subset, 400),
    bold: font(subset, 600),
    italics: font(subset, 400),
    bolditalics: font(subset, 800),
  });
  // The cast is for a library that is not an ES module. It reads nothing but its fonts, and fetches nothing.
  const pdfmake = require('pdfmake') as PdfMaker;
  pdfmake.addFonts({ Page: family('latin'), PageExtra: family('latin-ext') });
  pdfmake.setLocalAccessPolicy((file) => file.startsWith(folder));
  pdfmake.setUrlAccessPolicy(() => false);
  return pdfmake;
}

let maker: PdfMaker | null = null;

export function printed(definition: TDocumentDefinitions): Promise<Buffer> {
  maker ??= makeFonts();
  return maker.createPdf(definition).getBuffer();
}

/** The letters in the first file of the font. The second has the rest of Latin; neither has anything else. */
const PLAIN =
  /[\u0000-\u00ff\u0131\u0152\u0153\u02bb\u02bc\u02c6\u02da\u02dc\u2000-\u206f\u20ac\u2122\u2191\u2193\u2212\u2215]/;
const EXTRA =
  /[\u0100-\u02ba\u1e00-\u1e9f\u1ef2-\u1eff\u20a0-\u20ab\u20ad-\u20c0\u2113\u2c60-\u2c7f\ua720-\ua7ff]/;

/** Text in pieces, by the font file that has the letters: a font that lacks one drops it silently. */
function spans(text: string): { text: string; font?: string }[] {
  const pieces: { text: string; font?: string }[] = [];
  for (const letter of text) {
    const extra = !PLAIN.test(letter) && EXTRA.test(letter);
    const shown = PLAIN.test(letter) || extra ? letter : '?';
    const last = pieces.at(-1);
    if (last && (last.font !== undefined) === extra) last.text += shown;
    else pieces.push(extra ? { text: shown, font: 'PageExtra' } : { text: shown });
  }
  return pieces;
}

export const say = (text: string, more: object = {}): Content => ({ text: spans(text), ...more });
