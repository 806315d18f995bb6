import { useState } from 'react';
import { Alert, Button, Form, Input, Modal, Select } from 'antd';
import { useNavigate } from 'react-router';
import { formatMoment, MOST_LEVEL, type Plan, type TimerKind, say } from '@water-clock/core';
import { useKeepDocument } from '../../data/api/library.ts';
import { failureWords, newId } from '../../data/api/request.ts';
import { civilSecond, deviceZone } from '../../app/platform/zone.ts';
import { started } from '../../data/workers/started.ts';
import type { TaskWorker } from '../../data/workers/taskMaking.worker.ts';
import { LEVELS } from './levels.ts';

interface Words {
  readonly title: string;
  readonly says: string;
  readonly level: number;
}

/** Makes a task from one of the company's timers: an empty timer of its kind, and its settings as the card. */
export default function MakeTask({
  plan,
  kind,
  close,
}: {
  readonly plan: Plan;
  readonly kind: TimerKind | null;
  readonly close: () => void;
}) {
  const navigate = useNavigate();
  const keep = useKeepDocument('tasks');
  const [isMaking, setMaking] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  // The same ids for a repeated request.
  const [ids] = useState(() => ({ target: newId(), id: newId() }));
  const make = async (words: Words) => {
    setFault(null);
    setMaking(true);
    const worker = started<TaskWorker>(
      new Worker(new URL('../../data/workers/taskMaking.worker.ts', import.meta.url), {
        type: 'module',
      }),
    );
    const at = formatMoment(civilSecond(new Date(), deviceZone()));
    const task = await worker.call.make(plan, kind, { ...words, at }).finally(() => worker.end());
    setMaking(false);
    if (!task) {
      setFault(
        say`This plan cannot be keyed into an empty timer of this kind, so the task would be impossible.`,
      );
      return;
    }
    keep.mutate(
      { ...ids, baseVersion: 0, document: task },
      {
        onSuccess: () => void navigate(`/bench/tasks/${ids.target}`),
        onError: (error) => setFault(failureWords(error, say`Task not saved`)),
      },
    );
  };
  return (
    <Modal open title={say`Make a task from this garden`} onCancel={close} footer={null}>
      <Form<Words>
        layout="vertical"
        initialValues={{
          title: say`Key in this garden`,
          says: say`A new timer and a card from the office.`,
          level: 3,
        }}
        onFinish={(words) => void make(words)}
      >
        <Form.Item name="title" label={say`Title`} rules={[{ required: true, max: 200 }]}>
          <Input />
        </Form.Item>
        <Form.Item
          name="says"
          label={say`What the customer or office says`}
          rules={[{ required: true, max: 2000 }]}
        >
          <Input.TextArea rows={3} />
        </Form.Item>
        <Form.Item name="level" label={say`Difficulty`}>
          <Select
            options={Array.from({ length: MOST_LEVEL }, (_, i) => ({
              value: i + 1,
              label: LEVELS[i],
            }))}
          />
        </Form.Item>
        {fault !== null && <Alert type="error" role="alert" title={fault} />}
        <Button
          type="primary"
          htmlType="submit"
          loading={isMaking || keep.isPending}
        >{say`Create task`}</Button>
      </Form>
    </Modal>
  );
}
