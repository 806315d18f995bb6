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
export { planDifferences, recordDifferences, samePlan, type Difference } from './compare.ts';
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
export { SUPPLIES, type Contact, type Supply } from './house.ts';
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
} from './judge/findings.ts';
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
  type DayRuleName,
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
  weekdaysWords,
  type ClockStyle,
  type Speech,
  type VerdictWords,
} from './words.ts';
export { listed } from './words.ts';
export { findingSentence, fixWords } from './findingWords.ts';
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
} from './brief/assemble.ts';
export { faultsOfCell, type CellFault } from './cells.ts';
export {
  KIND_FORMAT,
  KIND_VERSION,
  PANEL_SETTINGS,
  readTimerKind,
  readTimerKindText,
  type PanelSetting,
  type Reach,
  type TimerKind,
} from './kinds/kind.ts';
export { SHIPPED_KINDS, type ShippedKind } from './kinds/shipped.ts';
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
export { MOST_NOTE_LENGTH } from './reader.ts';
export { MOST_CUPS, MOST_PHOTOS, readSurvey } from './survey/readSurvey.ts';
export {
  applyRecordChange,
  readRecordChange,
  type AppliedToRecord,
  type RecordChange,
  type TimerRecord,
} from './survey/record.ts';
export {
  MOST_STATION_ROWS,
  readStationTable,
  STATION_HEADINGS,
  stationRows,
  stationTableChange,
  type StationEntry,
  type StationTable,
} from './survey/stationTable.ts';
export {
  BYPASSES,
  CHANGERS,
  delayForSlowValve,
  EMPTY_SURVEY,
  FAULTS,
  POWERS,
  RAIN_WAYS,
  SCHOOLS,
  SEASON_WAYS,
  SENSOR_KINDS,
  SEVERITIES,
  surveyOf,
  type Device,
  type DeviceSensor,
  type DripLine,
  type FaultFound,
  type FaultSeverity,
  type FlowTest,
  type NotedCups,
  type NotedFault,
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
export { dueVisits, type DueVisit, type VisitReason } from './survey/visits.ts';
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
} from './water/figures.ts';
export { givenByMonth } from './water/given.ts';
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
} from './water/schools.ts';
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
  FAULT_WORDS,
  HEAD_WORDS,
  LACKING_WORDS,
  PANEL_WORDS,
  PLANT_WORDS,
  POWER_WORDS,
  RAIN_WORDS,
  SCHOOL_WORDS,
  SEASON_WORDS,
  SENSOR_WORDS,
  SEVERITY_WORDS,
  SOIL_WORDS,
  SOURCE_WORDS,
  STEP_WORDS,
  SUN_WORDS,
  SUPPLY_WORDS,
  visitSentence,
} from './survey/surveyWords.ts';
export { breachOf, hardPercents, type Breach } from './planner/verify.ts';
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
} from './plannerWords.ts';
export {
  searchPlan,
  type Answer,
  type Found,
  type Listener,
  type Proof,
} from './planner/search.ts';
export { seasonOf, type MonthNeed, type SeasonMonth } from './planner/season.ts';
export { datesOf } from './planner/verify.ts';
export { takePlanChange } from './planner/take.ts';
export { meanWeeklySeconds } from './judge/weekly.ts';
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
  type Place,
} from './panel/lines.ts';
export {
  panelHelp,
  panelText,
  parsePanel,
  programLabel,
  sameValue,
  type Hand,
  type PanelKind,
  type PanelValue,
} from './panel/value.ts';
export { factoryPlan, keyInLines, tickOf, type KeyLine } from './panel/keyIn.ts';
export { enteredFromShown, entryChange, type Entered } from './panel/entries.ts';
export { readBack, type ReadBack } from './panel/readBack.ts';
export { explain } from './diagnose/explain.ts';
export { fitsAll, type Explanation, type Question, type Variant } from './diagnose/search.ts';
export { evidenceOf, type Behind } from './diagnose/evidence.ts';
export { askNext, type Ask } from './diagnose/ask.ts';
export { settingsWith, type Slip } from './diagnose/slips.ts';
export {
  askSentence,
  behindSentence,
  explanationSentence,
  HIDDEN_WORDS,
  lookSentence,
  mendSentence,
  momentWords,
  NEXT_WORDS,
  openPointSentence,
  placeWords,
  readBackSentence,
  RUNG_WORDS,
  SIGN_WORDS,
  sightingSentence,
  SWITCHED_WORDS,
  TEST_WORDS,
  variantSentence,
  visitFindingSentence,
  WIRING_WORDS,
  type TimerSpeech,
} from './visitWords.ts';
export {
  closeVisit,
  openPoints,
  openSwitches,
  switchedIn,
  type OpenPoint,
} from './visit/closing.ts';
export { costOfYear, priceOf, waterUsage, type StationUsage, type Usage } from './water/usage.ts';
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
} from './calendarEvents.ts';
export { safeFixes, type SafeFixes } from './judge/safeFixes.ts';
export {
  expectedTotal,
  foundAhead,
  visitFindings,
  type VisitFinding,
} from './visit/visitFindings.ts';
export {
  NO_OFFICE,
  OFFICE_FORMAT,
  OFFICE_ID,
  OFFICE_VERSION,
  readOffice,
  type Office,
} from './homeowner/office.ts';
