import { FAULTS, isStaff, nameOf, type Fault, type Member, type Store } from './state.js';

/** The stand-in's own small pages: plain on purpose, so that nobody takes them for a platform, or for the application. */

export const esc = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

const LOOK =
  'body{font:16px/1.5 Georgia,serif;margin:0;background:#fff;color:#222}header{background:#e9ecef;padding:.7rem 1.5rem;border-bottom:2px dashed #888}' +
  'main{max-width:64rem;margin:1.5rem auto;padding:0 1.5rem}table{border-collapse:collapse}td,th{border:1px solid #999;padding:.25rem .6rem;text-align:left}' +
  'iframe{width:100%;height:42rem;border:2px dashed #888}button,input,select{font:inherit}li{margin:.4rem 0}form.in{display:inline}';

export function page(who: Member | null, title: string, body: string): string {
  const nav =
    who === null
      ? ''
      : ` · ${esc(nameOf(who))} (${isStaff(who) ? 'teaches' : 'attends'}) · <a href="/course">Course</a> · <a href="/gradebook">Gradebook</a>${isStaff(who) ? ' · <a href="/settings">Settings and faults</a>' : ''} · <a href="/">Somebody else</a>`;
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${esc(title)}: stand-in platform</title><style>${LOOK}</style></head><body><header><strong>Stand-in platform “Northmere”</strong>, for trying things out${nav}</header><main><h1>${esc(title)}</h1>${body}</main></body></html>`;
}

export function homePage({ state }: Store): string {
  const people = state.people.map(
    (one) =>
      `<li><form class="in" method="post" action="/enter"><button name="id" value="${esc(one.id)}">${esc(nameOf(one))}</button></form> ${isStaff(one) ? 'teaches' : one.roles.some((role) => role.endsWith('#Learner')) ? 'attends' : 'watches'}</li>`,
  );
  return page(null, 'Who are you today?', `<ul>${people.join('')}</ul>`);
}

export function coursePage({ state }: Store, who: Member): string {
  const { course, links, tool } = state;
  const rows = links.map(
    ({ id, title }) =>
      `<li>${esc(title)}: <a href="/open/${esc(id)}" target="_blank">open in a window</a> · <a href="/inside/${esc(id)}">open inside this page</a></li>`,
  );
  const add = isStaff(who)
    ? `<p><a href="/choose">Choose something of ${esc(tool?.name ?? 'the application')} for this page…</a></p>`
    : '';
  const none = tool === null ? '<p>No application is connected yet: see Settings and faults.</p>' : '';
  return page(who, `${course.label} ${course.title}`, `${none}<h2>On this page</h2><ul>${rows.join('')}</ul>${add}`);
}

export function insidePage(who: Member, id: string): string {
  return page(
    who,
    'Inside the page',
    `<p><a href="/course">Back to the course</a></p><iframe title="Application" src="/open/${esc(id)}" allow="clipboard-write; microphone; camera"></iframe>`,
  );
}

export function gradebookPage({ state }: Store, who: Member): string {
  const people = isStaff(who)
    ? state.people.filter((one) => one.roles.some((role) => role.endsWith('#Learner')))
    : [who];
  const head = state.columns.map(({ label }) => `<th>${esc(label)}</th>`).join('');
  const cell = (columnId: string, { id }: Member): string => {
    const score = state.scores[columnId]?.[id];
    const words =
      score === undefined
        ? ''
        : score.given === null
          ? `(${score.comment.split('.')[0] ?? ''})`
          : `${Math.round((score.given / score.maximum) * 10_000) / 100}`;
    const edit = isStaff(who)
      ? ` <form class="in" method="post" action="/gradebook"><input type="hidden" name="column" value="${esc(columnId)}"><input type="hidden" name="person" value="${esc(id)}"><input name="given" size="4" aria-label="Grade of ${esc(id)}"><button>set</button></form>`
      : '';
    return `<td title="${esc(score?.comment ?? '')}"><span data-score="${esc(id)}">${esc(words)}</span>${edit}</td>`;
  };
  const rows = people.map(
    (one) => `<tr><th>${esc(nameOf(one))}</th>${state.columns.map(({ id }) => cell(id, one)).join('')}</tr>`,
  );
  return page(
    who,
    'Gradebook',
    state.columns.length === 0
      ? '<p>There is no column yet.</p>'
      : `<table><tr><th></th>${head}</tr>${rows.join('')}</table>`,
  );
}

export function settingsPage({ state }: Store, who: Member, base: string): string {
  const { tool } = state;
  const faults = (Object.keys(FAULTS) as Fault[]).map(
    (fault) =>
      `<li><label><input type="checkbox" name="fault" value="${fault}"${state.faults.includes(fault) ? ' checked' : ''}> ${esc(FAULTS[fault])}</label></li>`,
  );
  const connected =
    tool === null
      ? '<p>None.</p>'
      : `<p>${esc(tool.name)}, client id <code>${esc(tool.clientId)}</code>, deployment <code>${esc(tool.deploymentId)}</code></p>`;
  return page(
    who,
    'Settings and faults',
    `<h2>Application</h2>${connected}<form method="post" action="/connect">Registration address of an application: <input name="address" size="60"> <button>Connect</button></form>` +
      `<p>This platform calls itself <code>${esc(base)}</code>, and describes itself at <code>${esc(base)}/.well-known/openid-configuration</code>.</p>` +
      `<h2>What goes wrong</h2><form method="post" action="/faults"><ul>${faults.join('')}</ul><button>Behave like this</button></form>` +
      `<h2>People</h2><form method="post" action="/people"><input name="given" placeholder="Given name"> <input name="family" placeholder="Family name"> <button>Add a student</button></form>`,
  );
}

/** Goes on to the application by itself. */
export function handOver(to: string, fields: Readonly<Record<string, string>>): string {
  const inputs = Object.entries(fields).map(
    ([name, value]) => `<input type="hidden" name="${esc(name)}" value="${esc(value)}">`,
  );
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>One moment</title></head><body><form method="post" action="${esc(to)}">${inputs.join('')}<button>Go on</button></form><script>document.forms[0].submit()</script></body></html>`;
}
