import { Notice } from '../kit/index.js';
import { problemOf } from './api.js';

/** A problem in full: what happened, the single points, the way out. */
export function ProblemNotice({ error }: { readonly error: unknown }) {
  const { sentence, whatToDo, fields } = problemOf(error);
  return (
    <Notice tone="problem" title={sentence}>
      {fields.length > 1 && (
        <ul className="list-disc pl-5">
          {fields.map((field) => (
            <li key={field.path + field.code}>{field.sentence}</li>
          ))}
        </ul>
      )}
      <p>{whatToDo}</p>
    </Notice>
  );
}
