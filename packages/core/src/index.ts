/** The core of Water Clock: what the applications use of it, by name. Each section is a folder. */

// Documents: reading, faults, cells.
export { pathText, type Fault, type Outcome, type Path } from './document/fault.ts';

// Time: the calendar, day rules, windows, the clock.
export {
  civilOf,
  epochDayOf,
  formatDate,
  formatMoment,
  formatTime,
  monthOf,
  parseDate,
  parseMoment,
  parseSecond,
  parseTime,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  WEEKDAYS,
  type ClockSecond,
  type EpochDay,
  type Weekday,
} from './time/calendar.ts';
export { clockAhead, yearsAhead } from './time/clock.ts';
export { daysLeft, type Days } from './time/dayRules.ts';
export {
  parseRunEntry,
  parseTimeEntry,
  runEntryHelp,
  runEntryText,
  stepped,
  steppedStart,
  timeEntryHelp,
} from './time/entry.ts';
export { dateEntryHelp, parseDateEntry } from './words/dateEntry.ts';
export type { NoWaterWindow } from './time/windows.ts';
export { HOURS_PER_DAY, hoursHeld, paintedWindows, type HourOfWeek } from './time/windowGrid.ts';

// Wording shared by all messages.
export { faultLine, faultSentence } from './words/faultWords.ts';
export {
  dateWords,
  daysOnTimer,
  daysWords,
  lengthWords,
  minutesWords,
  listed,
  momentWords,
  monthName,
  nameOfWeekday,
  startWords,
  timeWords,
  weekdayName,
  weekdaysWords,
  type ClockStyle,
  DATE_ORDERS,
  type DateOrder,
  type Speech,
} from './words/words.ts';

// The plan: timer kinds, changes and differences.
export {
  applyChange,
  linkStationChange,
  removeStationChange,
  type PlanChange,
  type RunEntry,
} from './plan/change.ts';
export type { Difference } from './plan/difference.ts';
export {
  KIND_FORMAT,
  KIND_VERSION,
  PANEL_SETTINGS,
  POWERS,
  readTimerKind,
  readTimerKindText,
  type PanelSetting,
  type Power,
  type RainDelayOfKind,
  type TimerKind,
} from './plan/kind.ts';
export { PANEL_WORDS, rainDelayWords } from './plan/kindWords.ts';
export { runsWithLinked } from './plan/linked.ts';
export { samePlan } from './plan/samePlan.ts';
export {
  letterAt,
  ON_OVERLAPS,
  PLAN_MEDIA_TYPE,
  programsByLetter,
  START_STEPS_MINUTES,
  type Dialect,
  type OnOverlap,
  type Plan,
  type Program,
  type Seasonal,
  type Station,
  type Timer,
} from './plan/plan.ts';
export { missingSentence, programLabel, type TimerSpeech } from './plan/planWords.ts';
export {
  adjustedSeconds,
  effectivePercent,
  isUnused,
  missingOf,
  percentSteps,
  hasPercent,
} from './plan/program.ts';
export { wateringStations } from './plan/linked.ts';
export { readPlan, readPlanText, writePlan } from './plan/readPlan.ts';
export { emptyPlan, SHIPPED_KINDS, TIMER_KINDS } from './plan/shippedKinds.ts';

// The brief.
export { wishOf, type Brief, type BriefRules, type OftenADay, type Wish } from './brief/brief.ts';
export { readBriefText, writeBrief } from './brief/readBrief.ts';
export { NEED_TOLERANCE } from './brief/wanted.ts';

// The engine: cycles, overlaps, headroom, simulation, the night and the year.
export { blockedStarts } from './engine/blockedStarts.ts';
export { calendarWeekday, wateringEvents, type WateringEvent } from './engine/calendarEvents.ts';
export { startsMovedBy, type ClockChange } from './engine/clockChanges.ts';
export { cycleShape, type CycleShape } from './engine/cycle.ts';
export { dryStretches, type DryStretch } from './engine/dryStretches.ts';
export { attempt, Effort } from './engine/effort.ts';
export {
  atPercent,
  NIGHT_BEGINS_SECOND,
  nightOf,
  nightsFrom,
  tonightOf,
  type Night,
  type ServedStart,
} from './engine/night.ts';
export { nextCycles, type NextCycle } from './engine/nominal.ts';
export { consequenceSentence, oftenWords, overlapSentence } from './engine/overlapWords.ts';
export { simulate, simulationReport } from './engine/simulate.ts';
export { totalOnDisplay } from './engine/total.ts';
export { prove, verdictOf, type Verdict } from './engine/verdict.ts';
export { meanWeeklySeconds } from './engine/weeklyWater.ts';
export {
  intervalDaysLeft,
  ruleDaysFrom,
  yearFrom,
  type Forbidden,
  type RuleDay,
  type YearDay,
} from './engine/year.ts';

