import { useRef, useState } from 'react';
import { AutoComplete, Modal, type RefSelectProps } from 'antd';
import { useNavigate } from 'react-router';
import { useLines } from '../../data/api/lines.ts';
import { usePreferences } from '../platform/preferences.tsx';
import { useSettled } from '../platform/useSettled.ts';
import { commandsFor, type Command } from './commands.ts';
import { say } from '@water-clock/core';

const MOST = 12;
/** Leaves room for sites before anything is typed. */
const FEW = 6;

interface Props {
  readonly commands: readonly Command[];
  readonly close: () => void;
}

/** Finds any site, step or action by a few letters. */
export default function CommandDialog({ commands, close }: Props) {
  const { clock, order } = usePreferences();
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  const settled = useSettled(typed);
  const sites = useLines({ find: settled, size: MOST }, { clock, order });
  // Results for earlier letters must not be opened with these.
  const isKnown = settled === typed && !sites.isPlaceholderData;
  const field = useRef<RefSelectProps>(null);
  const houses: Command[] = (isKnown ? (sites.data?.lines ?? []) : []).map(
    ({ id, name, site, ofSeveral }) => ({
      key: id,
      kind: say`Site`,
      name: ofSeveral ? `${site.name}, ${name}` : site.name,
      run: () => void navigate(`/timers/${id}`),
    }),
  );
  // The server matched these sites, by more than their names.
  const found = [...commandsFor(typed, commands).slice(0, typed ? MOST : FEW), ...houses].slice(
    0,
    MOST,
  );
  return (
    <Modal
      open
      title={say`Go to`}
      footer={null}
      onCancel={close}
      afterOpenChange={(isOpen) => {
        if (isOpen) field.current?.focus();
      }}
      destroyOnHidden
    >
      <AutoComplete
        className="commands"
        style={{ width: '100%' }}
        aria-label={say`Site, step or action`}
        placeholder={say`Site, step or action`}
        ref={field}
        open
        defaultActiveFirstOption
        value={typed}
        onChange={setTyped}
        getPopupContainer={({ parentElement }: HTMLElement) => parentElement ?? document.body}
        listHeight={440}
        options={found.map(({ key, kind, name }) => ({
          value: key,
          label: (
            <span className="command row spread">
              {name} <span className="soft">{kind}</span>
            </span>
          ),
        }))}
        notFoundContent={say`No matches`}
        onSelect={(key: string) => {
          close();
          found.find((command) => command.key === key)?.run();
        }}
      />
    </Modal>
  );
}
