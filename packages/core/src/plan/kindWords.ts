/** The parts of a timer's panel, in words. */
import type { PanelSetting } from './kind.ts';

export const PANEL_WORDS: Record<PanelSetting, string> = {
  clock: 'Date and time',
  percent: 'Seasonal percent',
  starts: 'Starts',
  runs: 'Run times',
  days: 'Watering days',
  soak: 'Soak',
  delay: 'Delay between stations',
  windows: 'Hours without water',
  pump: 'Pump',
  sensor: 'Sensor',
  mode: 'On and off',
};
