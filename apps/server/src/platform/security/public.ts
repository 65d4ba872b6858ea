import { SetMetadata } from '@nestjs/common';

export const PUBLIC = 'salt-circle:public';

/** Marks a route, or a controller's routes, that answer without a session. */
export const Public = () => SetMetadata(PUBLIC, true);