// The simulated timer, and what is done to it.
export { SimulatedTimer } from './simulatedTimer/simulatedTimer.ts';
export type {
  Called,
  TimerCycle,
  TimerRun,
  SimulatedTimerState,
} from './simulatedTimer/timerState.ts';
export {
  EVENTS_FORMAT,
  EVENTS_VERSION,
  readEvents,
  readEventsText,
  type Events,
  type Press,
  type TimedPress,
} from './simulatedTimer/events.ts';
export { pressedNights } from './simulatedTimer/pressedNight.ts';
export { pressWords } from './simulatedTimer/pressWords.ts';
export {
  eventsReport,
  simulateEvents,
  type TimerSimulation,
} from './simulatedTimer/simulateEvents.ts';

// The bench: a simulated timer behind a panel of our own design.
export { LiveBench } from './bench/bench.ts';
export {
  BENCH_KEYS,
  type BenchAct,
  type BenchKey,
  type BenchStart,
  type BenchState,
  type Display,
  type Lamps,
  type LoggedAct,
} from './bench/state.ts';
export { GARDEN_FAULTS, type Bed, type GardenFault } from './bench/garden.ts';
export type { Page } from './bench/pages.ts';

// Checking a plan: findings, limits, fixes, reports.
export { aboutOf, canBeAccepted, judged, type Judged, type Accepted } from './findings/accepted.ts';
export { onAnyDay, proveAnyPhase } from './engine/anyPhase.ts';
export { check, type Check } from './findings/check.ts';
export { checkReport } from './findings/checkReport.ts';
export type { Finding } from './findings/finding.ts';
export { findingSentence, fixWords } from './findings/findingWords.ts';
export {
  findingGroups,
  groupSentence,
  withoutRepeats,
  type FindingGroup,
} from './findings/findingGroups.ts';
export { fixOf, withoutStart } from './findings/fixes.ts';
export { notFitting } from './findings/limits.ts';
export { leftSentences, safeFixes, type SafeFixes as SafeFixesMade } from './findings/safeFixes.ts';
export { brokenWeekdays, forbiddenWeekdays } from './findings/ruleBreaches.ts';
export { overlapFindings, runsSideBySide } from './findings/sideBySide.ts';
export { verdictWords, type VerdictWords } from './findings/verdictWords.ts';

// Water: calculations with rates and weather.
export {
  CLIMATE_FORMAT,
  CLIMATE_VERSION,
  climateOf,
  readClimate,
  readClimateText,
  type ClimateDocument,
  type EtoWay,
  type WeatherDay,
  type WeatherFigures,
} from './water/climate.ts';
export {
  readMinutesTable,
  readMinutesTableText,
  SHIPPED_MINUTES,
  SHIPPED_MINUTES_ID,
  type MinutesTable,
} from './water/minutesTable.ts';
export { percentByMonth, type Climate } from './water/need.ts';
export {
  cupResult,
  pieceFromTries,
  pieceOnTimer,
  piecesOf,
  schedulingMultiplier,
} from './water/rate.ts';
export {
  SIMULATED_COUNT,
  SIMULATED_FROM,
  SIMULATED_TOWNS,
  simulatedDays,
  simulatedNormals,
  type SimulatedTown,
  type WeatherTown,
} from './water/simulatedWeather.ts';
export { HEADS, soakSecondsOf, type HeadType } from './water/tables.ts';
export {
  quantityWords,
  shownIn,
  typedIn,
  unitWords,
  type Quantity,
  type UnitSystem,
} from './water/units.ts';
export {
  MOST_WEATHER_ROWS,
  readWeatherTable,
  weatherDayRows,
  weatherMonthRows,
  type WeatherTable,
} from './water/weatherTable.ts';

