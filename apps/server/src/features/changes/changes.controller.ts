import { Controller, Req, Sse, type MessageEvent } from '@nestjs/common';
import type { Request } from 'express';
import { Observable } from 'rxjs';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { ChangesService } from './changes.service.js';

@Controller('changes')
export class ChangesController {
  constructor(private readonly changes: ChangesService) {}

  /** Server-sent events (HTML Standard, section 9.2), one for each exchange in which something changed. */
  @Sse()
  listen(@Me() me: CurrentUser, @Req() request: Request): Observable<MessageEvent> {
    return new Observable((subscriber) =>
      this.changes.listen({
        personId: me.id,
        cookie: request.headers.cookie,
        tell: (news) => subscriber.next({ data: news }),
        end: () => subscriber.complete(),
      }),
    );
  }
}
