/** The computation core of Water Clock: everything that applications may use of it, by name. */
export {
  BRIEF_FORMAT,
  BRIEF_VERSION,
  wishOf,
  type Brief,
  type BriefRules,
  type BriefStation,
  type Mowing,
  type OftenADay,
  type Wish,
} from './brief/brief.ts';
export { readBrief, readBriefText, writeBrief } from './brief/readBrief.ts';
export {
  civilOf,
  epochDayOf,
  FIRST_DAY,
  formatDate,
  formatMoment,
  formatTime,
  LAST_DAY,
  monthOf,
  parseDate,
  parseMoment,
  parseTime,
  SECONDS_PER_DAY,
  WEEKDAYS,
  weekdayIndexOf,
  type CivilDate,
  type ClockSecond,
  type EpochDay,
  type Weekday,
} from './calendar.ts';
export {
  applyChange,
  readChange,
  removeStationChange,
  type Applied,
  type PlanChange,
  type RunEntry,
} from './change.ts';
export {
  blockedStarts,
  check,
  type Check,
  type DrivenPercent,
  type ProgramCheck,
  type Verdict,
} from './check.ts';
export { checkReport, type CheckReport } from './checkReport.ts';
export { planDifferences, samePlan, type Difference } from './compare.ts';
export {
  clockAhead,
  startsMovedBy,
  yearsAhead,
  type ClockChange,
  type Display,
  type MovedStart,
} from './clock.ts';
export { cycleShape, type CycleRun, type CycleShape } from './cycle.ts';
export { daysLeft, EVERY_WEEKDAY, isIn, maskOfWeekdays, startsOf, type DaySet } from './days.ts';
export { attempt, Effort, TooMuchWork } from './effort.ts';
export { SUPPLIES, type Supply } from './house.ts';
export {
  parseRunEntry,
  parseTimeEntry,
  RUN_ENTRY_HELP,
  runEntryText,
  splitColumn,
  stepped,
  steppedStart,
  TIME_ENTRY_HELP,
} from './entry.ts';
export { assert, pathText, type Fault, type FaultCode, type Outcome, type Path } from './fault.ts';
export {
  notFitting,
  type Finding,
  type FindingCode,
  type Severity,
  type TimerLimit,
  type Where,
} from './findings.ts';
export {
  atPercent,
  NIGHT_BEGINS_SECOND,
  nightOf,
  nightsFrom,
  tonightOf,
  type IntendedCycle,
  type Night,
  type ServedStart,
  type SharedStretch,
} from './night.ts';
export { nextCycles, type NextCycle } from './nominal.ts';
export { type CycleRef, type Overlap } from './overlap.ts';
export {
  letterAt,
  ON_OVERLAPS,
  PLAN_FORMAT,
  PLAN_MEDIA_TYPE,
  PLAN_VERSION,
  programsByLetter,
  START_STEPS_MINUTES,
  type Days,
  type NoWaterWindow,
  type OnOverlap,
  type Plan,
  type PlanSite,
  type Program,
  type Run,
  type Dialect,
  type Seasonal,
  type Settings,
  type Station,
  type TimeText,
  type Timer,
} from './plan.ts';
export {
  adjustedSeconds,
  effectivePercent,
  enabledStations,
  isUnused,
  missingOf,
  percentSteps,
  type Missing,
} from './program.ts';
export { readPlan, readPlanText, writePlan } from './readPlan.ts';
export {
  dueCycles,
  simulate,
  simulationReport,
  type ServedRun,
  type Simulation,
  type SimulationReport,
} from './simulate.ts';
export { emptyPlan, TIMER_KINDS } from './timerKinds.ts';
export { totalOnDisplay } from './total.ts';
export { dryStretches, type DryStretch } from './windows.ts';
export {
  intervalDaysLeft,
  ruleDaysFrom,
  yearFrom,
  type Forbidden,
  type RuleDay,
  type YearDay,
} from './year.ts';
export {
  consequenceSentence,
  dateWords,
  daysWords,
  faultLine,
  faultSentence,
  findingSentence,
  lengthWords,
  everyDaysWords,
  missingSentence,
  monthName,
  oftenWords,
  overlapSentence,
  startWords,
  timeWords,
  verdictWords,
  weekdayName,
  type ClockStyle,
  type Speech,
  type VerdictWords,
} from './words.ts';
export {
  dayOfSun,
  hargreaves,
  penmanMonteith,
  radiationFromSunshine,
  radiationFromTemperatures,
  saturationPressureKpa,
  vapourPressureKpa,
  windAtTwoMetres,
  type DayOfSun,
  type Weather,
} from './water/evapotranspiration.ts';
export {
  longestIntervalDays,
  peakMonth,
  percentByMonth,
  yearBalance,
  type Climate,
  type MonthBalance,
  type StationDemand,
} from './water/need.ts';
export {
  cupResult,
  flowFromBucket,
  flowFromMeter,
  longestRunSeconds,
  pieceFromTries,
  rateFromFlow,
  rateOfDripLine,
  schedulingMultiplier,
  type CupResult,
  type CupTest,
  type TriesTaken,
} from './water/rate.ts';
export {
  allowanceOf,
  HEADS,
  PLANT_FACTORS,
  soakSecondsOf,
  SOILS,
  SURROUNDINGS,
  type HeadType,
  type Plants,
  type SoilType,
  type Surroundings,
} from './water/tables.ts';
export {
  quantityWords,
  shownIn,
  typedIn,
  unitWords,
  type Quantity,
  type UnitSystem,
} from './water/units.ts';