// The garden: head types, soils, figures, need, usage.
export type { SupplyNoted } from './findings/supplyFindings.ts';
export { allFigures, canRunAtOnce, figuresOf } from './garden/figures.ts';
export { LACKING_WORDS, SOURCE_WORDS, STEP_WORDS } from './garden/gardenWords.ts';
export { givenByMonth } from './garden/given.ts';
export {
  daysByMonth,
  siteMinutes,
  type SchoolAnswer,
  type SiteMinutes,
  type StationMinutes,
  type Step,
  type StepUnit,
} from './garden/schools.ts';
export { costOfYear, stationFlow, waterUsage, type Usage } from './garden/usage.ts';

// The survey of the garden.
export { MOST_CUPS, MOST_DECODER_READINGS, MOST_PHOTOS, readSurvey } from './survey/readSurvey.ts';
export {
  CHANGERS,
  DEFECTS,
  delayForSlowValve,
  EMPTY_SURVEY,
  RAIN_WAYS,
  SCHOOLS,
  SENSOR_KINDS,
  surveyOf,
  phaseFields,
  unknownPhases,
  URGENCIES,
  type Defect,
  type FittedTimer,
  type TimerSensor,
  type FlowTest,
  type NotedCups,
  type NotedDefect,
  type Overruled,
  type RainWay,
  type RunOffTest,
  type School,
  type Survey,
  type SurveyStation,
  type SurveyStationFields,
  type Urgency,
} from './survey/survey.ts';
export { powerOf } from './survey/power.ts';
export { plantsFields, usualOften } from './survey/newPlanting.ts';
export {
  CHANGER_WORDS,
  DEFECT_WORDS,
  HEAD_WORDS,
  PLANT_WORDS,
  POWER_WORDS,
  RAIN_WORDS,
  SCHOOL_WORDS,
  SEASON_WORDS,
  SENSOR_WORDS,
  SOIL_WORDS,
  SUN_WORDS,
  URGENCY_WORDS,
} from './survey/surveyWords.ts';

// The site.
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
export { SUPPLY_WORDS } from './site/siteWords.ts';

// Watering rules.
export {
  bansByMonth,
  banSpans,
  comingRules,
  houseRulesOn,
  ruledOut,
  type ComingRules,
  type MonthBan,
  type RuledOut,
} from './rules/houseRules.ts';
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
export {
  allowedWords,
  banSpanSentence,
  banWords,
  conditionWords,
  rulesSentence,
} from './rules/rulesWords.ts';
export {
  isRoster,
  ROSTER_KINDS,
  rosterOf,
  rosterRows,
  withRoster,
  type Roster,
  type RosterKind,
  type RosterTable,
} from './rules/roster.ts';
export { rulingOn, type RuledHouse } from './rules/ruling.ts';

// The visit.
export { readClosedVisit, readUndonePoints } from './visit/readVisit.ts';
export {
  FIRST_SHOWN,
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
  type FirstShown,
  type FollowUp,
  type Frozen,
  type HiddenAnswer,
  type KeyIn,
  type KeyInScope,
  type NextReason,
  type NextVisit,
  type PanelLooked,
  type RungTried,
  type Sighting,
  type Sign,
  type StationTest,
  type Switched,
  type Tariff,
  type Undone,
  type Visit,
} from './visit/visit.ts';
export {
  phasesAfterLoss,
  powerAsks,
  powerAskWords,
  powerCameBack,
  type PowerAsk,
} from './record/powerLook.ts';
export {
  HIDDEN_WORDS,
  NEXT_WORDS,
  RUNG_WORDS,
  sightingSentence,
  SIGN_WORDS,
  SWITCHED_WORDS,
  TEST_WORDS,
  WIRING_WORDS,
} from './visit/visitWords.ts';

