import { useEffect, useState } from 'react';
import { spoken, spokenBy, type Language, type Speaker } from '@water-clock/core';
import { speakerOf } from '@water-clock/words';

/**
 * Works in the language of a house: what is said to the people who live there. Until its words are there, and where none is noted, in that of the page.
 *
 * @param language null: none is noted.
 */
export function useSpeaker(language: Language | null): <T>(work: () => T) => T {
  const [other, setOther] = useState<Speaker | null | undefined>(undefined);
  useEffect(() => {
    let over = false;
    if (language !== null)
      void speakerOf(language).then((speaker) => {
        if (!over) setOther(speaker);
      });
    return () => {
      over = true;
    };
  }, [language]);
  const speaker = language === null || other === undefined ? spoken() : other;
  return (work) => spokenBy(speaker, work);
}
