import { SetMetadata } from '@nestjs/common';

export const PUBLIC = 'public';

/** Opens a handler to everyone, signed in or not. */
export const Public = () => SetMetadata(PUBLIC, true);

/** Writes open to strangers; small, so their bodies are read before any check. */
export const isPublicWrite = (path: string) =>
  /^\/api\/(session(\/forgotten)?|companies|join)\/?$/i.test(path);
