import { USUAL_GRADE_RULE } from '@salt-circle/core';
import { inside, staffOnly, type Row } from './row.js';

/** Before the release of grades nobody but staff sees one. Nothing that would change what later rows find. */
export function grading({ id }: { readonly id: string }): Row[] {
  const exchange = `/exchanges/${id}`;
  const rule = { ...USUAL_GRADE_RULE, parts: [], gradeParts: [], revision: 999_999 };
  const override = { part: '', value: null, reason: '' };
  return [
    { route: 'GET /api/exchanges/:exchangeId/grades', url: `${exchange}/grades`, ...staffOnly(200) },
    { route: 'GET /api/exchanges/:exchangeId/insights', url: `${exchange}/insights`, ...staffOnly(200) },
    { route: 'GET /api/exchanges/:exchangeId/grades.csv', url: `${exchange}/grades.csv`, ...staffOnly(200) },
    { route: 'GET /api/exchanges/:exchangeId/grades.xlsx', url: `${exchange}/grades.xlsx`, ...staffOnly(200) },
    {
      route: 'GET /api/exchanges/:exchangeId/grade',
      url: `${exchange}/grade`,
      remark: 'not released',
      ...{ instructor: 403, assistant: 403, ann: 403, ben: 403, cho: 403, ...inside },
    },
    {
      route: 'POST /api/exchanges/:exchangeId/grade/read',
      url: `${exchange}/grade/read`,
      remark: 'not released',
      ...{ instructor: 403, assistant: 403, ann: 403, ben: 403, cho: 403, ...inside },
    },
    {
      route: 'POST /api/exchanges/:exchangeId/grades/graders',
      url: `${exchange}/grades/graders`,
      body: { works: ['draft'], graderIds: [], how: 'none', openOnly: true },
      ...staffOnly(204, 403),
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/grades/forms',
      url: `${exchange}/grades/forms`,
      body: { reviewingFormId: 'none', each: false },
      ...staffOnly(404, 403),
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/grades/:participantId/grader',
      url: `${exchange}/grades/none/grader`,
      body: { work: 'draft', graderId: null },
      ...staffOnly(404),
    },
    {
      route: 'POST /api/exchanges/:exchangeId/grades/:participantId/present',
      url: `${exchange}/grades/none/present`,
      ...staffOnly(404),
    },
    {
      route: 'GET /api/exchanges/:exchangeId/drafts/:draftId/feedback',
      url: `${exchange}/drafts/none/feedback`,
      ...staffOnly(404),
    },
    {
      route: 'POST /api/exchanges/:exchangeId/grades/preview',
      url: `${exchange}/grades/preview`,
      body: rule,
      ...staffOnly(200, 403),
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/grades/rule',
      url: `${exchange}/grades/rule`,
      body: rule,
      remark: 'on an older plan',
      ...staffOnly(409, 403),
    },
    {
      route: 'POST /api/exchanges/:exchangeId/grades/release',
      url: `${exchange}/grades/release`,
      body: { how: 'some', at: null, participantIds: ['none'] },
      ...staffOnly(404, 403),
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/grades/:participantId/override',
      url: `${exchange}/grades/none/override`,
      body: override,
      ...staffOnly(404),
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/grades/:participantId/reviewing/:itemId',
      url: `${exchange}/grades/none/reviewing/none`,
      body: { revision: 0 },
      ...staffOnly(404),
    },
  ];
}
