import { GRADE_PARTS, PART_WORDS, type GradePart, type GradePartName } from '@salt-circle/core';
import { Checkbox, NumberBox } from '../kit/index.js';
import { say } from '../words/app.js';

interface GradePartsProps {
  readonly parts: readonly GradePart[];
  readonly problemAt: (path: string) => string | undefined;
  readonly onChange: (parts: readonly GradePart[]) => void;
}

/** What the grade is made of; parts count in proportion to their weights. */
export function GradeParts({ parts, problemAt, onChange }: GradePartsProps) {
  const sum = parts.reduce((total, { weight }) => total + (Number.isFinite(weight) ? weight : 0), 0);
  const toggle = (part: GradePartName, on: boolean) =>
    onChange(
      GRADE_PARTS.flatMap((name): GradePart[] => {
        if (name === part) return on ? [{ part, weight: 10 }] : [];
        const known = parts.find((one) => one.part === name);
        return known === undefined ? [] : [known];
      }),
    );
  return (
    <div>
      <p className="mb-2 text-sm text-ink-soft">{say('noPartAtAllMeans')}</p>
      <table>
        <tbody>
          {GRADE_PARTS.map((name) => {
            const index = parts.findIndex(({ part }) => part === name);
            const part = parts[index];
            const problem = problemAt(`gradeParts.${index}.weight`) ?? problemAt(`gradeParts.${index}`);
            return (
              <tr key={name}>
                <td className="py-1 pr-6 first-letter:uppercase">
                  <Checkbox
                    label={PART_WORDS[name]}
                    checked={part !== undefined}
                    onChange={({ target }) => toggle(name, target.checked)}
                  />
                </td>
                <td className="w-24">
                  {part !== undefined && (
                    <NumberBox
                      label={say('weightOf', { partWords: PART_WORDS[name] })}
                      min={0}
                      step="any"
                      blank={0}
                      value={part.weight}
                      onChange={(weight) =>
                        onChange(parts.map((one) => (one.part === name ? { ...one, weight: weight ?? 0 } : one)))
                      }
                    />
                  )}
                </td>
                <td className="text-ink-soft">
                  {part !== undefined && sum > 0 && `${Math.round((part.weight / sum) * 100)}%`}
                  {problem !== undefined && part !== undefined && (
                    <span className="ml-2 text-sm text-madder">{problem}</span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
        {parts.length > 0 && (
          <tfoot>
            <tr className="border-t border-line">
              <td className="py-1">{say('together')}</td>
              <td>{sum}</td>
              <td className="text-ink-soft">100%</td>
            </tr>
          </tfoot>
        )}
      </table>
    </div>
  );
}
