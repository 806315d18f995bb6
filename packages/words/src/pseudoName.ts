/** The pseudo-language: English with marks around each message and room for longer text, so that untranslatable text shows. */
export const PSEUDO = 'en-XA';
