import type { StepPath } from './steps.ts';
import { say } from '@water-clock/core';

/** What each step is for, in one short paragraph. */
export const HELP: Readonly<Record<StepPath, string>> = {
  house: say`Note the house: its number, where its water comes from, when the lawn is mown. Choose the rules of the district; the hours that are allowed in the next fourteen days show at once.`,
  timer: say`The card says what this kind of timer can do. Below it, note what is true of this very box: its power, its pump, its sensors, and who else changes its settings.`,
  clock: say`Type what the clock of the timer shows and what time it is. The difference stands between them, and the strip shows the hours at which it really waters.`,
  found: say`Go through the box in its own order and type what it shows. Grey is what is planned: Enter says that it stands so. Freeze it before anything is changed.`,
  seen: say`Note what somebody saw: when it ran, or that it did not run. What would explain it stands below, the likeliest first, each with one thing to look at.`,
  stations: say`Walk the stations, a card each: what it waters, its heads, soil and slope. Run it for two minutes and note the faults you see.`,
  minutes: say`Three ways to work out the minutes a week stand as three dots on one scale; the full one counts. “Why” opens every number behind it, and any of them can be overruled.`,
  brief: say`Everything that the visit has found, on one page: what each station needs, what the rules allow, and what is wished. The planner goes by it.`,
  plan: say`The planner makes the best programs from the brief. Compare its answers, keep what must stay as it is, and take the one you like. Undo brings the old programs back.`,
  '': say`Stations are rows, programs are columns. Type minutes as in a spreadsheet; starts and days stand in the head of each program. The verdict above follows every key.`,
  settings: say`Set the percent, for the whole year or month by month, and paint the hours in which nothing may water. Rain delay, station delay and off days stand beside them.`,
  keyin: say`Set the box, one setting at a time, in its own order and words. With “Read back” you type what the display shows, and a slip is caught. “Read aloud” says each setting.`,
  leave: say`Run every station and say how it went. Put back what was switched, freeze the settings as left, and close the visit. What is left undone is asked about.`,
  page: say`The page for the homeowner, as it prints, and a card for the door of the box. A private link shows the page on the homeowner’s phone.`,
  log: say`Every closed visit, the newest first: what was found, done and left. Compare any two states of the timer, and bring an old one back.`,
};
