import { SetMetadata } from '@nestjs/common';

export const PUBLIC = 'public';

/** Opens a handler to people who are not signed in. */
export const Public = () => SetMetadata(PUBLIC, true);
