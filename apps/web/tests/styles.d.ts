/** Style sheets are imported for their effect; they export nothing. */
declare module '*.css';
