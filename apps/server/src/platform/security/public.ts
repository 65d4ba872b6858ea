import { SetMetadata } from '@nestjs/common';

export const PUBLIC = 'salt-circle:public';

/** Marks a route, or a controller's routes, that answer without a session. */
export const Public = () => SetMetadata(PUBLIC, true);

export const FROM_ELSEWHERE = 'salt-circle:from-elsewhere';

/** Marks a route that browsers are sent to by other sites: what it is told counts only if it is signed, and belongs to the browser. */
export const FromElsewhere = () => SetMetadata(FROM_ELSEWHERE, true);
