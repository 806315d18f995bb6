/** The component library in our own tokens (theme.css): one accent, small radius, no shadows. */
import { theme, type ThemeConfig } from 'antd';
import type { Theme } from './preferences.tsx';

const COLOURS = {
  day: {
    primary: '#5d2a68',
    text: '#17191f',
    sheet: '#ffffff',
    border: '#8c887c',
    soft: '#4c5058',
    error: '#9b1c10',
  },
  night: {
    primary: '#b878c7',
    text: '#f2efe6',
    sheet: '#1d1f29',
    border: '#7a7d8a',
    soft: '#b9b7b0',
    error: '#ff9c8c',
  },
} as const;

export function faceOf(mode: Theme): ThemeConfig {
  const colours = COLOURS[mode];
  return {
    algorithm: mode === 'night' ? theme.darkAlgorithm : theme.defaultAlgorithm,
    token: {
      colorPrimary: colours.primary,
      colorInfo: colours.primary,
      colorTextBase: colours.text,
      colorBgBase: colours.sheet,
      colorBgContainer: colours.sheet,
      colorBorder: colours.border,
      colorTextSecondary: colours.soft,
      colorTextTertiary: colours.soft,
      colorTextPlaceholder: colours.soft,
      colorTextDisabled: colours.soft,
      colorError: colours.error,
      fontFamily: "'Atkinson Hyperlegible Next', system-ui, sans-serif",
      fontSize: 16,
      borderRadius: 4,
      controlHeight: 40,
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
      },
    },
  };
}
