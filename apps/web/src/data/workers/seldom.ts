const MILLISECONDS_BETWEEN_NEWS = 120;

/** Limits calls of a listener to a few a second: each is a message to the page. */
export function seldom<T>(
  tell: (news: T) => void,
  now = () => performance.now(),
): (news: T) => void {
  let last = now();
  return (news) => {
    const at = now();
    if (at - last < MILLISECONDS_BETWEEN_NEWS) return;
    last = at;
    tell(news);
  };
}
