import { memo } from 'react';
import { Button } from 'antd';
import { ExclamationCircleFilled, WarningOutlined } from '@ant-design/icons';
import { Hint } from '../../shared/fields/Hint.tsx';
import type { Place, PlaceMark } from './checkMarks.ts';
import { useOpenChecks, useOpenFindings } from './checksContext.ts';
import { say } from '@water-clock/core';

interface Props {
  readonly severity: PlaceMark['severity'];
  readonly words: string;
}

const Mark = memo(function Mark({ severity, words }: Props) {
  const open = useOpenChecks();
  return (
    <Hint title={words}>
      <Button
        type="text"
        size="small"
        className={`check-mark check-mark-${severity}`}
        icon={severity === 'error' ? <ExclamationCircleFilled /> : <WarningOutlined />}
        aria-label={say`Checks: ${words}`}
        onClick={open}
      />
    </Hint>
  );
});

/** A finding's mark next to its subject: hover for the message, press for the checks. */
export function CheckMark(place: Place) {
  const mark = useOpenFindings().marks(place);
  return mark && <Mark severity={mark.severity} words={mark.sentences.join(' ')} />;
}