// The planner.
export { conflictSentences } from './planner/demandWords.ts';
export type { Pins, PlannerOptions } from './planner/options.ts';
export { highPercent } from './brief/wanted.ts';
export type { OutsideHours, Short } from './planner/relief.ts';
export { planReport } from './planner/planReport.ts';
export { comingKept, type ComingKept } from './planner/coming.ts';
export { readGarden, readGardenText } from './season/readGarden.ts';
export { seasonFor, type Season, type StationSeason } from './season/season.ts';
export { seasonReport } from './season/seasonReport.ts';
export type { Garden, GardenStation } from './season/garden.ts';
export { repair, type Repaired, type RepairCost } from './repair/repair.ts';
export { repairChange } from './repair/repairChange.ts';
export { waterChanges, type WaterChange } from './engine/waterChanges.ts';
export { MOST_BY_PHONE, repairReport, repairSummary } from './repair/repairReport.ts';
export { settingChanges, type SettingChange } from './repair/settings.ts';
export {
  ALTERNATIVE_WORDS,
  comparedSentence,
  monthSentence,
  notKept,
  proofSentence,
  reasonSentence,
  simplerSentence,
  sourceWords,
  stationWords,
} from './planner/plannerWords.ts';
export { compareCosts, type Cost } from './planner/cost.ts';
export type { Proof } from './planner/proof.ts';
export type { Reason } from './planner/reasons.ts';
export { seasonOf, type MonthNeed, type SeasonMonth } from './planner/season.ts';
export { takePlanChange } from './planner/take.ts';
export { datesOfProgram } from './plan/starts.ts';
export {
  alternativesOf,
  claimsOf,
  solve,
  workOut,
  type AlternativeKind,
  type Claims,
  type Simpler,
  type Solved,
  type Worked,
} from './planner/workOut.ts';

// The panel: keying in.
export { enteredFromShown, entryChange, type Entered } from './panel/entries.ts';
export { changedSettings } from './panel/changedSettings.ts';
export {
  factoryPlan,
  isOff,
  isTicked,
  keyInLines,
  programOf,
  withEqualRuns,
  type KeyLine,
} from './panel/keyIn.ts';
export { programName, type PanelLine, type PanelNow } from './panel/line.ts';
export { orderOf, panelLines } from './panel/lines.ts';
export { readBackSentence } from './panel/panelWords.ts';
export { readBack } from './panel/readBack.ts';
export { latestRainDelayEnd, rainDelayEnds } from './panel/rainDelay.ts';
export { parsePanel } from './panel/parseValue.ts';
export { panelHelp, panelText, sameValue, type PanelValue } from './panel/value.ts';

// Wires, coils and decoders.
export {
  judgeWiring,
  parseReading,
  stateOf,
  type Reading,
  type WireJudgement,
  type WireState,
} from './wiring/judgeWiring.ts';
export { wireMeaning, wireNext } from './wiring/wiringWords.ts';
export {
  assignInOrder,
  DECODER_NEXT,
  DECODER_STATE_WORDS,
  decoderState,
  isNewSerial,
  LineSearch,
  newSerial,
  simulatedDecoders,
  SimulatedLine,
  unheard,
  type Decoder,
  type DecoderReading,
  type TwoWireLine,
} from './wiring/line.ts';

// The diagnosis.
export { askNext, type Ask } from './diagnose/ask.ts';
export { pressesOf, settingsWith, type Cause } from './diagnose/causes.ts';
export {
  askSentence,
  behindSentence,
  explanationSentence,
  lookSentence,
  mendSentence,
  variantSentence,
} from './diagnose/diagnoseWords.ts';
export { evidenceOf, type Behind } from './diagnose/evidence.ts';
export { explain } from './diagnose/explain.ts';
export {
  explainReport,
  readSightings,
  readSightingsText,
  SIGHTINGS_FORMAT,
  type Sightings,
} from './diagnose/sightings.ts';
export { fitsAll, type Explanation, type Question } from './diagnose/triedWorlds.ts';

