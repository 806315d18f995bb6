import { Alert, Button, Flex } from 'antd';
import { useNavigate } from 'react-router';
import { useDeviceSwitch } from '../../shared/hand/useDeviceSwitch.ts';
import { say } from '@water-clock/core';

/** Router state that asks for the tour. */
const TOUR = { tour: true } as const;

/** Offers the tour once on each device. */
export function TourOffer({ timerId }: { readonly timerId: string }) {
  const navigate = useNavigate();
  const [isOver, setOver] = useDeviceSwitch('tour-offered', false);
  if (isOver) return null;
  return (
    <Alert
      className="tour-offer"
      type="info"
      title={say`New here? Take a five-step tour of a timer.`}
      action={
        <Flex gap={8} wrap>
          <Button
            type="primary"
            onClick={() => {
              setOver(true);
              void navigate(`/timers/${timerId}`, { state: TOUR });
            }}
          >{say`Show me`}</Button>
          <Button onClick={() => setOver(true)}>{say`No, thanks`}</Button>
        </Flex>
      }
    />
  );
}
