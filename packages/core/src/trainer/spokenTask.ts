import type { Station } from '../plan/plan.ts';
import { sayText } from '../language/say.ts';
import type { Task } from './task.ts';

const spokenStations = (stations: readonly Station[]): readonly Station[] =>
  stations.map((station) =>
    station.name === undefined ? station : { ...station, name: sayText(station.name) },
  );

/** A shipped task in the current language. A text that is not a message, such as an office's own, stays as it is. */
export const spokenTask = (task: Task): Task => ({
  ...task,
  ...{ title: sayText(task.title), says: sayText(task.says), hints: task.hints.map(sayText) },
  scene: {
    ...task.scene,
    plan: { ...task.scene.plan, stations: spokenStations(task.scene.plan.stations) },
  },
  ...(task.card ? { card: { ...task.card, stations: spokenStations(task.card.stations) } } : {}),
});
