const MILLISECONDS_BETWEEN_NEWS = 120;

/** A listener that is called a few times a second at most: nobody reads more, and each call is a message to the page. */
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
