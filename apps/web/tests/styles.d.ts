/** Style sheets are imported for what they do to the page; nothing is taken from them. */
declare module '*.css';
