import { ExclamationCircleFilled } from '@ant-design/icons';
import type { Status } from '../../data/api/lines.ts';
import './verdict.css';

/**
 * Icon of a verdict, readable without colour: two bars apart, two bars crossing, half a bar, a bare line; an exclamation mark for broken
 * rules and too much flow.
 */
export function VerdictMark({
  verdict,
  size = 36,
}: {
  readonly verdict: Status;
  readonly size?: number;
}) {
  if (verdict === 'breach' || verdict === 'supply')
    return (
      <ExclamationCircleFilled className="verdict-mark" style={{ fontSize: size }} aria-hidden />
    );
  return (
    <svg viewBox="0 0 36 36" width={size} height={size} aria-hidden className="verdict-mark">
      {verdict === 'clear' && (
        <>
          <rect x="2" y="7" width="14" height="9" fill="currentColor" />
          <rect x="20" y="20" width="14" height="9" fill="currentColor" />
        </>
      )}
      {verdict === 'overlap' && (
        <>
          <rect x="2" y="7" width="22" height="9" fill="currentColor" />
          <rect x="12" y="20" width="22" height="9" fill="currentColor" />
          <path d="M12 3v30M24 3v30" stroke="currentColor" strokeWidth="2" strokeDasharray="3 2" />
        </>
      )}
      {verdict === 'incomplete' && (
        <>
          <rect x="2" y="13" width="14" height="10" fill="currentColor" />
          <rect
            x="19"
            y="14"
            width="14"
            height="8"
            fill="none"
            stroke="currentColor"
            strokeWidth="2"
            strokeDasharray="3 2"
          />
        </>
      )}
      {verdict === 'empty' && <path d="M3 18h30" stroke="currentColor" strokeWidth="3" />}
    </svg>
  );
}
