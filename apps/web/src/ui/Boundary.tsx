import { Text } from '@mantine/core';
import { Component, type ReactNode } from 'react';
import { Failed } from './Notice.tsx';
import { Unreachable } from '../kernel/api.ts';

/** A page that could not be fetched fails as an import does, in the words of each browser. */
const NOT_FETCHED = /dynamically imported module|Importing a module script failed|error loading/i;

interface Props {
  /** What stands inside: the address of the page, or what a panel shows. Something else is another try. */
  at: string;
  /** What is said instead; the failure, and to load the page anew, unless it says otherwise. */
  instead?: ReactNode;
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
    if (this.props.instead !== undefined) return this.props.instead;
    return <Failed error={this.state.error} onRetry={() => window.location.reload()} />;
  }
}

/** Keeps a panel that fails from taking its page with it: a chart that cannot be drawn stops nobody from pulling a shot. */
export function PanelBoundary({ what, children }: { what: string; children: ReactNode }) {
  const instead = (
    <Text className="faint" role="status">
      {what} cannot be shown just now. Everything else goes on.
    </Text>
  );
  return (
    <Boundary at={what} instead={instead}>
      {children}
    </Boundary>
  );
}
