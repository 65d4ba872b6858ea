import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter';

const SHOWN = 10;

/** Says at the end which tests took longest: those are the ones to look at when the whole takes too long. */
export default class Slowest implements Reporter {
  readonly #took: Array<{ readonly title: string; readonly seconds: number }> = [];

  onTestEnd({ title }: TestCase, { duration }: TestResult): void {
    this.#took.push({ title, seconds: duration / 1000 });
  }

  onEnd(): void {
    const slowest = this.#took.sort((a, b) => b.seconds - a.seconds).slice(0, SHOWN);
    process.stdout.write(`\nThe slowest ${slowest.length}:\n`);
    for (const { title, seconds } of slowest) process.stdout.write(`${seconds.toFixed(1).padStart(7)} s  ${title}\n`);
  }
}
