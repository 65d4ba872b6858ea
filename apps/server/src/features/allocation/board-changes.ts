import { Injectable, type CallHandler, type ExecutionContext, type NestInterceptor } from '@nestjs/common';
import { boardChange, type AllocationView, type BoardChange } from '@salt-circle/contracts';
import { map, type Observable } from 'rxjs';
import type { PersonRequest } from '../../auth/session.guard.js';

/** Boards that are kept to be compared with: of thousands of people, each takes some megabytes. */
const KEPT = 12;

/**
 * A board of two thousand people is two megabytes. Who says which one is on the screen (`?since=`) gets what differs
 * from it, as long as that answer is remembered; otherwise, and whoever says nothing, the whole board.
 */
@Injectable()
export class BoardChanges implements NestInterceptor<AllocationView, AllocationView | BoardChange> {
  /** By whom it was answered, for which exchange and when; the oldest first: whoever was answered since has the newer one. */
  readonly #answered = new Map<string, AllocationView>();

  intercept(context: ExecutionContext, next: CallHandler<AllocationView>): Observable<AllocationView | BoardChange> {
    const { query, params, person } = context.switchToHttp().getRequest<PersonRequest>();
    const whose = `${person?.id} ${String(params['exchangeId'])}`;
    return next.handle().pipe(
      map((board) => {
        const { since } = query;
        const before = typeof since === 'string' ? this.#answered.get(`${whose} ${since}`) : undefined;
        this.#keep(`${whose} ${board.asOf}`, board);
        return before === undefined ? board : boardChange(before, board);
      }),
    );
  }

  #keep(key: string, board: AllocationView): void {
    this.#answered.set(key, board);
    for (const oldest of this.#answered.keys()) {
      if (this.#answered.size <= KEPT) return;
      this.#answered.delete(oldest);
    }
  }
}
