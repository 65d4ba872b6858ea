import { endKeptThreads, keepThreads } from '../platform/jobs/threads.js';

// For each file of tests: its applications use the same threads, one after the other.
beforeAll(() => keepThreads());
afterAll(() => endKeptThreads());
