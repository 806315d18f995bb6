import { Button, Dropdown } from 'antd';
import { UserOutlined } from '@ant-design/icons';
import { usePreferences } from '../platform/preferences.tsx';
import { useSession, useSignOut } from '../api/people.ts';

/** Who is signed in, and what they like. */
export function PersonMenu({ words }: { readonly words: boolean }) {
  const session = useSession();
  const signOut = useSignOut();
  const { clock, setClock, theme, setTheme } = usePreferences();
  const person = session.data?.person;
  if (!person) return null;
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          { key: 'company', label: person.company, disabled: true },
          { type: 'divider' },
          {
            key: 'clock',
            label: clock === '12' ? 'Show times as 17:30' : 'Show times as 5:30 pm',
            onClick: () => setClock(clock === '12' ? '24' : '12'),
          },
          {
            key: 'theme',
            label: theme === 'day' ? 'Dark screen' : 'Bright screen',
            onClick: () => setTheme(theme === 'day' ? 'night' : 'day'),
          },
          { type: 'divider' },
          { key: 'out', label: 'Sign out', onClick: () => signOut.mutate() },
        ],
      }}
    >
      <Button type="text" className="rail-person" icon={<UserOutlined />} aria-label={person.name}>
        {words && person.name}
      </Button>
    </Dropdown>
  );
}
