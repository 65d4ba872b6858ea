import type { Server } from 'node:http';
import { Injectable, type BeforeApplicationShutdown } from '@nestjs/common';
import { HttpAdapterHost } from '@nestjs/core';

/** Milliseconds. */
const LOOK_EVERY = 50;

/**
 * Requests that run are finished before the server closes. Browsers keep their connections open after that,
 * and the server would wait for each of them to time out: these are closed as soon as they are idle.
 */
@Injectable()
export class PromptShutdown implements BeforeApplicationShutdown {
  constructor(private readonly host: HttpAdapterHost) {}

  beforeApplicationShutdown(): void {
    const server = this.host.httpAdapter.getHttpServer() as Server;
    if (!server.listening) return;
    const timer = setInterval(() => server.closeIdleConnections(), LOOK_EVERY);
    server.once('close', () => clearInterval(timer));
  }
}
