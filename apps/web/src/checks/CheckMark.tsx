import { Button } from 'antd';
import { ExclamationCircleFilled, WarningOutlined } from '@ant-design/icons';
import { Hint } from '../fields/Hint.tsx';
import type { Place } from './checkMarks.ts';
import { useOpenChecks } from './checksContext.ts';

/** The mark of the checks beside what they are about: its sentence on a look, the checks on a press. */
export function CheckMark(place: Place) {
  const { marks, open } = useOpenChecks();
  const mark = marks(place);
  if (!mark) return null;
  const words = mark.sentences.join(' ');
  return (
    <Hint title={words}>
      <Button
        type="text"
        size="small"
        className={`check-mark check-mark-${mark.severity}`}
        icon={mark.severity === 'error' ? <ExclamationCircleFilled /> : <WarningOutlined />}
        aria-label={`Checks: ${words}`}
        onClick={open}
      />
    </Hint>
  );
}
