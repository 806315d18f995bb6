/**
 * Which parts of a timer's record are one fact: what two people can change apart from each other. The table of docs/sync.md says the same in words; a test holds
 * the two against each other.
 */

/** A part of a document, as merging sees it. */
export type Part =
  /** It changes as a whole. */
  | { readonly as: 'one' }
  /** Each field apart from the others; those of a group of `together` belong to each other. */
  | {
      readonly as: 'fields';
      readonly of?: Readonly<Record<string, Part>>;
      readonly together?: readonly (readonly string[])[];
    }
  /** A list whose entries have names: each apart from the others. */
  | {
      readonly as: 'named';
      readonly by: readonly string[];
      readonly of: Part;
      /** In the order of the names; absent: the order is a fact of its own. */
      readonly sorted?: true;
    }
  /** A list in which each entry stands for itself: it is there or not. */
  | { readonly as: 'entries' };

export const ONE: Part = { as: 'one' };
const ENTRIES: Part = { as: 'entries' };
const FIELDS: Part = { as: 'fields' };
const named = (by: readonly string[], of: Part = ONE): Part => ({ as: 'named', by, of });
const sortedBy = (by: string, of: Part): Part => ({ as: 'named', by: [by], of, sorted: true });

/** A piece and its rest are found together. */
const PIECES = ['cycleSeconds', 'soakSeconds'];

const VISIT: Part = {
  as: 'fields',
  of: {
    panel: { as: 'fields', of: { looked: ENTRIES, shown: named(['line']), photos: ENTRIES } },
    totals: named(['program']),
    sightings: ENTRIES,
    signs: ENTRIES,
    ladders: named(['station', 'rung']),
    keyIn: { as: 'fields', of: { ticked: ENTRIES } },
    tests: named(['station'], FIELDS),
    switched: named(['what']),
    photos: ENTRIES,
  },
};

/** The whole record. What is not named here is one fact by field. */
export const RECORD: Part = {
  as: 'fields',
  of: {
    plan: {
      as: 'fields',
      of: {
        settings: { as: 'fields', together: [['seasonalPercent', 'monthlyPercent']] },
        stations: sortedBy('number', { as: 'fields', together: [PIECES] }),
        programs: sortedBy('letter', {
          as: 'fields',
          of: { runs: named(['station']) },
          together: [PIECES],
        }),
      },
    },
    survey: {
      as: 'fields',
      of: {
        stations: sortedBy('number', {
          as: 'fields',
          of: {
            faults: named(['fault']),
            photos: ENTRIES,
            overruled: FIELDS,
            decoderReadings: ENTRIES,
          },
        }),
        device: {
          as: 'fields',
          of: { sensors: named(['kind']) },
          together: [['clockShown', 'clockReally']],
        },
        unknownPhases: named(['program']),
        accepted: named(['code', 'about']),
        next: ENTRIES,
        visit: VISIT,
      },
    },
  },
};
