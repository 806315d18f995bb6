import type { StepPath } from './steps.ts';
import { say } from '@water-clock/core';

/** The purpose of each step, in a short paragraph. */
export const HELP: Readonly<Record<StepPath, string>> = {
  house: say`Record the street number, the water source and the mowing days. Choose the local rules; the allowed hours for the next 14 days appear at once.`,
  timer: say`The card shows what this kind of timer can do. Below it, record this timer’s power, pump, sensors and who else changes its settings.`,
  clock: say`Type what the timer’s clock shows and the actual time. You see the difference, and the strip shows when it really waters.`,
  found: say`Page through the timer in its own order and type what it shows. Planned values are grey; press Enter if they match. Save as found before you change anything.`,
  seen: say`Record what someone saw: when it ran, or that it did not run. Likely causes appear below, each with one thing to check.`,
  stations: say`Walk the stations, one card each: what it waters, its heads, soil and slope. Run each for two minutes and record any faults.`,
  minutes: say`Three methods for minutes a week appear as dots on one scale. The filled dot is the one in use. “Why” shows every number behind it, and you can change any of them.`,
  brief: say`Everything from the visit on one page: what each station needs, what the rules allow and your preferences. The planner uses it.`,
  plan: say`The planner makes the best programs for the brief. Compare the plans, keep what must stay, and use the one you prefer. Undo restores the old programs.`,
  '': say`Stations are rows and programs are columns. Type minutes as in a spreadsheet. Start times and days are at the top of each program. The verdict updates as you type.`,
  settings: say`Set the percent for the year or by month, and mark the no-water hours. Rain delay, station delay and off days are here too.`,
  keyin: say`Key in one setting at a time, in the timer’s order and words. “Read back” compares what you type from the display. “Read aloud” speaks each setting.`,
  leave: say`Run every station and record the result. Put back what you switched, save the final settings and close the visit. You are asked about anything not done.`,
  page: say`The page for the homeowner, as it prints, and a card for the timer door. A private link opens the page on the homeowner’s phone.`,
  log: say`Closed visits, newest first: what was found, done and left. Compare any two states of the timer, or restore an old one.`,
};
