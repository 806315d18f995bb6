/** How hard a task is, from level 1 on. */
import { say } from '@water-clock/core';
export const LEVELS = [say`first steps`, say`easy`, say`medium`, say`hard`, say`very hard`];
