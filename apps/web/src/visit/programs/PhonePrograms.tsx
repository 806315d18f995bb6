import { useState } from 'react';
import { Button, Segmented } from 'antd';
import { MinusOutlined, PlusOutlined } from '@ant-design/icons';
import {
  lengthWords,
  programsByLetter,
  runsWithLinked,
  stepped,
  type Plan,
  type Program,
  type Station,
  say,
} from '@water-clock/core';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { CheckMark } from '../checks/CheckMark.tsx';
import { LengthField } from '../../shared/fields/LengthField.tsx';
import { HeadOf, WeekOf } from './draft.tsx';

interface Props {
  readonly plan: Plan;
  readonly editor: TimerEditor;
  /** Letter of the program shown. */
  readonly letter: string;
  readonly setLetter: (letter: string) => void;
  /** Adds the next program; null: all are in use. */
  readonly add: (() => void) | null;
}

function Row({
  station,
  program,
  plan: { timer },
  editor,
}: Pick<Props, 'plan' | 'editor'> & {
  readonly station: Station;
  readonly program: Program;
}) {
  const [fault, setFault] = useState<string | null>(null);
  const seconds = program.runs.find((run) => run.station === station.number)?.seconds ?? 0;
  const change = (value: number) =>
    ({
      type: 'set-runs',
      program: program.letter,
      runs: [{ station: station.number, seconds: value === 0 ? null : value }],
    }) as const;
  const set = (value: number) => setFault(commitWords(editor, change(value)));
  const step = (direction: 1 | -1) =>
    set(stepped(seconds, direction, timer.runStepSeconds, 0, timer.longestRunSeconds));
  const name = `${station.number} ${station.name ?? ''}`;
  if (station.linkedTo !== undefined)
    return (
      <li className="phone-row">
        <b>{station.number}</b>
        <span className="phone-station">
          {station.name} <br />
          <span className="soft">{say`same as station ${station.linkedTo}`}</span>
        </span>
      </li>
    );
  return (
    <li className="phone-row">
      <b>{station.number}</b>
      <span className="phone-station">
        {station.name} <CheckMark station={station.number} />
        <WeekOf station={station.number} />
        {seconds > 0 && program.starts.length > 1 && (
          <span className="soft small">
            {say`${lengthWords(seconds)} × ${program.starts.length} = ${lengthWords(seconds * program.starts.length)} a day`}
          </span>
        )}
      </span>
      <Button
        icon={<MinusOutlined />}
        aria-label={say`Less for ${name}`}
        disabled={seconds === 0}
        onClick={() => step(-1)}
      />
      <LengthField
        label={say`Minutes of ${name} in ${program.letter}`}
        placeholder="–"
        value={seconds}
        stepSeconds={timer.runStepSeconds}
        mostSeconds={timer.longestRunSeconds}
        draft={(value) => editor.setDraft(value === null ? null : change(value))}
        commit={(value) => commitWords(editor, change(value))}
        tell={setFault}
      />
      <Button icon={<PlusOutlined />} aria-label={say`More for ${name}`} onClick={() => step(1)} />
      {fault !== null && (
        <p role="alert" className="fault">
          {fault}
        </p>
      )}
    </li>
  );
}

/** The stations of one program. An empty program lists all, and keeps them while someone sets one after another. */
function Rows(props: Props & { readonly program: Program }) {
  const { plan, program } = props;
  const [kept, setKept] = useState(() =>
    program.runs.length === 0 ? plan.stations.map(({ number }) => number) : [],
  );
  const runs = runsWithLinked(plan, program);
  const rows = plan.stations.filter(
    ({ number }) => kept.includes(number) || runs.some(({ station }) => station === number),
  );
  const others = plan.stations.filter(
    (station) => !rows.includes(station) && station.linkedTo === undefined,
  );
  return (
    <>
      <ul className="list">
        {rows.map((station) => (
          <Row key={station.number} {...props} station={station} />
        ))}
      </ul>
      {others.length > 0 && (
        <SelectField
          aria-label={say`Add station`}
          value=""
          options={[
            ['', say`Add station …`],
            ...others.map(
              ({ number, name }) => [String(number), `${number} ${name ?? ''}`] as const,
            ),
          ]}
          pick={(number) => setKept([...kept, Number(number)])}
        />
      )}
    </>
  );
}

/** On a phone: one program at a time, stations as rows with − and +. */
export function PhonePrograms(props: Props) {
  const { plan, letter, setLetter, add } = props;
  const programs = programsByLetter(plan);
  const program = programs.find((one) => one.letter === letter) ?? programs[0];
  return (
    <div className="phone-programs stack">
      <div className="row in-line">
        <Segmented
          block
          className="grow"
          aria-label={say`Program`}
          value={program?.letter ?? ''}
          options={programs.map((one) => ({ value: one.letter, label: one.letter }))}
          onChange={setLetter}
        />
        {add && <Button icon={<PlusOutlined />} aria-label={say`Add program`} onClick={add} />}
      </div>
      {program && (
        <>
          <HeadOf letter={program.letter} />
          <Rows {...props} key={program.letter} program={program} />
        </>
      )}
    </div>
  );
}
