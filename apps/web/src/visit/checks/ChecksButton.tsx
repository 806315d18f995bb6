import { memo } from 'react';
import { Badge, Button } from 'antd';
import { CheckSquareOutlined } from '@ant-design/icons';
import { useScreen } from '../../app/frame/useScreen.ts';
import { useOpenChecks, useOpenFindings } from './checksContext.ts';
import { say } from '@water-clock/core';

const Counted = memo(function Counted({ count }: { readonly count: number }) {
  const open = useOpenChecks();
  const isPhone = useScreen() === 'phone';
  return (
    <Badge count={count} overflowCount={99} size="small" offset={[-6, 4]}>
      <Button
        icon={isPhone ? <CheckSquareOutlined /> : undefined}
        className="checks-button"
        aria-label={count === 0 ? say`Checks` : say`Checks: ${count}`}
        aria-haspopup="dialog"
        onClick={open}
      >
        {!isPhone && say`Checks`}
      </Button>
    </Badge>
  );
});

/** Opens the checks; shows the number of open findings above "for information". */
export function ChecksButton() {
  const { count } = useOpenFindings();
  return count !== null && <Counted count={count} />;
}
