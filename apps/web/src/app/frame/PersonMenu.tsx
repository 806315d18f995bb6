import { lazy, Suspense, useState } from 'react';
import { UserOutlined } from '@ant-design/icons';
import { useNavigate } from 'react-router';
import { MenuButton } from '../../shared/fields/MenuButton.tsx';
import { useSession } from '../../data/api/people.ts';
import { say } from '@water-clock/core';

const SignOutDialog = lazy(() => import('./SignOutDialog.tsx'));
const PreferencesDialog = lazy(() => import('./PreferencesDialog.tsx'));

/** Who is signed in, with preferences and sign-out. */
export function PersonMenu({ words }: { readonly words: boolean }) {
  const session = useSession();
  const navigate = useNavigate();
  const [open, setOpen] = useState<'preferences' | 'sign out' | null>(null);
  const close = () => setOpen(null);
  const person = session.data?.person;
  if (!person) return null;
  return (
    <>
      <MenuButton
        type="text"
        icon={<UserOutlined />}
        aria-label={person.name}
        items={[
          { key: 'company', label: person.company, disabled: true },
          { type: 'divider' },
          {
            key: 'account',
            label: say`Your account …`,
            onClick: () => void navigate('/account'),
          },
          {
            key: 'preferences',
            label: say`Preferences …`,
            onClick: () => setOpen('preferences'),
          },
          {
            key: 'device',
            label: say`On this device …`,
            onClick: () => void navigate('/device'),
          },
          ...(person.role === 'owner'
            ? [
                {
                  key: 'company settings',
                  label: say`Company …`,
                  onClick: () => void navigate('/company'),
                },
              ]
            : []),
          { key: 'out', label: say`Sign out`, onClick: () => setOpen('sign out') },
        ]}
      >
        {words && person.name}
      </MenuButton>
      {open && (
        <Suspense>
          {open === 'preferences' ? (
            <PreferencesDialog close={close} />
          ) : (
            <SignOutDialog close={close} />
          )}
        </Suspense>
      )}
    </>
  );
}
