import { DATE_ORDER } from '@salt-circle/core';
import type { AuditEntry } from '../../model/audit-entry.js';
import type { DomainEvent, MovedDate } from './domain-event.js';

/** Of payloads as they are written now. Entries from before versions were kept have 1. */
export const EVENT_VERSION = 2;

type Details = AuditEntry['details'];

/** A stored event as it would be written now, whichever version wrote it. */
export function pastEvent(entry: AuditEntry): DomainEvent {
  const { action, actorId, courseId, exchangeId, version } = entry;
  const details = version < EVENT_VERSION ? upcast(action, entry.details) : entry.details;
  return {
    ...{ action, actorId, courseId: courseId ?? undefined, exchangeId: exchangeId ?? undefined },
    ...(Object.keys(details).length > 0 && { details }),
  } as unknown as DomainEvent;
}

/** From version 1: lists were texts with commas, moved dates were keys beside each other, an override kept its new value only. */
function upcast(action: string, details: Details): Details {
  switch (action) {
    case 'plan-changed':
    case 'rules-changed':
      return { tell: false, ...details, changed: listOf(details['changed']) };
    case 'dates-changed':
      return { moved: movedIn(details), tell: details['tell'] === true };
    case 'grading-shared':
      return { ...details, works: listOf(details['works']) };
    case 'grade-overridden': {
      const { value = null, reason = null, ...rest } = details;
      // A grade as a whole was in percent.
      const to = typeof value === 'number' && details['part'] === 'whole' ? value / 100 : value;
      return { ...rest, to, reason };
    }
    default:
      return details;
  }
}

function listOf(text: unknown): string[] {
  return typeof text === 'string' && text !== '' ? text.split(', ') : [];
}

/** A saved plan named the dates that changed, a move had them with what they were. */
function movedIn(details: Details): MovedDate[] {
  const named = new Set(listOf(details['changed']));
  const textOf = (key: string) => (typeof details[key] === 'string' ? details[key] : null);
  return DATE_ORDER.filter((date) => date in details || named.has(date)).map((date) => ({
    date,
    from: textOf(`was.${date}`),
    to: textOf(date),
  }));
}
