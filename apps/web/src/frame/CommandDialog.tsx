import { useRef, useState } from 'react';
import { AutoComplete, Modal, type RefSelectProps } from 'antd';
import { useNavigate } from 'react-router';
import { useSites } from '../api/sites.ts';
import { usePreferences } from '../platform/preferences.tsx';
import { commandsFor, type Command } from './commands.ts';

const MOST = 12;

interface Props {
  readonly commands: readonly Command[];
  readonly close: () => void;
}

/** Goes to any site, step or act by a few letters. */
export default function CommandDialog({ commands, close }: Props) {
  const { clock, order } = usePreferences();
  const sites = useSites({ clock, order });
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  const field = useRef<RefSelectProps>(null);
  const all: Command[] = [
    ...commands,
    ...(sites.data ?? []).flatMap((site) =>
      site.timers.map(({ id, name }) => ({
        key: id,
        kind: 'Site',
        name: site.timers.length > 1 ? `${site.name}, ${name}` : site.name,
        run: () => void navigate(`/timers/${id}`),
      })),
    ),
  ];
  const found = commandsFor(typed, all).slice(0, MOST);
  return (
    <Modal
      open
      title="Go to"
      footer={null}
      onCancel={close}
      afterOpenChange={(isOpen) => {
        if (isOpen) field.current?.focus();
      }}
      destroyOnHidden
    >
      <AutoComplete
        className="commands"
        aria-label="Site, step or act"
        placeholder="Site, step or act"
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
        notFoundContent="Nothing is called so."
        onSelect={(key: string) => {
          close();
          all.find((command) => command.key === key)?.run();
        }}
      />
    </Modal>
  );
}
