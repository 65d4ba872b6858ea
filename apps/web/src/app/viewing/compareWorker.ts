import { compareTexts } from '@salt-circle/core';

/** Runs in a worker of the browser: long texts take their time, and the page goes on. */
self.onmessage = ({ data: [before, after] }: MessageEvent<[string, string]>) => {
  self.postMessage(compareTexts(before, after));
};
