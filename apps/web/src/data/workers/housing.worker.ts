/** The timers of a site together, in a worker: a shell over core. */
import {
  allFigures,
  attempt,
  faultSentence,
  crowdSentence,
  flowTone,
  houseCrowds,
  houseHeadline,
  houseMeetings,
  houseTone,
  meetingSentence,
  nightsFrom,
  setTranslator,
  type HouseTimer,
} from '@water-clock/core';
import { translatorOf } from '@water-clock/words';
import { expose } from 'comlink';
import type { HouseAnswer, HouseQuestion } from './housing.ts';

type Asked = HouseQuestion['timers'][number];

const WORST_FIRST = ['too-much', 'unknown', 'fits'];

const withFlows = ({ id, plan, survey }: Asked): HouseTimer => ({
  id,
  plan,
  flows: new Map(
    [...allFigures(plan, survey)].flatMap(([station, { flow }]) =>
      flow ? [[station, flow.value] as const] : [],
    ),
  ),
});

const worker = {
  async answer(question: HouseQuestion): Promise<HouseAnswer> {
    const { timers, supply, speech, firstNight, nights } = question;
    setTranslator(await translatorOf(question.language));
    const house = timers.map(withFlows);
    const met = attempt(() => ({
      meetings: houseMeetings(house, speech.on),
      crowds: houseCrowds(house, speech.on),
    }));
    const { meetings, crowds } = met.ok ? met.value : { meetings: [], crowds: [] };
    const tone = houseTone(meetings, supply, crowds);
    const names = new Map(timers.map(({ id, name }) => [id, name]));
    return {
      tone,
      headline: houseHeadline(tone, timers.length),
      meetings: [
        ...crowds.map((crowd) => ({
          tone: flowTone(crowd.flow, supply),
          sentence: crowdSentence(crowd, supply, { ...speech, names }),
        })),
        ...meetings.map((meeting) => ({
          tone: flowTone(meeting.worst.flow, supply),
          sentence: meetingSentence(meeting, supply, { ...speech, names }),
        })),
      ].sort((a, b) => WORST_FIRST.indexOf(a.tone) - WORST_FIRST.indexOf(b.tone)),
      nights: Object.fromEntries(
        timers.map(({ id, plan }) => {
          const made = attempt(() => nightsFrom(plan, firstNight, nights));
          return [id, made.ok ? made.value : []];
        }),
      ),
      refusal: met.ok ? null : met.faults.map(faultSentence).join(' '),
    };
  },
};
export type HousingWorker = typeof worker;

expose(worker);
