import { restoreWords, type Plan } from '@water-clock/core';
import { usePreferences } from '../platform/preferences.tsx';
import { useKind } from '../device/useKind.ts';

/** What to say on the telephone to bring the saved settings back. */
export function RestoreWords({ plan }: { readonly plan: Plan }) {
  const { clock } = usePreferences();
  const steps = restoreWords(plan, useKind(plan), clock);
  if (steps.length === 0) return <p className="soft">This kind saves nothing inside.</p>;
  return (
    <section aria-label="A restore by phone" className="caution">
      <strong>By phone, a step at a time:</strong>
      <ol>
        {steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
    </section>
  );
}
