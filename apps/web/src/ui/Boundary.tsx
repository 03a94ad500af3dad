import { Component, type ReactNode } from 'react';
import { Failed } from './Notice.tsx';
import { Unreachable } from '../kernel/api.ts';

/** A page that could not be fetched fails as an import does, in the words of each browser. */
const NOT_FETCHED = /dynamically imported module|Importing a module script failed|error loading/i;

interface Props {
  /** The address of the page. */
  at: string;
  children: ReactNode;
}

interface State {
  error: unknown;
  at: string;
}

/**
 * Keeps a page that fails from taking the frame with it: what happened is said, what is unsent stays, and the other
 * pages are a tap away: leaving the address is leaving the failure.
 */
export class Boundary extends Component<Props, State> {
  override state: State = { error: null, at: this.props.at };

  static getDerivedStateFromProps({ at }: Props, state: State): State | null {
    return at === state.at ? null : { error: null, at };
  }

  static getDerivedStateFromError(error: unknown): Pick<State, 'error'> {
    return { error: error instanceof Error && NOT_FETCHED.test(error.message) ? new Unreachable() : error };
  }

  override render(): ReactNode {
    if (this.state.error === null) return this.props.children;
    return <Failed error={this.state.error} onRetry={() => window.location.reload()} />;
  }
}
