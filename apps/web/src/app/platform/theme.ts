/** The look of Water Clock in one place: light and dark, each with high contrast. Style sheets and components both use it. */
import { theme as antd, type ThemeConfig } from 'antd';
import type { Contrast, Theme } from '../../data/api/userPreferences.ts';

/** The custom properties of the style sheets. */
const DAY = {
  paper: '#faf8f2',
  rail: '#f2ede2',
  sheet: '#ffffff',
  ink: '#17191f',
  'ink-soft': '#4c5058',
  line: '#cbc7bb',
  'line-strong': '#8c887c',
  accent: '#5d2a68',
  'accent-ink': '#ffffff',
  'accent-pale': '#f1e6f3',
  alarm: '#9b1c10',
  'alarm-pale': '#fdeae6',
  calm: '#e6efe4',
  'calm-ink': '#1c4428',
  'strip-day': '#fdf3d4',
  'strip-night': '#d9dbe8',
  'program-0': '#20569c',
  'program-1': '#a84a08',
  'program-2': '#3b6b35',
  'program-3': '#84307d',
  'program-4': '#6b5900',
  'program-5': '#125f66',
} as const;

type Palette = Readonly<Record<keyof typeof DAY, string>>;

const NIGHT: Palette = {
  paper: '#14151c',
  rail: '#1a1b24',
  sheet: '#1d1f29',
  ink: '#f2efe6',
  'ink-soft': '#b9b7b0',
  line: '#3e414e',
  'line-strong': '#7a7d8a',
  accent: '#d7a9e2',
  'accent-ink': '#1d0f22',
  'accent-pale': '#36263b',
  alarm: '#ff9c8c',
  'alarm-pale': '#3d1a16',
  calm: '#20352a',
  'calm-ink': '#bfe5c6',
  'strip-day': '#4a432e',
  'strip-night': '#232536',
  'program-0': '#7fb2f0',
  'program-1': '#f2a25c',
  'program-2': '#93cc8a',
  'program-3': '#e39ddc',
  'program-4': '#d8c35a',
  'program-5': '#74cbd2',
};

/** For glaring sun and weak eyes: black on white or white on black, with lines as dark as text. */
const DAY_HIGH: Palette = {
  ...DAY,
  paper: '#ffffff',
  rail: '#ffffff',
  ink: '#000000',
  'ink-soft': '#1f2228',
  line: '#5a5a5a',
  'line-strong': '#000000',
  accent: '#3f0d4b',
  'accent-pale': '#ffffff',
  alarm: '#7a0a00',
  'alarm-pale': '#ffffff',
  calm: '#ffffff',
  'calm-ink': '#06290f',
  'strip-day': '#ffffff',
  'strip-night': '#c9ccdf',
  'program-0': '#0d3a75',
  'program-1': '#7a3300',
  'program-2': '#1c4a17',
  'program-3': '#5f0f58',
  'program-4': '#4a3d00',
  'program-5': '#00434a',
};

const NIGHT_HIGH: Palette = {
  ...NIGHT,
  paper: '#000000',
  rail: '#000000',
  sheet: '#000000',
  ink: '#ffffff',
  'ink-soft': '#e4e2db',
  line: '#a8a8a8',
  'line-strong': '#ffffff',
  accent: '#eccbf3',
  'accent-pale': '#000000',
  alarm: '#ffc2b8',
  'alarm-pale': '#000000',
  calm: '#000000',
  'calm-ink': '#d3f5da',
  'strip-day': '#3a3524',
  'strip-night': '#000000',
};

const PALETTES: Readonly<Record<Theme, Readonly<Record<Contrast, Palette>>>> = {
  day: { usual: DAY, high: DAY_HIGH },
  night: { usual: NIGHT, high: NIGHT_HIGH },
};

const FONT = "'Atkinson Hyperlegible Next', system-ui, sans-serif";
/** Text size in pixels at 100 percent. */
const TEXT = 16;
const CONTROL = 40;

export interface Look {
  readonly theme: Theme;
  readonly contrast: Contrast;
  /** Percent of the normal text size. */
  readonly textSize: number;
}

/** Applies the theme to the page. */
export function applyTheme(
  { theme, contrast, textSize }: Look,
  page = document.documentElement,
): void {
  for (const [name, colour] of Object.entries(PALETTES[theme][contrast]))
    page.style.setProperty(`--${name}`, colour);
  page.style.colorScheme = theme === 'day' ? 'light' : 'dark';
  page.style.fontSize = `${textSize}%`;
}

/** The component library's theme: one accent, small radius, no shadows. */
export function faceOf({ theme, contrast, textSize }: Look): ThemeConfig {
  const palette = PALETTES[theme][contrast];
  const scaled = (pixels: number) => Math.round((pixels * textSize) / 100);
  return {
    // The styles come with the page (antdStyles.ts), the theme as custom properties.
    zeroRuntime: true,
    hashed: false,
    algorithm: theme === 'night' ? antd.darkAlgorithm : antd.defaultAlgorithm,
    token: {
      colorPrimary: palette.accent,
      colorInfo: palette.accent,
      colorInfoBg: palette['accent-pale'],
      colorTextBase: palette.ink,
      colorBgBase: palette.sheet,
      colorBgContainer: palette.sheet,
      colorBorder: palette['line-strong'],
      colorTextSecondary: palette['ink-soft'],
      colorTextTertiary: palette['ink-soft'],
      colorTextPlaceholder: palette['ink-soft'],
      colorTextDisabled: palette['ink-soft'],
      colorError: palette.alarm,
      colorErrorBg: palette['alarm-pale'],
      controlItemBgActive: palette['accent-pale'],
      controlItemBgActiveHover: palette['accent-pale'],
      fontFamily: FONT,
      fontSize: scaled(TEXT),
      borderRadius: 4,
      controlHeight: scaled(CONTROL),
      boxShadow: 'none',
      boxShadowSecondary: 'none',
      motion: false,
    },
    components: {
      Button: {
        primaryShadow: 'none',
        defaultShadow: 'none',
        dangerShadow: 'none',
        fontWeight: 600,
        primaryColor: palette['accent-ink'],
        dangerColor: palette['accent-ink'],
      },
      Layout: { lightSiderBg: palette.rail, bodyBg: palette.paper },
      Calendar: { itemActiveBg: palette['accent-pale'] },
      Table: {
        rowSelectedBg: palette['accent-pale'],
        rowSelectedHoverBg: palette['accent-pale'],
        rowHoverBg: palette.rail,
      },
      Menu: {
        itemBg: 'transparent',
        itemHeight: scaled(30),
        itemMarginBlock: 0,
        iconMarginInlineEnd: 10,
        itemMarginInline: 0,
        itemSelectedBg: palette['accent-pale'],
        itemSelectedColor: palette.ink,
        groupTitleColor: palette['ink-soft'],
        groupTitleFontSize: scaled(12),
      },
    },
  };
}
