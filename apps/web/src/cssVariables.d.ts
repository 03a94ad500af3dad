import 'react';

declare module 'react' {
  /** Custom properties are how a part hands a computed place to its style sheet. */
  interface CSSProperties {
    [name: `--${string}`]: string | number | undefined;
  }
}
