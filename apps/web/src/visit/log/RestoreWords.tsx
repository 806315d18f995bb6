import { restoreWords, say, type Language, type Plan } from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { useTranslator } from '../../app/platform/useTranslator.ts';
import { useKind } from '../timerKind/useKind.ts';

/** Phone script for restoring the saved settings. */
export function RestoreWords({
  plan,
  language,
}: {
  readonly plan: Plan;
  /** Language of the site; null: not chosen. */
  readonly language: Language | null;
}) {
  const { clock } = usePreferences();
  const kind = useKind(plan);
  const inTheirs = useTranslator(language);
  const steps = inTheirs(() => restoreWords(plan, kind, clock));
  if (steps.length === 0)
    return <p className="soft">{say`This timer kind cannot save its settings.`}</p>;
  return (
    <section aria-label={say`Restore by phone`} className="caution">
      <strong>{say`By phone, one step at a time:`}</strong>
      <ol>
        {steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
    </section>
  );
}
