import type { PlatformRequest, PlatformRow } from '@salt-circle/contracts';
import { useState, type FormEvent } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { Button, Checkbox, Dialog, TextArea, TextField } from '../../kit/index.js';
import { useAddPlatformMutation, useChangePlatformMutation } from './platformsApi.js';
import { say } from '../../words/platforms.js';

type Field = 'name' | 'issuer' | 'clientId' | 'authUrl' | 'tokenUrl' | 'keysUrl';

/** As the platform names them, so that they are found there. */
const fieldsOfPlatform = (): ReadonlyArray<readonly [field: Field, label: string, hint: string]> => [
  ['name', say('whatItIsCalledHere'), ''],
  ['issuer', say('issuer'), say('asPlatformCallsItselfTo')],
  ['clientId', say('clientId'), say('asPlatformCallsSaltCircle')],
  ['authUrl', say('authenticationRequest'), say('whereSomebodyIsSentTo')],
  ['tokenUrl', say('accessTokens'), say('whereWeAskForThem')],
  ['keysUrl', say('keySetJwks'), say('whereItsPublicKeysAre')],
];

/** All that is known of a platform, entered or changed by hand. */
export function PlatformDialog({
  platform,
  onClose,
}: {
  readonly platform: PlatformRow | null;
  readonly onClose: () => void;
}) {
  const [body, setBody] = useState<PlatformRequest>(() => ({
    name: platform?.name ?? '',
    issuer: platform?.issuer ?? '',
    clientId: platform?.clientId ?? '',
    authUrl: platform?.authUrl ?? '',
    tokenUrl: platform?.tokenUrl ?? '',
    keysUrl: platform?.keysUrl ?? '',
    tokenAudience: platform?.tokenAudience ?? null,
    pages: [...(platform?.pages ?? [])],
    active: platform?.active ?? true,
    makesCourses: platform?.makesCourses ?? true,
    deployments: (platform?.deployments ?? []).filter(({ allowed }) => allowed).map(({ id }) => id),
  }));
  const [add, adding] = useAddPlatformMutation();
  const [change, changing] = useChangePlatformMutation();
  const error = adding.error ?? changing.error;
  const set = (part: Partial<PlatformRequest>) => setBody({ ...body, ...part });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const trimmed = { ...body, pages: cleaned(body.pages), deployments: cleaned(body.deployments) };
    const done = platform === null ? await add(trimmed) : await change({ id: platform.id, body: trimmed });
    if (done.error === undefined) onClose();
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={platform === null ? say('enterPlatformByHand') : say('change', { name: platform.name })}
    >
      <form onSubmit={(event) => void submit(event)} className="space-y-3" noValidate>
        {fieldsOfPlatform().map(([field, label, hint]) => (
          <TextField
            key={field}
            label={label}
            {...(hint !== '' && { hint })}
            value={body[field]}
            problem={fieldProblem(error, field)}
            onChange={({ target }) => set({ [field]: target.value.trimStart() })}
          />
        ))}
        <TextField
          label={say('audienceOfWhatWeSign')}
          hint={say('blankAddressForAccessTokens')}
          value={body.tokenAudience ?? ''}
          problem={fieldProblem(error, 'tokenAudience')}
          onChange={({ target }) => set({ tokenAudience: target.value === '' ? null : target.value })}
        />
        <Lines
          label={say('deploymentsThatAreAllowedOne')}
          value={body.deployments}
          onChange={(deployments) => set({ deployments })}
        />
        <Lines
          label={say('addressesOfPagesThatMay')}
          value={body.pages}
          problem={fieldProblem(error, 'pages')}
          onChange={(pages) => set({ pages })}
        />
        <p>
          <Checkbox
            label={say('instructorsWhoComeByIt')}
            checked={body.makesCourses}
            onChange={({ target }) => set({ makesCourses: target.checked })}
          />
        </p>
        {error !== undefined && belongsNowhere(error) && <ProblemNotice error={error} />}
        <Button type="submit" look="primary" busy={adding.isLoading || changing.isLoading}>
          {platform === null ? say('connectIt') : say('save')}
        </Button>
      </form>
    </Dialog>
  );
}

interface LinesProps {
  readonly label: string;
  readonly value: readonly string[];
  readonly problem?: string | undefined;
  readonly onChange: (lines: string[]) => void;
}

function Lines({ label, value, problem, onChange }: LinesProps) {
  return (
    <TextArea
      label={label}
      rows={2}
      spellCheck={false}
      value={value.join('\n')}
      problem={problem}
      onChange={({ target }) => onChange(target.value.split('\n'))}
    />
  );
}

function cleaned(lines: readonly string[]): string[] {
  return lines.map((one) => one.trim()).filter((one) => one !== '');
}
