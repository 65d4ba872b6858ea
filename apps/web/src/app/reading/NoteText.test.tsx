import type { NoteView } from '@salt-circle/contracts';
import { fireEvent, render, screen } from '@testing-library/react';
import { NoteText } from './NoteText.js';

const note = (exact: string, body = 'Who measured it?'): Pick<NoteView, 'kind' | 'body' | 'place' | 'edit'> => ({
  kind: 'ask',
  body,
  edit: null,
  place: {
    version: 1,
    partId: 'p',
    selector: {
      type: 'text',
      quote: { type: 'TextQuoteSelector', exact, prefix: '', suffix: '' },
      position: { type: 'TextPositionSelector', start: 0, end: exact.length },
    },
  },
});
const RANGE = { start: 0, end: 8 };

describe('NoteText', () => {
  it('says its kind, who left it, and what it says', () => {
    const { container } = render(
      <NoteText
        note={note('bed rose')}
        by={{ alias: 'Heron' }}
        match={{ found: 'same', range: RANGE, certainty: 'sure' }}
      />,
    );
    expect(container.textContent).toBe('Ask HeronWho measured it?');
  });

  it('repeats the passage where it does not stand beside it', () => {
    render(<NoteText note={note('bed rose')} match={{ found: 'moved', range: RANGE, certainty: 'sure' }} quoted />);
    expect(screen.getByText('bed rose').tagName).toBe('Q');
  });

  it('says that a passage is gone or was changed, with the words it had', () => {
    const { rerender, container } = render(<NoteText note={note('bed rose')} match={{ found: 'gone' }} />);
    expect(container.textContent).toContain('This passage is no longer in the draft: bed rose');
    rerender(
      <NoteText note={note('bed rose')} match={{ found: 'changed', range: RANGE, errors: 2, certainty: 'sure' }} />,
    );
    expect(container.textContent).toContain('The passage was changed; it read bed rose');
    rerender(<NoteText note={note('bed rose')} match={{ found: 'moved', range: RANGE, certainty: 'perhaps' }} />);
    expect(container.textContent).toContain('Perhaps here: what stood around bed rose has changed');
  });

  it('shortens a long passage in its middle, and brings it on one line', () => {
    const long = `${'The bed rose.\n'.repeat(30)}The end of it.`;
    const { container } = render(<NoteText note={note(long)} match={{ found: 'gone' }} />);
    const words = container.querySelector('q')?.textContent ?? '';
    expect(words.length).toBeLessThan(130);
    expect(words).toMatch(/^The bed rose\. .* … .*The end of it\.$/);
    expect(words).not.toContain('\n');
  });

  it('shows an empty remark as such, and can be chosen', () => {
    const chosen = jest.fn();
    render(<NoteText note={note('bed', '')} onActivate={chosen} />);
    fireEvent.click(screen.getByText('without a remark'));
    expect(chosen).toHaveBeenCalledTimes(1);
  });
});
