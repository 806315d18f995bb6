import { useEffect, useState } from 'react';
import { translator, withTranslator, type Language, type Translator } from '@water-clock/core';
import { translatorOf } from '@water-clock/words';

/**
 * Works in the language of a house: what is said to the people who live there. Until its words are there, and where none is noted, in that of the page.
 *
 * @param language null: none is noted.
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
