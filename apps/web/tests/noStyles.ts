/** Stands for a style sheet where no page is painted. */
export default {};
