import {
  DECODER_NEXT,
  DECODER_STATE_WORDS,
  decoderState,
  type DecoderReading,
  say,
} from '@water-clock/core';

interface Props {
  readonly number: number;
  readonly name: string;
  readonly serial: string;
  readonly last: DecoderReading | undefined;
}

/** A station's decoder: its serial, its last reading, what that means and what is next. */
export function DecoderSummary({ number, name, serial, last }: Props) {
  const state = last && decoderState(last);
  const current = last?.milliamps === undefined ? '' : `, ${last.milliamps} mA`;
  return (
    <span className="grow">
      <b>{number}</b> {name}{' '}
      <span className="soft">
        {serial}
        {current}
      </span>{' '}
      <span className={state && state !== 'good' ? 'fault' : 'bold'}>
        {state ? DECODER_STATE_WORDS[state] : say`Not tested`}
      </span>
      {state && DECODER_NEXT[state] && <span className="soft below">{DECODER_NEXT[state]}</span>}
    </span>
  );
}
