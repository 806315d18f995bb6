import { Button, Checkbox } from 'antd';
import {
  PANEL_SETTINGS,
  PANEL_WORDS,
  type Dialect,
  type PanelSetting,
  say,
} from '@water-clock/core';
import { Choice } from '../../shared/fields/Choice.tsx';

const CLOCK_WORDS = { date: say`the date`, weekday: say`weekday only` };
const WEEK_WORDS = { mon: say`Monday`, sun: say`Sunday` };
const LABEL_WORDS = { letters: say`letters, A B C`, numbers: say`numbers, 1 2 3` };
const KEY_WORDS = { names: say`by their names`, digits: say`by digits` };
const STYLE_WORDS = { either: say`either way`, '12': say`12 hours`, '24': say`24 hours` };
const PAGE_WORDS = { entered: say`as entered`, adjusted: say`adjusted by the percent` };
const PHASE_WORDS = {
  daysLeft: say`as days left`,
  firstDate: say`as the first date`,
  none: say`not at all`,
};
const COUNT_WORDS = { every: say`3: every third day`, between: say`2: the days between` };

const TOTAL_COUNTS = [
  ['percent', say`the percent`],
  ['soaks', say`soaks`],
  ['delays', say`station delays`],
] as const;

const NO_TOTAL = { shown: false, percent: false, soaks: false, delays: false };

/** The order in which settings are keyed in on this panel. */
function OrderOfKeys({
  order,
  commit,
}: {
  readonly order: readonly PanelSetting[];
  readonly commit: (order: readonly PanelSetting[]) => void;
}) {
  const missing = PANEL_SETTINGS.filter((setting) => !order.includes(setting));
  const earlier = (at: number) =>
    order.map((one, i) => (i === at - 1 ? order[at] : i === at ? order[at - 1] : one) ?? one);
  return (
    <div className="whole labelled">
      {say`In the order of keying in`}
      <ol className="tiles of-300 points">
        {order.map((setting, i) => (
          <li key={setting}>
            <span>{PANEL_WORDS[setting]}</span>
            <Button
              disabled={i === 0}
              aria-label={say`${PANEL_WORDS[setting]} earlier`}
              onClick={() => commit(earlier(i))}
            >
              ↑
            </Button>
            <Button
              aria-label={say`No ${PANEL_WORDS[setting]}`}
              onClick={() => commit(order.filter((one) => one !== setting))}
            >
              ×
            </Button>
          </li>
        ))}
      </ol>
      <span className="row near">
        {missing.map((setting) => (
          <Button key={setting} onClick={() => commit([...order, setting])}>
            {say`Add ${PANEL_WORDS[setting]}`}
          </Button>
        ))}
      </span>
    </div>
  );
}

/** How its panel writes and names settings. */
export function PanelAbilities({
  dialect,
  commit,
}: {
  readonly dialect: Dialect;
  readonly commit: (dialect: Dialect) => void;
}) {
  const total = dialect.total ?? NO_TOTAL;
  return (
    <>
      <h2 className="whole">{say`Panel`}</h2>
      <Choice
        label={say`Clock knows`}
        value={dialect.clock ?? 'date'}
        words={CLOCK_WORDS}
        commit={(clock) => commit({ ...dialect, clock })}
      />
      <Choice
        label={say`Week starts on`}
        value={dialect.weekOrder ?? 'mon'}
        words={WEEK_WORDS}
        commit={(weekOrder) => commit({ ...dialect, weekOrder })}
      />
      <Choice
        label={say`Every third day is set as`}
        value={dialect.intervalCounts ?? 'every'}
        words={COUNT_WORDS}
        commit={(intervalCounts) => commit({ ...dialect, intervalCounts })}
      />
      <Choice
        label={say`Program names`}
        value={dialect.programLabels ?? 'letters'}
        words={LABEL_WORDS}
        commit={(programLabels) => commit({ ...dialect, programLabels })}
      />
      <Choice
        label={say`Weekdays are set`}
        value={dialect.weekdayKeys ?? 'names'}
        words={KEY_WORDS}
        commit={(weekdayKeys) => commit({ ...dialect, weekdayKeys })}
      />
      <Choice
        label={say`Time format`}
        value={dialect.clockStyle ?? 'either'}
        words={STYLE_WORDS}
        commit={(clockStyle) => commit({ ...dialect, clockStyle })}
      />
      <Choice
        label={say`Run time page shows minutes`}
        value={dialect.runPage ?? 'entered'}
        words={PAGE_WORDS}
        commit={(runPage) => commit({ ...dialect, runPage })}
      />
      <Choice
        label={say`Shows interval position`}
        value={dialect.intervalPhase ?? 'daysLeft'}
        words={PHASE_WORDS}
        commit={(intervalPhase) => commit({ ...dialect, intervalPhase })}
      />
      <Checkbox
        className="check"
        checked={dialect.confirms ?? false}
        onChange={(event) => commit({ ...dialect, confirms: event.target.checked })}
      >{say`entries are lost unless confirmed`}</Checkbox>
      <OrderOfKeys
        order={dialect.order ?? PANEL_SETTINGS}
        commit={(order) => commit({ ...dialect, order })}
      />
      <div className="tiles near whole" role="group" aria-label={say`Program total`}>
        <Checkbox
          className="check"
          checked={total.shown}
          onChange={(event) =>
            commit({ ...dialect, total: { ...total, shown: event.target.checked } })
          }
        >{say`shows the total of each program`}</Checkbox>
        {total.shown &&
          TOTAL_COUNTS.map(([name, words]) => (
            <Checkbox
              className="check"
              key={name}
              checked={total[name]}
              onChange={(event) =>
                commit({ ...dialect, total: { ...total, [name]: event.target.checked } })
              }
            >{say`and includes ${words}`}</Checkbox>
          ))}
      </div>
    </>
  );
}
