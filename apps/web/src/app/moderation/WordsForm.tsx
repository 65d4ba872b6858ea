import { LIMITS } from '@salt-circle/contracts/plain';
import type { ReactNode } from 'react';
import { Button, TextArea } from '../../kit/index.js';
import { ProblemNotice } from '../ProblemNotice.js';

interface WordsFormProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (words: string) => void;
  /** What else is chosen with it. */
  readonly children?: ReactNode;
  readonly problem: unknown;
  readonly busy: boolean;
  readonly submit: string;
  readonly onSubmit: () => void;
}

/** A few sentences, and what is done with them: why something is hidden, or what is to be looked at. */
export function WordsForm({ label, value, onChange, children, problem, busy, submit, onSubmit }: WordsFormProps) {
  return (
    <form
      className="space-y-3"
      onSubmit={(event) => {
        event.preventDefault();
        onSubmit();
      }}
    >
      <TextArea
        label={label}
        value={value}
        maxLength={LIMITS.guidance}
        onChange={({ target }) => onChange(target.value)}
      />
      {children}
      {problem !== undefined && <ProblemNotice error={problem} />}
      <Button look="primary" type="submit" busy={busy}>
        {submit}
      </Button>
    </form>
  );
}