// The whole record of a timer.
export {
  announcedEditions,
  assembleBrief,
  usualWish,
  takeBriefChange,
  unknownNeeds,
  withPresentWater,
} from './record/assembleBrief.ts';
export { closeVisit, notAmong, openSwitches, undoneId, undoneIn } from './record/closing.ts';
export { keyInBase, notKeyed } from './record/notKeyed.ts';
export { readSerialList } from './wiring/serialList.ts';
export { stationName } from './panel/line.ts';
export { kindLine } from './plan/kindLine.ts';
export { kindChange } from './record/kindChange.ts';
export { batteryDue, dueVisits, type DueVisit, type VisitReason } from './record/dueVisits.ts';
export { rainSensorOf, RAIN_SENSORS, type RainSensor } from './survey/rainSensor.ts';
export { ruleStatus, type RuleStatus } from './record/ruleStatus.ts';
export { supplyNoted, type SiteWater } from './record/supplyStatus.ts';
export { replan, type ReplanAim, type Replanned, type ReplanSources } from './record/replan.ts';
export { kilometresBetween, routeKilometres, routeThrough, type Position } from './site/route.ts';
export { visitFacts, type StateFacts, type VisitFacts } from './record/visitFacts.ts';
export { homeownerNotice, phoneSentences, type Notice } from './homeowner/notice.ts';
export { seasonYear, type SeasonYear } from './garden/seasonYear.ts';
export {
  ruleTroubleWords,
  timerStatusWords,
  timerStatus,
  unprovenStatus,
  weekOf,
  type TimerStatusWords,
  type TimerStatus,
  type WeekDay,
} from './record/timerStatus.ts';
export {
  applyRecordChange,
  readRecordChange,
  touchesPlan,
  type RecordChange,
  type TimerRecord,
} from './record/record.ts';
export { planDifferences } from './record/planDifferences.ts';
export { recordDifferences } from './record/recordDifferences.ts';
export { type Clash, type Side } from './merge/mergeParts.ts';
export {
  changeBetween,
  factAt,
  mergeRecords,
  NO_CHOICES,
  sameRecord,
  type Choices,
} from './merge/mergeRecords.ts';
export {
  CLOSING_AT,
  closingChange,
  rebase,
  whoChanged,
  type Closing,
  type OthersChange,
  type Rebased,
  type TimerWrite,
} from './merge/rebase.ts';
export {
  nextVisitWords,
  repeatWords,
  undoneSentence,
  visitFindingSentence,
  visitReasonWords,
  visitSentence,
} from './record/recordWords.ts';
export {
  MOST_STATION_ROWS,
  readStationTable,
  stationRows,
  stationTableChange,
  type StationTable,
} from './record/stationTable.ts';
export {
  expectedTotal,
  isTwoWire,
  visitFindings,
  type VisitFinding,
} from './record/visitFindings.ts';
export { clockReading, type ClockReading } from './record/clockReading.ts';

// For the homeowner.
export { NO_OFFICE, OFFICE_ID, readOffice, type Office } from './homeowner/office.ts';
export { doorCard, type CardSources, type DoorCard } from './homeowner/doorCard.ts';
export type { PageSources } from './homeowner/pageSources.ts';
export { restoreWords } from './homeowner/restoreWords.ts';
export { homeownerPage, type HomeownerPage, type WeekRun } from './homeowner/page.ts';
export { LOOK_TILE, lookOf, PROGRAM_LOOKS, type ProgramLook } from './words/programLooks.ts';
export {
  houseMeetings,
  type Flow,
  type HouseCycle,
  type HouseEvent,
  type HouseMeeting,
  type HouseTimer,
} from './engine/houseMeetings.ts';
export { houseCrowds, type HouseCrowd } from './engine/houseCrowds.ts';
export {
  crowdSentence,
  flowTone,
  houseHeadline,
  houseTone,
  meetingSentence,
  type HouseSpeech,
  type HouseTone,
  type MeetingTone,
} from './engine/houseWords.ts';
export { occupiedWeek } from './engine/occupiedWeek.ts';
export {
  MOST_SITE_ROWS,
  readSiteTable,
  SITE_HEADINGS,
  type SiteEntry,
  type SiteTable,
} from './site/siteTable.ts';
export type { CellFault } from './document/cells.ts';

// Practice: tasks for the bench.
export { taskOfPlan, type TaskWords } from './trainer/makeTask.ts';
export { MOST_LEVEL, randomTask } from './trainer/randomTask.ts';
export { SHIPPED_TASKS } from './trainer/shippedTasks.ts';
export { spokenTask } from './trainer/spokenTask.ts';
export {
  benchAfter,
  benchOf,
  needsMet,
  pressAll,
  scoreOf,
  wentWrongAt,
  type NeedMet,
  type Score,
} from './trainer/judgeTask.ts';
export {
  planWith,
  readTask,
  readTaskText,
  TASK_FAULTS,
  TASK_FORMAT,
  type Need,
  type Task,
  type TaskFault,
} from './trainer/task.ts';
export {
  language,
  LANGUAGES,
  plural,
  say,
  sayAs,
  sayText,
  setLocaleResolver,
  setTranslator,
  translator,
  withTranslator,
  wordsOf,
  type DatePart,
  type Language,
  type MessageValue,
  type Translator,
} from './language/say.ts';
