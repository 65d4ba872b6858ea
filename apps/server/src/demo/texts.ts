import type { Site } from './sites.js';

export interface DemoText {
  readonly title: string;
  readonly html: string;
}

const list = (steps: readonly string[]) => `<ol>${steps.map((step) => `<li><p>${step}.</p></li>`).join('')}</ol>`;

function costTable(site: Site): string {
  const rows = site.costs.map(
    ([what, amount, cost]) => `<tr><td><p>${what}</p></td><td><p>${amount}</p></td><td><p>${cost}</p></td></tr>`,
  );
  const sum = site.costs.reduce((total, [, , cost]) => total + cost, 0);
  return (
    '<table><tbody><tr><th><p>What</p></th><th><p>How much</p></th><th><p>Thousand euros</p></th></tr>' +
    `${rows.join('')}<tr><td><p>In all</p></td><td><p></p></td><td><p>${sum}</p></td></tr></tbody></table>`
  );
}

const upper = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Two ways of building the same kind of proposal, as two students would. */
export function proposal(site: Site, variant: 0 | 1): DemoText {
  if (variant === 0) {
    return {
      title: `Bringing back ${site.name}`,
      html:
        `<h2>1. Summary</h2><p>This proposal is about ${site.name}. ${site.proposal} It names what we measured, what we do not know, and what it would cost.</p>` +
        `<h2>2. Why this site</h2><p>${site.cause} ${site.evidence}</p><p>${site.loss}</p>` +
        `<h2>3. Method</h2><p>${site.proposal} ${site.reason}</p>${list(site.steps)}` +
        `<h2>4. Costs</h2><p>Prices are from two local firms, asked in the autumn, and from our own hours.</p>${costTable(site)}` +
        `<h2>5. What could go wrong</h2><p>${site.risk} ${site.neighbours} We would <strong>stop and report</strong> if either came true in the first year.</p>`,
    };
  }
  return {
    title: `${upper(site.name)}: a restoration proposal`,
    html:
      `<h2>The problem</h2><p>${site.loss} It was not always so. ${site.cause}</p>` +
      `<h2>What we found</h2><p>${site.evidence} All figures are from our own visits unless a source is named.</p>` +
      `<blockquote><p>${site.neighbours}</p></blockquote>` +
      `<h2>What we would do</h2><p>${site.proposal}</p><p>${site.reason} In short, the work goes in three steps:</p>${list(site.steps)}` +
      `<h2>What it costs</h2>${costTable(site)}` +
      `<h2>Doubts</h2><p>${site.risk} A reader who knows the place better than we do may find more, and we ask for that.</p>`,
  };
}

export function siteDescription(site: Site, variant: 0 | 1): DemoText {
  const found = `<h2>What can be seen</h2><p>${site.loss} ${site.evidence}</p>`;
  const past = `<h2>How it came about</h2><p>${site.cause} Older people in the village remember another shore, and say so gladly.</p>`;
  const people = `<h2>Whose place it is</h2><p>${site.neighbours} Any plan has to begin with them.</p>`;
  return {
    title: variant === 0 ? `A description of ${site.name}` : `${upper(site.name)} as we found it`,
    html: variant === 0 ? past + found + people : found + people + past,
  };
}

export function monitoringPlan(site: Site): DemoText {
  return {
    title: `How we would watch ${site.name}`,
    html:
      `<h2>What to watch, and why</h2><p>${site.proposal} Whether that works shows first in the plants, then in the ground. ${site.risk}</p>` +
      `<h2>When</h2>${list(site.steps)}<p>Each reading is taken by two people, one of whom has not seen the last one.</p>`,
  };
}
