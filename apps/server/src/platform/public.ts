import { SetMetadata } from '@nestjs/common';

export const PUBLIC = 'public';

/** Opens a handler to anybody, signed in or not. */
export const Public = () => SetMetadata(PUBLIC, true);
