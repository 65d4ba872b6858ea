import type { Problem } from '@salt-circle/contracts';
import { useState } from 'react';
import { ownFetch } from './ownFetch.js';
import { fileNameOf, saveAs } from './saveAs.js';
import { say } from '../words/app.js';

const noConnection = (): Problem => ({
  code: 'unexpected',
  sentence: say('thereIsNoConnectionSo'),
  whatToDo: say('tryAgainOnceThereIs'),
  fields: [],
});

/** Takes files from the server that are made on asking: while it works, `busy`; where there is none, why. */
export function useTake() {
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  /** @param path below the API; its last part is the name of a file that the server does not name */
  const take = async (path: string) => {
    setBusy(true);
    setProblem(null);
    try {
      const response = await ownFetch(`/api${path}`, 'GET');
      if (response.ok) saveAs(fileNameOf(response, lastPart(path)), await response.blob());
      else setProblem((await response.json()) as Problem);
    } catch {
      setProblem(noConnection());
    }
    setBusy(false);
  };
  return { busy, problem, take };
}

function lastPart(path: string): string {
  // regex: over an address of our own
  return /([^/?]*)(?:\?.*)?$/.exec(path)?.[1] ?? '';
}
