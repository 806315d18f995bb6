import { useEffect, useState } from 'react';
import { translator, withTranslator, type Language, type Translator } from '@water-clock/core';
import { translatorOf } from '@water-clock/words';

/**
 * The translator of a site's language, for messages to the people who live there. Until it is loaded, or if none is chosen, the page's own.
 *
 * @param language null: none is chosen
 */
export function useTranslator(language: Language | null): <T>(work: () => T) => T {
  const [other, setOther] = useState<Translator | null | undefined>(undefined);
  useEffect(() => {
    let over = false;
    if (language !== null)
      void translatorOf(language).then((speaker) => {
        if (!over) setOther(speaker);
      });
    return () => {
      over = true;
    };
  }, [language]);
  const speaker = language === null || other === undefined ? translator() : other;
  return (work) => withTranslator(speaker, work);
}
