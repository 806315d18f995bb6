/**
 * Which parts of a timer's record form one fact, so that two people can change them independently. docs/sync.md has the same table in
 * words, and a test compares the two.
 */

/** A part of a document, for merging. */
export type Part =
  /** Changes as a whole. */
  | { readonly as: 'one' }
  /** Each field by itself; fields of a `together` group change as one. */
  | {
      readonly as: 'fields';
      readonly of?: Readonly<Record<string, Part>>;
      readonly together?: readonly (readonly string[])[];
    }
  /** A list of named entries, each by itself. */
  | {
      readonly as: 'named';
      readonly by: readonly string[];
      readonly of: Part;
      /** In the order of names; absent: the order is a fact of its own. */
      readonly sorted?: true;
    }
  /** A list in which each entry is either there or not. */
  | { readonly as: 'entries' };

export const ONE: Part = { as: 'one' };
const ENTRIES: Part = { as: 'entries' };
const FIELDS: Part = { as: 'fields' };
const named = (by: readonly string[], of: Part = ONE): Part => ({ as: 'named', by, of });
const sortedBy = (by: string, of: Part): Part => ({ as: 'named', by: [by], of, sorted: true });

/** Cycle and soak belong together. */
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

/** The whole record. Anything not listed is one fact for each field. */
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
