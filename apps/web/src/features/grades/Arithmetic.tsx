import type { GradeGroundsView } from '@salt-circle/contracts';
import { explanationWords, shareWords, type Grade, type GradeLine, type GradeRule } from '@salt-circle/core';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { doneWords, partName, points, roundingWords, ruleWords, sumWords } from './gradeWords.js';
import { say } from '../../words/grades.js';

interface ArithmeticProps {
  readonly grade: Grade;
  readonly rule: GradeRule;
  readonly grounds: GradeGroundsView;
  /** Where the evidence of a part is read; null where there is none to go to. */
  readonly evidence: (line: GradeLine) => string | null;
  /** Below a line, such as giving something else. */
  readonly below?: (line: GradeLine) => ReactNode;
}

/** How a grade came about: for student and instructor the same sheet, each figure with a way to what it rests on. */
export function Arithmetic({ grade, rule, grounds, evidence, below = () => null }: ArithmeticProps) {
  return (
    <div>
      <table className="w-full text-left">
        <caption className="sr-only">{say('partsOfGrade')}</caption>
        <thead className="text-sm text-ink-soft">
          <tr className="border-b border-line">
            <th scope="col" className="py-1 font-normal">
              {say('part')}
            </th>
            <th scope="col" className="py-1 text-right font-normal">
              {say('given')}
            </th>
            <th scope="col" className="py-1 pl-3 text-right font-normal">
              {say('weight')}
            </th>
            <th scope="col" className="py-1 pl-3 text-right font-normal">
              {say('brings')}
            </th>
          </tr>
        </thead>
        <tbody>
          {grade.lines.map((line) => (
            <tr key={line.part} className="border-b border-line align-top">
              <th scope="row" className="py-2 pr-2 font-normal">
                <Evidence to={evidence(line)}>{partName(line.part)}</Evidence>
                <span className="block text-sm text-ink-soft">
                  {doneWords(line, grounds, rule)}
                  {ruleWords(line, rule) !== '' && `; ${ruleWords(line, rule)}`}
                </span>
                {line.part === 'peer-score' && grounds.company !== null && (
                  <span className="block text-sm text-ink-soft">
                    {say('plainMeanIs', {
                      shareWords: shareWords(grounds.company.mean),
                      explanationWords: explanationWords(grounds.company),
                    })}
                  </span>
                )}
                {line.override !== null && (
                  <span className={`block text-sm ${line.changed ? 'text-copper' : ''}`}>
                    {line.changed
                      ? say('wasWorkedOutIsGiven', {
                          shareWords: line.computed === null ? say('nothing') : shareWords(line.computed),
                          shareWords2: shareWords(line.override.value),
                          reason: line.override.reason,
                        })
                      : say('wasWorkedOutIsGivenOf', {
                          shareWords: line.computed === null ? say('nothing') : shareWords(line.computed),
                          shareWords2: shareWords(line.override.value),
                          reason: line.override.reason,
                        })}
                  </span>
                )}
                {below(line)}
              </th>
              <td className="py-2 text-right tabular-nums">
                {line.state === 'counts' && line.share !== null
                  ? shareWords(line.share)
                  : line.state === 'excused'
                    ? say('excused')
                    : say('open')}
              </td>
              <td className="py-2 pl-3 text-right tabular-nums">
                {line.bonus && '+'}
                {line.weight}
              </td>
              <td className="py-2 pl-3 text-right tabular-nums">
                {line.state === 'counts' ? points(line.brings) : ''}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-3">{sumWords(grade, rule)}</p>
      {grade.computed !== null && <p className="text-sm text-ink-soft">{roundingWords(rule)}</p>}
      {grade.override !== null && (
        <p className={grade.changed ? 'text-copper' : ''}>
          {grade.changed
            ? say('percentIsGivenInsteadWhat', { points: points(grade.override.value), reason: grade.override.reason })
            : say('percentIsGivenInstead', { points: points(grade.override.value), reason: grade.override.reason })}
        </p>
      )}
      {grade.open && <p className="text-sm text-ink-soft">{say('somePartsAreOpenThey')}</p>}
    </div>
  );
}

function Evidence({ to, children }: { readonly to: string | null; readonly children: ReactNode }) {
  return to === null ? (
    <span className="font-semibold">{children}</span>
  ) : (
    <Link to={to} className="font-semibold text-ink underline decoration-line underline-offset-4">
      {children}
    </Link>
  );
}
