import { compareVersions } from '@salt-circle/core';

/** Runs in a worker of the browser: long texts take their time, and the page goes on. */
self.onmessage = ({ data }: MessageEvent<ReadonlyArray<readonly [string, string]>>) => {
  self.postMessage(data.map(([before, after]) => compareVersions(before, after)));
};
