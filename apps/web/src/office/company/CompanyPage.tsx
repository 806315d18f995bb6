import { Tabs } from 'antd';
import { Link, useNavigate, useParams } from 'react-router';
import { usePageTitle } from '../../app/platform/PageHeading.tsx';
import { useSession } from '../../data/api/people.ts';
import { AuditTable } from './AuditTable.tsx';
import { CompanyArchive } from './CompanyArchive.tsx';
import { KeepChanges } from './KeepChanges.tsx';
import { MailList } from './MailList.tsx';
import { PeopleTable } from './PeopleTable.tsx';
import { Reports } from './Reports.tsx';
import { say } from '@water-clock/core';

const PARTS = [
  { key: 'people', label: say`People`, children: <PeopleTable /> },
  { key: 'mail', label: say`Mail`, children: <MailList /> },
  { key: 'record', label: say`Activity log`, children: <AuditTable /> },
  {
    key: 'settings',
    label: say`Settings`,
    children: (
      <div className="stack far">
        <KeepChanges />
        <CompanyArchive />
      </div>
    ),
  },
];

/** An owner's pages. */
export default function CompanyPage() {
  const person = useSession().data?.person;
  const { part = 'people' } = useParams();
  const navigate = useNavigate();
  const name = part === 'reports' ? say`Reports` : PARTS.find(({ key }) => key === part)?.label;
  usePageTitle(...(name === undefined ? [] : [name]), say`Company`);
  if (person?.role !== 'owner')
    return (
      <div className="page">
        <h1>{say`Company`}</h1>
        <p>{say`Only owners can open this page.`}</p>
      </div>
    );
  if (part === 'reports')
    return (
      <div className="page page-wide">
        <div className="sites-head row">
          <h1>{say`Reports`}</h1>
          <Link to="/company">{say`Company`}</Link>
        </div>
        <Reports />
      </div>
    );
  return (
    <div className="page">
      <div className="sites-head row">
        <h1>{person.company}</h1>
        <Link to="/company/reports">{say`Reports`}</Link>
      </div>
      <Tabs
        items={PARTS}
        activeKey={part}
        destroyOnHidden
        onChange={(key) => void navigate(`/company/${key}`)}
      />
    </div>
  );
}
