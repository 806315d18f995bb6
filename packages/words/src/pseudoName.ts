/** The language of tests: English with marks around each message and room for longer words, so that a text without a message shows. */
export const PSEUDO = 'en-XA';
