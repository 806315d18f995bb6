/** Difficulty of a task, from level 1. */
import { say } from '@water-clock/core';
export const LEVELS = [say`first steps`, say`easy`, say`medium`, say`hard`, say`very hard`];
