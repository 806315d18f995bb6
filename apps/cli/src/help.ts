/** Text of `water-clock --help`. */
import { MOST_DAYS } from './call.ts';

export const HELP = `water-clock: what a sprinkler timer does with its settings, and whether its cycles ever overlap

  water-clock check PLAN [PLAN …] --on DATE [--brief BRIEF] [--supply LITRES] [--pump runs-on|stops|unknown]
      The verdict, exact for every date from DATE on: does any program cycle overlap another? With a brief, also whether the
      plan keeps the watering rules, the mowing days and the water that is needed. With --supply (litres a minute), whether
      stations open together take more than that, by their flowLpm; with --pump, whether a station delay runs a pump against
      closed valves.

  water-clock plan BRIEF [BRIEF …] [--on DATE]
      The best programs for a brief, with reasons: { plan, cost, report }. Intervals begin on or after DATE.

  water-clock repair PLAN BRIEF [--on DATE]
      The fewest settings to change so that a plan keeps a brief again: { plan, changes, cost, report }. DATE is today by default.

  water-clock season PLAN GARDEN [--daily STATION]
      What the garden gets from the plan over years of weather, by station: days of stress, run-off, and water lost below the
      roots; with --daily, one station day by day.

  water-clock simulate PLAN [PLAN …] --from DATE --days N [--events EVENTS]
      Every cycle and every valve for N days (1 to ${MOST_DAYS}), as the timer really runs them; with events, including what
      people, weather and power do to it.

  water-clock explain PLAN SIGHTINGS
      Likely causes of what someone saw of the timer, likeliest first, with what to check: { explanations }.

PLAN is a plan document (*.plan.json), BRIEF a brief (*.brief.json), EVENTS a list of events (*.events.json), SIGHTINGS what was
seen (*.sightings.json), GARDEN its soil, plants and weather (*.garden.json), or - for standard input. DATE is YYYY-MM-DD, years 1970 to 9999.

One PLAN prints one JSON object. Several print JSON Lines, one object for each file in the order given, with its name in
"file"; a refused one is { "file", "refused": [ "PATH: what is wrong and what is allowed" ] }.

Exit code  0  done
           1  a document is refused; standard error has a line for each fault, "PATH: what is wrong and what is allowed"
           2  the command line is wrong
           3  a brief has no plan (report.conflicts says which demands conflict and what would help), or no repair was found

What a verdict means
  clear        no two cycles ever overlap; headroomPercent is how high the seasonal percent can go
  overlap      some do; "overlaps" has the first event for each pair of starts, and the seconds in common
  incomplete   a program is not complete: "missing" says whether it lacks starts, runs or days
  empty        nothing waters

Try it
  water-clock check docs/spec/examples/one-start.plan.json --on 2027-03-01
  water-clock plan docs/examples/eight-stations.brief.json
  water-clock simulate docs/spec/examples/stretched-into-the-next.plan.json --from 2027-07-05 --days 7
  water-clock simulate docs/spec/examples/events-rain.plan.json --from 2027-03-01 --days 4 --events docs/spec/examples/events-rain.events.json
  cat garden.plan.json | water-clock check - --on 2027-03-01
`;
