import { Layout, Menu } from 'antd';
import {
  BookOutlined,
  CalendarOutlined,
  ExperimentOutlined,
  HomeOutlined,
  UnorderedListOutlined,
} from '@ant-design/icons';
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { ConfirmWhenAsked } from '../../office/account/ConfirmWhenAsked.tsx';
import { Commands } from './Commands.tsx';
import { PersonMenu } from './PersonMenu.tsx';
import { Rail } from './Rail.tsx';
import { useScreen } from './useScreen.ts';
import './frame.css';
import { say } from '@water-clock/core';

const PLACES = [
  { to: '/', name: say`Today`, icon: <HomeOutlined aria-hidden /> },
  { to: '/sites', name: say`Sites`, icon: <UnorderedListOutlined aria-hidden /> },
  { to: '/calendar', name: say`Calendar`, icon: <CalendarOutlined aria-hidden /> },
  { to: '/library', name: say`Library`, icon: <BookOutlined aria-hidden /> },
  { to: '/bench', name: say`Bench`, icon: <ExperimentOutlined aria-hidden /> },
] as const;

/** The frame of every page that is not about one timer. */
export default function OfficeFrame() {
  const screen = useScreen();
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const commands = (
    <>
      <ConfirmWhenAsked />
      <Commands
        commands={[
          ...PLACES.map(({ to, name }) => ({
            key: to,
            kind: say`Page`,
            name,
            run: () => void navigate(to),
          })),
          {
            key: 'new',
            kind: say`Actions`,
            name: say`New site`,
            run: () => void navigate('/sites/new'),
          },
        ]}
      />
    </>
  );
  const here = PLACES.find(({ to }) => (to === '/' ? pathname === to : pathname.startsWith(to)));
  if (screen === 'phone')
    return (
      <div className="phone">
        <header className="bar row in-line near">
          <Link to="/" className="plain" aria-label={say`Water Clock: Today`}>
            <img src="/icon.svg" alt="" width="28" height="28" />
          </Link>
          <span className="grow heavy">{say`Water Clock`}</span>
          <PersonMenu words={false} />
        </header>
        <main tabIndex={-1}>
          {commands}
          <Outlet />
        </main>
        <nav className="foot" aria-label={say`Pages`}>
          {PLACES.map(({ to, name, icon }) => (
            <NavLink key={to} to={to} end={to === '/'} className="foot-place plain">
              {icon}
              {name}
            </NavLink>
          ))}
        </nav>
      </div>
    );
  return (
    <Layout hasSider style={{ minHeight: '100vh' }}>
      <Rail>
        <Menu
          aria-label={say`Pages`}
          selectedKeys={here ? [here.to] : []}
          items={PLACES.map(({ to, name, icon }) => ({
            key: to,
            icon,
            label: <Link to={to}>{name}</Link>,
          }))}
        />
      </Rail>
      <Layout>
        <main tabIndex={-1}>
          {commands}
          <Outlet />
        </main>
      </Layout>
    </Layout>
  );
}
