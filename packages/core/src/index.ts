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
  type TimeText,
} from './time/calendar.ts';
export {
  applyChange,
  readChange,
  removeStationChange,
  type Applied,
  type PlanChange,
  type RunEntry,
} from './plan/change.ts';
export { blockedStarts } from './engine/blockedStarts.ts';
export { check, type Check, type CheckOptions } from './judge/check.ts';
export {
  prove,
  verdictOf,
  type ProofOptions,
  type Proven,
  type Verdict,
} from './engine/verdict.ts';
export type { DrivenPercent, ProgramCheck } from './engine/examination.ts';
export { checkReport, type CheckReport } from './judge/checkReport.ts';
export { planDifferences, samePlan, type Difference } from './plan/comparePlans.ts';
export { recordDifferences } from './record/recordDifferences.ts';
export { clockAhead, yearsAhead, type Display } from './time/clock.ts';
export { startsMovedBy, type ClockChange, type MovedStart } from './engine/clockChanges.ts';
export { cycleShape, type CycleRun, type CycleShape } from './engine/cycle.ts';
export {
  daysLeft,
  EVERY_WEEKDAY,
  isIn,
  maskOfWeekdays,
  type DaySet,
  type Days,
  type DayRuleName,
} from './time/dayRules.ts';
export { startsOf } from './plan/starts.ts';
export { attempt, Effort, TooMuchWork } from './engine/effort.ts';
export {
  CLOCK_STYLES,
  documentSite,
  siteFields,
  SUPPLIES,
  UNIT_SYSTEMS,
  type Contact,
  type GivenSite,
  type SiteFields,
  type Supply,
} from './site/site.ts';
export {
  parseRunEntry,
  parseTimeEntry,
  RUN_ENTRY_HELP,
  runEntryText,
  splitColumn,
  stepped,
  steppedStart,
  TIME_ENTRY_HELP,
} from './time/entry.ts';
export {
  assert,
  pathText,
  type Fault,
  type FaultCode,
  type Outcome,
  type Path,
} from './document/fault.ts';
export { notFitting } from './judge/limits.ts';
export type { Finding, FindingCode, Severity, TimerLimit, Where } from './judge/finding.ts';
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
} from './engine/night.ts';
export { nextCycles, type NextCycle } from './engine/nominal.ts';
export type { CycleRef, Overlap } from './engine/overlap.ts';
export {
  letterAt,
  ON_OVERLAPS,
  PLAN_FORMAT,
  PLAN_MEDIA_TYPE,
  PLAN_VERSION,
  programsByLetter,
  START_STEPS_MINUTES,
  type OnOverlap,
  type Plan,
  type PlanSite,
  type Program,
  type Run,
  type Dialect,
  type Seasonal,
  type Settings,
  type Station,
  type Timer,
} from './plan/plan.ts';
export type { NoWaterWindow } from './time/windows.ts';
export {
  adjustedSeconds,
  effectivePercent,
  enabledStations,
  isUnused,
  missingOf,
  percentSteps,
  type Missing,
} from './plan/program.ts';
export { readPlan, readPlanText, writePlan } from './plan/readPlan.ts';
export {
  dueCycles,
  simulate,
  simulationReport,
  type ServedRun,
  type Simulation,
  type SimulationReport,
} from './engine/simulate.ts';
export { totalOnDisplay } from './engine/total.ts';
export { dryStretches, type DryStretch } from './engine/dryStretches.ts';
export {
  intervalDaysLeft,
  ruleDaysFrom,
  yearFrom,
  type Forbidden,
  type RuleDay,
  type YearDay,
} from './engine/year.ts';
export { consequenceSentence, oftenWords, overlapSentence } from './engine/overlapWords.ts';
export {
  dateWords,
  daysWords,
  lengthWords,
  everyDaysWords,
  monthName,
  startWords,
  timeWords,
  weekdayName,
  weekdaysWords,
  type ClockStyle,
  type Speech,
  listed,
  momentWords,
} from './words/words.ts';
export { faultLine, faultSentence } from './words/faultWords.ts';
export {
  missingSentence,
  programLabel,
  stationOrSomething,
  type TimerSpeech,
} from './plan/planWords.ts';
export { verdictWords, type VerdictWords } from './judge/verdictWords.ts';
export { findingSentence, fixWords } from './judge/findingWords.ts';
export { fixOf, type Fix } from './judge/fixes.ts';
export { aboutOf, canBeAccepted, judged, type Accepted, type Judged } from './judge/accepted.ts';
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
export {
  assembleBrief,
  takeBriefChange,
  unknownNeeds,
  type BriefSources,
  withPresentWater,
} from './record/assembleBrief.ts';
export { faultsOfCell, type CellFault } from './document/cells.ts';
export {
  KIND_FORMAT,
  KIND_VERSION,
  PANEL_SETTINGS,
  readTimerKind,
  readTimerKindText,
  type PanelSetting,
  type HowToReach,
  type TimerKind,
} from './plan/kind.ts';
export { emptyPlan, SHIPPED_KINDS, TIMER_KINDS, type ShippedKind } from './plan/shippedKinds.ts';
export {
  readRules,
  readRulesText,
  RULES_FORMAT,
  RULES_VERSION,
  type Rules,
  type RulesClause,
  type RulesCondition,
  type RulesEdition,
} from './rules/rules.ts';
export { houseRulesOn, isAllowedDate, ruledOut, type RuledOut } from './rules/houseRules.ts';
export { allowedWords, conditionWords, rulesSentence } from './rules/rulesWords.ts';
export {
  nextRuling,
  rosterNumber,
  rulingOn,
  type NextRuling,
  type RuledHouse,
  type Ruling,
} from './rules/ruling.ts';
export { MOST_NOTE_LENGTH } from './document/reader.ts';
export { MOST_CUPS, MOST_PHOTOS, readSurvey } from './survey/readSurvey.ts';
export {
  applyRecordChange,
  readRecordChange,
  type AppliedToRecord,
  type RecordChange,
  type TimerRecord,
} from './record/record.ts';
export {
  MOST_STATION_ROWS,
  readStationTable,
  STATION_HEADINGS,
  stationRows,
  stationTableChange,
  type StationEntry,
  type StationTable,
} from './record/stationTable.ts';
export {
  BYPASSES,
  CHANGERS,
  delayForSlowValve,
  EMPTY_SURVEY,
  DEFECTS,
  POWERS,
  RAIN_WAYS,
  SCHOOLS,
  SEASON_WAYS,
  SENSOR_KINDS,
  URGENCIES,
  surveyOf,
  type Device,
  type DeviceSensor,
  type DripLine,
  type Defect,
  type Urgency,
  type FlowTest,
  type NotedCups,
  type NotedDefect,
  type Overruled,
  type RainWay,
  type RunOffTest,
  type School,
  type SeasonWay,
  type Survey,
  type SurveyFields,
  type SurveyStation,
  type SurveyStationFields,
} from './survey/survey.ts';
export { dueVisits, type DueVisit, type VisitReason } from './record/dueVisits.ts';
export {
  CLIMATE_FORMAT,
  CLIMATE_VERSION,
  climateOf,
  etoOf,
  middleOfMonth,
  monthsOfDays,
  readClimate,
  readClimateText,
  type ClimateDocument,
  type EtoWay,
  type WeatherDay,
  type WeatherFigures,
} from './water/climate.ts';
export {
  allFigures,
  canRunAtOnce,
  figuresOf,
  type Figure,
  type Source,
  type StationFigures,
} from './garden/figures.ts';
export { givenByMonth } from './garden/given.ts';
export {
  MINUTES_FORMAT,
  MINUTES_VERSION,
  readMinutesTable,
  readMinutesTableText,
  SHIPPED_MINUTES,
  SHIPPED_MINUTES_ID,
  type HeadMinutes,
  type MinutesTable,
} from './water/minutesTable.ts';
export {
  daysByMonth,
  demandOf,
  siteMinutes,
  USUAL_WATERINGS,
  type Lacking,
  type SchoolAnswer,
  type SiteMinutes,
  type StationMinutes,
  type Step,
  type StepUnit,
} from './garden/schools.ts';
export {
  SIMULATED_COUNT,
  SIMULATED_FROM,
  SIMULATED_TOWNS,
  simulatedDay,
  simulatedDays,
  simulatedNormals,
  type SimulatedTown,
  type WeatherTown,
} from './water/simulatedWeather.ts';
export {
  MOST_WEATHER_ROWS,
  readWeatherTable,
  weatherDayRows,
  weatherMonthRows,
  type WeatherTable,
} from './water/weatherTable.ts';
export {
  BYPASS_WORDS,
  CHANGER_WORDS,
  DEFECT_WORDS,
  HEAD_WORDS,
  PLANT_WORDS,
  POWER_WORDS,
  RAIN_WORDS,
  SCHOOL_WORDS,
  SEASON_WORDS,
  SENSOR_WORDS,
  URGENCY_WORDS,
  SOIL_WORDS,
  SUN_WORDS,
} from './survey/surveyWords.ts';
export { LACKING_WORDS, SOURCE_WORDS, STEP_WORDS } from './garden/gardenWords.ts';
export { PANEL_WORDS } from './plan/kindWords.ts';
export { SUPPLY_WORDS } from './site/siteWords.ts';
export {
  visitReasonWords,
  visitSentence,
  openPointSentence,
  visitFindingSentence,
} from './record/recordWords.ts';
export { breachOf, hardPercents, type Breach, datesOf } from './planner/verify.ts';
export { compareCosts, costOf, type Cost } from './planner/cost.ts';
export { barePlan } from './planner/needs.ts';
export type { Pins, PlannerOptions } from './planner/options.ts';
export {
  ALTERNATIVE_KINDS,
  alternativesOf,
  workOut,
  type Alternative,
  type AlternativeKind,
  type Simpler,
  type Worked,
} from './planner/workOut.ts';
export { conflictsOf, type Conflict } from './planner/conflicts.ts';
export { reasonsOf, type Reason } from './planner/reasons.ts';
export { planReport } from './planner/planReport.ts';
export {
  ALTERNATIVE_WORDS,
  changeSentence,
  comparedSentence,
  conflictSentences,
  demandSentence,
  monthSentence,
  notKept,
  proofSentence,
  reasonSentence,
  simplerSentence,
  sourceWords,
  stationWords,
} from './planner/plannerWords.ts';
export {
  searchPlan,
  type Answer,
  type Found,
  type Listener,
  type Proof,
} from './planner/search.ts';
export { seasonOf, type MonthNeed, type SeasonMonth } from './planner/season.ts';
export { takePlanChange } from './planner/take.ts';
export { meanWeeklySeconds } from './engine/weeklyWater.ts';
export {
  HIDDEN_ANSWERS,
  KEY_IN_SCOPES,
  NEXT_REASONS,
  RUNGS,
  SIGNS,
  SWITCHED,
  TEST_RESULTS,
  WIRINGS,
  type AsFound,
  type ClosedVisit,
  type FollowUp,
  type Frozen,
  type HiddenAnswer,
  type KeyIn,
  type KeyInScope,
  type NextReason,
  type NextVisit,
  type Rung,
  type RungTried,
  type SavedInside,
  type Sighting,
  type Sign,
  type StationTest,
  type Switched,
  type SwitchedForTest,
  type Tariff,
  type TestResult,
  type Visit,
  type VisitFields,
  type Wiring,
} from './visit/visit.ts';
export { readClosedVisit } from './visit/readVisit.ts';
export {
  orderOf,
  panelLines,
  programName,
  type PanelLine,
  type PanelNow,
  type SettingAddress,
} from './panel/lines.ts';
export {
  panelHelp,
  panelText,
  parsePanel,
  sameValue,
  type PanelStyle,
  type PanelKind,
  type PanelValue,
} from './panel/value.ts';
export { factoryPlan, keyInLines, tickOf, type KeyLine } from './panel/keyIn.ts';
export { enteredFromShown, entryChange, type Entered } from './panel/entries.ts';
export { readBack, type ReadBack } from './panel/readBack.ts';
export { explain } from './diagnose/explain.ts';
export { fitsAll, type Explanation, type Question, type Variant } from './diagnose/triedWorlds.ts';
export { evidenceOf, type Behind } from './diagnose/evidence.ts';
export { askNext, type Ask } from './diagnose/ask.ts';
export { settingsWith, type Cause } from './diagnose/causes.ts';
export {
  askSentence,
  behindSentence,
  explanationSentence,
  lookSentence,
  mendSentence,
  variantSentence,
} from './diagnose/diagnoseWords.ts';
export {
  HIDDEN_WORDS,
  NEXT_WORDS,
  RUNG_WORDS,
  SIGN_WORDS,
  sightingSentence,
  SWITCHED_WORDS,
  TEST_WORDS,
  WIRING_WORDS,
} from './visit/visitWords.ts';
export { readBackSentence } from './panel/panelWords.ts';
export {
  closeVisit,
  openPoints,
  openSwitches,
  switchedIn,
  type OpenPoint,
} from './record/closing.ts';
export { costOfYear, priceOf, waterUsage, type StationUsage, type Usage } from './garden/usage.ts';
export {
  homeownerPage,
  type HomeownerPage,
  type PageProgram,
  type PageSources,
  type WeekRun,
} from './homeowner/page.ts';
export {
  calendarWeekday,
  wateringEvents,
  type DailyRule,
  type WateringEvent,
} from './engine/calendarEvents.ts';
export { safeFixes, type SafeFixes } from './judge/safeFixes.ts';
export {
  expectedTotal,
  foundAhead,
  visitFindings,
  type VisitFinding,
} from './record/visitFindings.ts';
export {
  NO_OFFICE,
  OFFICE_FORMAT,
  OFFICE_ID,
  OFFICE_VERSION,
  readOffice,
  type Office,
} from './homeowner/office.ts';
