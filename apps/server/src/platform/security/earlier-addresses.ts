import type { NextFunction, Request, Response } from 'express';

const EARLIER = '/api/campus/';
const PRESENT = '/api/lti/';

/** Learning platforms go on asking at the addresses that they were given when they were connected. */
export function earlierAddresses(request: Request, _: Response, next: NextFunction): void {
  if (request.url.startsWith(EARLIER)) request.url = PRESENT + request.url.slice(EARLIER.length);
  next();
}

/** Whether a request came to an earlier address: its platform knows no other of ours. */
export function isEarlier({ originalUrl }: Pick<Request, 'originalUrl'>): boolean {
  return originalUrl.startsWith(EARLIER);
}

/** An address of now as it was before. */
export function earlierOf(url: string): string {
  return url.replace(PRESENT, EARLIER);
}
