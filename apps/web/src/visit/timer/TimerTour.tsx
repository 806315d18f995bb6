import { Tour } from 'antd';
import { say } from '@water-clock/core';

const find = (selector: string) => () =>
  document.querySelector<HTMLElement>(selector) ?? document.body;

/** A tour of five stops for first-time users. */
export default function TimerTour({ close }: { readonly close: () => void }) {
  return (
    <Tour
      open
      onClose={close}
      onFinish={close}
      steps={[
        {
          title: say`The verdict`,
          description: say`Do programs overlap on any date? The answer is always here, with the most useful fix.`,
          target: find('.verdict'),
        },
        {
          title: say`The strip`,
          description: say`One night of this timer. Drag the blocks to move start times. Hatched hours are not allowed. You can switch to 14 nights or the year.`,
          target: find('.timer-sight'),
        },
        {
          title: say`The programs`,
          description: say`Stations with their minutes, and programs with their start times and days. Every change is checked at once, and you can undo it.`,
          target: find('.board, .phone-programs'),
        },
        {
          title: say`The checks`,
          description: say`Everything that is wrong or worth checking, worst first, with its fix.`,
          target: find('.timer-tools .checks-button'),
        },
        {
          title: say`The visit`,
          description: say`A visit has five phases, from arrival to hand-over. Each step has help in the menu at the top.`,
          target: find('.rail-steps, .foot'),
        },
      ]}
    />
  );
}
