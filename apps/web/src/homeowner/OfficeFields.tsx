import { Button, Input } from 'antd';
import type { Office } from '@water-clock/core';
import { useLibrary, type LibraryItem } from '../data/api/library.ts';
import { useDocument } from '../office/library/useDocument.ts';
import { say } from '@water-clock/core';

/** An optional line with new text; omitted if empty. */
function withLine(office: Office, field: 'phone' | 'hours', text: string): Office {
  const { [field]: _before, ...rest } = office;
  return text.trim() === '' ? rest : { ...rest, [field]: text };
}

function Fields({ item }: { readonly item: LibraryItem<Office> }) {
  const { document, change, changed, save, saving, faults, theirs, resolve } = useDocument(
    'office',
    item,
  );
  const field = (name: 'phone' | 'hours', label: string, example: string) => (
    <label className="labelled">
      {label}
      <Input
        value={document[name] ?? ''}
        placeholder={example}
        maxLength={120}
        onChange={({ target }) => change(withLine(document, name, target.value))}
      />
    </label>
  );
  return (
    <form
      className="sighting-fields row at-foot"
      aria-label={say`Homeowner contact`}
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      {field('phone', say`Phone number on every page`, '555 0100')}
      {field('hours', say`Office hours`, say`Mon to Fri, 8 to 5`)}
      <Button htmlType="submit" disabled={!changed} loading={saving}>{say`Save`}</Button>
      {faults.length > 0 && <span className="fault">{faults.join(' ')}</span>}
      {theirs && (
        <span className="notice">
          {theirs.document
            ? say`Someone else changed this to “${theirs.document.phone}, ${theirs.document.hours}”.`
            : say`Someone else removed this.`}{' '}
          <Button onClick={() => resolve('theirs')}>{say`Use theirs`}</Button>{' '}
          <Button onClick={() => resolve('mine')}>{say`Keep mine`}</Button>
        </span>
      )}
    </form>
  );
}

/** The company's phone number, the same on every page. */
export function OfficeFields() {
  const office = useLibrary('office');
  const [item] = office.data ?? [];
  return item ? <Fields key={item.version} item={item} /> : null;
}
