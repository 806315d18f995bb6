import { Button, QRCode } from 'antd';
import type { ReactNode } from 'react';
import { say } from '@water-clock/core';

interface Props {
  readonly address: string;
  /** What to do with the link. */
  readonly children: ReactNode;
}

/** A private link that is shown once, with a QR code. */
export function MadeLink({ address, children }: Props) {
  return (
    <div className="notice">
      <strong>{children}</strong>{' '}
      <a className="page-link" href={address} target="_blank" rel="noreferrer">
        {address}
      </a>{' '}
      <Button onClick={() => void navigator.clipboard.writeText(address)}>{say`Copy`}</Button>
      {/* Screen readers read the link itself. */}
      <div aria-hidden>
        <QRCode type="svg" value={address} size={180} bordered={false} />
      </div>
    </div>
  );
}
