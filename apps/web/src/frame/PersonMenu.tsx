import { lazy, Suspense, useState } from 'react';
import { Button, Dropdown } from 'antd';
import { UserOutlined } from '@ant-design/icons';
import { useSession, useSignOut } from '../api/people.ts';

const PreferencesDialog = lazy(() => import('./PreferencesDialog.tsx'));

/** Who is signed in, and what they like. */
export function PersonMenu({ words }: { readonly words: boolean }) {
  const session = useSession();
  const signOut = useSignOut();
  const [open, setOpen] = useState(false);
  const person = session.data?.person;
  if (!person) return null;
  return (
    <>
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            { key: 'company', label: person.company, disabled: true },
            { type: 'divider' },
            { key: 'preferences', label: 'Preferences …', onClick: () => setOpen(true) },
            { key: 'out', label: 'Sign out', onClick: () => signOut.mutate() },
          ],
        }}
      >
        <Button type="text" icon={<UserOutlined />} aria-label={person.name}>
          {words && person.name}
        </Button>
      </Dropdown>
      {open && (
        <Suspense>
          <PreferencesDialog close={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
