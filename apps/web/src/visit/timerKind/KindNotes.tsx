import { PANEL_WORDS, type TimerKind, say } from '@water-clock/core';
import { photoPath } from '../../shared/photos/photos.ts';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';

/** The company's notes about this timer kind. */
export function KindNotes({ kind }: { readonly kind: TimerKind }) {
  const { signs = [], factory = [], reach = [], note, hides, manual, restore } = kind;
  return (
    <Disclosure className="site-more" summary={say`Notes on this timer kind`}>
      {() => (
        <div className="stack">
          {note && <p>{note}</p>}
          {reach.length > 0 && (
            <dl className="stack near">
              {reach.map(({ setting, line, photo }) => (
                <div key={setting}>
                  <dt className="bold">{PANEL_WORDS[setting]}</dt>
                  <dd>
                    {line}
                    {photo && (
                      <img
                        className="photo"
                        src={photoPath(photo)}
                        alt={say`${PANEL_WORDS[setting]} on the panel`}
                      />
                    )}
                  </dd>
                </div>
              ))}
            </dl>
          )}
          {signs.length > 0 && (
            <dl className="stack near">
              {signs.map(({ sign, means }) => (
                <div key={sign}>
                  <dt className="bold">{say`If ${sign}`}</dt>
                  <dd>{means}</dd>
                </div>
              ))}
            </dl>
          )}
          {factory.length > 0 && (
            <p>
              <strong>{say`Factory settings:`}</strong>{' '}
              {factory.map(({ value }) => value).join('; ')}.
            </p>
          )}
          {manual && (
            <p>
              <strong>{say`Manual run:`}</strong> {manual}
            </p>
          )}
          {restore && (
            <p>
              <strong>{say`Save and restore:`}</strong> {restore}
            </p>
          )}
          {hides && (
            <p>
              <strong>{say`Hidden:`}</strong> {hides}
            </p>
          )}
        </div>
      )}
    </Disclosure>
  );
}
