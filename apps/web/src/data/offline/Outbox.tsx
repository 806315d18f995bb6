import { useEffect, useSyncExternalStore } from 'react';
import { Alert, Button } from 'antd';
import { useQueryClient } from '@tanstack/react-query';
import { QuestionCircleOutlined } from '@ant-design/icons';
import { useNavigate } from 'react-router';
import { newTimers, sendNewSiteOf } from '../api/newSites.ts';
import { useSession } from '../api/people.ts';
import { siteKeys } from '../api/sites.ts';
import { visitKeys } from '../api/visits.ts';
import { onSaved, onWaiting, sendWaiting, waiting } from '../editor/editors.ts';
import { sendWaiting as sendPhotos } from '../../shared/photos/photos.ts';
import { say } from '@water-clock/core';

/** Often enough for someone driving from site to site. */
const TRY_EVERY_MS = 20_000;

/** Sends what waits on this device, whatever page is open, and shows where an answer is needed first. */
export default function Outbox() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const person = useSession().data?.person;
  const proposer = person?.role === 'apprentice' ? person.id : null;
  const { questions, isSignedOut, isNotKept } = useSyncExternalStore(onWaiting, waiting);
  useEffect(() => {
    const bring = async () => {
      for (const timerId of newTimers()) await sendNewSiteOf(timerId);
      await sendWaiting(proposer);
      await sendPhotos();
    };
    // What cannot be sent now is retried; a refusal is shown where the thing was made.
    const tryNow = () => void bring().catch(() => undefined);
    tryNow();
    const trying = setInterval(tryNow, TRY_EVERY_MS);
    addEventListener('online', tryNow);
    return () => {
      clearInterval(trying);
      removeEventListener('online', tryNow);
    };
  }, [proposer]);
  useEffect(
    () =>
      onSaved((timerId, { closing }) => {
        if (!closing) return;
        void client.invalidateQueries({ queryKey: visitKeys.of(timerId) });
        void client.invalidateQueries({ queryKey: siteKeys.all });
      }),
    [client],
  );
  const elsewhere = questions.filter((id) => !location.pathname.startsWith(`/timers/${id}`));
  const [first] = elsewhere;
  if (isNotKept)
    return (
      <Alert
        banner
        role="alert"
        type="error"
        title={say`This device is full. Your last entries exist only on this page. Keep it open until they are saved.`}
      />
    );
  if (isSignedOut)
    return (
      <Alert
        banner
        role="status"
        type="warning"
        title={say`You are signed out. Your entries are kept on this device and will be sent when you sign in again.`}
        action={
          <Button type="primary" onClick={() => location.reload()}>{say`Sign in again`}</Button>
        }
      />
    );
  if (first === undefined) return null;
  return (
    <Alert
      banner
      role="status"
      type="warning"
      icon={<QuestionCircleOutlined aria-hidden />}
      title={
        elsewhere.length === 1
          ? say`You and a colleague changed the same thing on one timer. Choose which change to keep.`
          : say`You and colleagues changed the same things on ${elsewhere.length} timers. Choose which changes to keep.`
      }
      action={
        <Button
          type="primary"
          onClick={() => void navigate(`/timers/${first}`)}
        >{say`Review changes`}</Button>
      }
    />
  );
}
