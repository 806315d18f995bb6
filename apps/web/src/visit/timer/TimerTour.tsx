import { Tour } from 'antd';
import { say } from '@water-clock/core';

const find = (selector: string) => () =>
  document.querySelector<HTMLElement>(selector) ?? document.body;

/** Five stops over a timer, for somebody who sees it for the first time. */
export default function TimerTour({ close }: { readonly close: () => void }) {
  return (
    <Tour
      open
      onClose={close}
      onFinish={close}
      steps={[
        {
          title: say`The verdict`,
          description: say`Do programs ever overlap, on any date? The answer stands here at all times, with the fix that helps most.`,
          target: find('.verdict'),
        },
        {
          title: say`The strip`,
          description: say`A night of this timer. Blocks can be dragged; hatched hours are not allowed. Fortnight and year are one press away.`,
          target: find('.timer-sight'),
        },
        {
          title: say`The programs`,
          description: say`Stations and their minutes, programs with their starts and days. Every key is judged at once, and undo takes it back.`,
          target: find('.board, .phone-programs'),
        },
        {
          title: say`The checks`,
          description: say`Everything that is wrong or worth a look, the worst first, with its fix.`,
          target: find('.timer-tools .checks-button'),
        },
        {
          title: say`The visit`,
          description: say`A visit from arriving to handing over, in five phases. Each step has help in the menu at the top.`,
          target: find('.rail-steps, .foot'),
        },
      ]}
    />
  );
}
