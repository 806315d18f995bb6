import { SetMetadata } from '@nestjs/common';

export const PUBLIC = 'public';

/** Opens a handler to anybody, signed in or not. */
export const Public = () => SetMetadata(PUBLIC, true);

/** Writes that strangers may make: they are small, and nobody is asked who they are before the body is read. */
export const isPublicWrite = (path: string) =>
  /^\/api\/(session(\/forgotten)?|companies|join)\/?$/i.test(path);
