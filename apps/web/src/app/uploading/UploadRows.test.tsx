import { fireEvent, render, screen } from '@testing-library/react';
import { FilePick } from '../../kit/index.js';
import { endingsOf } from './endings.js';
import { UploadRows } from './UploadRows.js';
import type { UploadRow, Uploads } from './useUploads.js';

const row = (part: Partial<UploadRow>): UploadRow => ({
  key: 'k',
  name: 'report.pdf',
  share: 0,
  state: 'sending',
  problem: null,
  ...part,
});
const uploads = (rows: readonly UploadRow[]): Uploads => ({
  rows,
  add: () => Promise.resolve(true),
  cancel: jest.fn(),
  dismiss: jest.fn(),
});

describe('files on their way', () => {
  it('say how far they are, in a figure that never rounds up to done, and can be cancelled', () => {
    const given = uploads([row({ share: 0.999 })]);
    render(<UploadRows uploads={given} />);
    expect(screen.getByRole('status').textContent).toBe('99% sent');
    expect(screen.getByRole<HTMLProgressElement>('progressbar').value).toBeCloseTo(0.999);
    fireEvent.click(screen.getByRole('button', { name: 'Cancel report.pdf' }));
    expect(given.cancel).toHaveBeenCalledWith('k');
  });

  it('that have arrived are looked at, which cannot be cancelled', () => {
    render(<UploadRows uploads={uploads([row({ share: 1, state: 'looking' })])} />);
    expect(screen.getByRole('status').textContent).toBe('being looked at…');
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('that were refused say why and what to do, until they are put aside', () => {
    const problem = {
      code: 'file-refused',
      sentence: 'This file is empty.',
      whatToDo: 'Choose another file.',
      fields: [],
    } as const;
    const given = uploads([row({ state: 'refused', problem })]);
    render(<UploadRows uploads={given} />);
    expect(screen.getByRole('alert').textContent).toContain('This file is empty.');
    fireEvent.click(screen.getByRole('button', { name: 'Put aside' }));
    expect(given.dismiss).toHaveBeenCalledWith('k');
  });

  it('take no room when there are none', () => {
    const { container } = render(<UploadRows uploads={uploads([])} />);
    expect(container.innerHTML).toBe('');
  });
});

describe('a place for files', () => {
  const files = [new File(['a'], 'a.pdf'), new File(['b'], 'b.docx')];

  it('takes several, dropped or chosen, and the same one again', () => {
    const taken = jest.fn();
    render(
      <FilePick
        multiple
        label="Choose files"
        accept={endingsOf(['pdf', 'document'])}
        hint="Up to 50 MB each."
        onFiles={taken}
      />,
    );
    const input = screen.getByLabelText<HTMLInputElement>('Choose files');
    expect([input.accept, input.multiple]).toEqual(['.pdf,.docx,.odt', true]);
    fireEvent.change(input, { target: { files } });
    expect(input.value).toBe('');
    const place = input.closest('div') as HTMLElement;
    fireEvent.dragOver(place);
    expect(place.className).toContain('border-iodine');
    fireEvent.drop(place, { dataTransfer: { files } });
    expect(place.className).not.toContain('border-iodine');
    expect(taken.mock.calls.map(([list]: [File[]]) => list.map(({ name }) => name))).toEqual([
      ['a.pdf', 'b.docx'],
      ['a.pdf', 'b.docx'],
    ]);
  });
});
