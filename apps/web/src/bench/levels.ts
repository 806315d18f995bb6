/** How hard a task is, from level 1 on. */
export const LEVELS = ['first steps', 'easy', 'middling', 'hard', 'very hard'];
