import { spawnSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { adjustScores, seededRandom } from '@salt-circle/core';
import { at } from '../scripts/run.mjs';
import { line, round } from './calls.mjs';

// Scores with severity taken out, for courses of all sizes: against lme4 in R, where that is installed, and against ten times fewer people.

const ITEMS = 5;

function normal(random) {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/** Everybody reviews three others, without any order in it. */
function ratingsOf(people, seed = 7) {
  const random = seededRandom(seed);
  const effects = (deviation) => Array.from({ length: people }, () => deviation * normal(random));
  const [drafts, reviewers] = [effects(0.12), effects(0.08)];
  const ratings = [];
  for (let reviewer = 0; reviewer < people; reviewer += 1) {
    const read = new Set([reviewer]);
    while (read.size < 4) read.add(Math.floor(random() * people));
    read.delete(reviewer);
    for (const draft of read) {
      const review = 0.06 * normal(random);
      for (let item = 0; item < ITEMS; item += 1) {
        const score = 0.6 + item * 0.03 + drafts[draft] + reviewers[reviewer] + review + 0.15 * normal(random);
        ratings.push({ reviewerId: `r${reviewer}`, draftId: `d${draft}`, itemId: `i${item}`, score });
      }
    }
  }
  return ratings;
}

function took(work) {
  const begun = performance.now();
  work();
  return performance.now() - begun;
}

/** Milliseconds that lme4 takes for the same ratings, as it is; null without R. */
function byLme4(ratings) {
  const folder = at('.cache', 'bench-lme4');
  mkdirSync(folder, { recursive: true });
  const lines = ratings.map(({ reviewerId, draftId, itemId, score }) => `${reviewerId},${draftId},${itemId},${score}`);
  writeFileSync(`${folder}/ratings.csv`, `reviewer,draft,item,score\n${lines.join('\n')}\n`);
  const script = `suppressMessages(library(lme4)); x <- read.csv('${folder}/ratings.csv')
    x$review <- interaction(x$reviewer, x$draft, drop = TRUE)
    cat(system.time(lmer(score ~ 0 + item + (1|draft) + (1|reviewer) + (1|review), x))[['elapsed']])`;
  const { status, stdout } = spawnSync('Rscript', ['-e', script], { encoding: 'utf8' });
  return status === 0 ? Number(stdout) * 1_000 : null;
}

export function scoringFigures({ line, round }) {
  adjustScores(ratingsOf(60));
  const times = new Map(
    [200, 500, 1_000, 2_000].map((people) => [people, took(() => adjustScores(ratingsOf(people)))]),
  );
  const theirs = byLme4(ratingsOf(2_000));
  const ours = times.get(2_000);
  if (theirs !== null)
    line('severity, 2,000 x 3 x 5 : lme4 in R', round(ours / theirs, 2), `${round(ours)} ms here, in a thread`);
  for (const [people, next] of [
    [200, 2_000],
    [500, 1_000],
    [1_000, 2_000],
  ])
    line(
      `  the same, ${next} people : ${people}`,
      round(times.get(next) / times.get(people)),
      `${round(times.get(people))} ms for ${people}`,
    );
}

if (process.argv[1]?.endsWith('scoring.mjs')) scoringFigures({ line, round });
