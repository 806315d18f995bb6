/** The address of the application's own code, which the built page tells: another one for each version. */
export const applicationOf = (page: Document): string =>
  page.querySelector<HTMLScriptElement>('script[data-main]')?.dataset['main'] ?? '';
