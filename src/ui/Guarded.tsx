/** Keeps a broken part of a screen from taking the rest with it: says what broke, what is safe, and the way on. */
import { Component, type ComponentType, type ReactNode } from 'react';

interface Props {
  /** What broke, in words: "The worktable". */
  what: string;
  children: ReactNode;
}

class Boundary extends Component<Props, { error: Error | null }> {
  override state: { error: Error | null } = { error: null };

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  override render(): ReactNode {
    const { error } = this.state;
    if (!error) return this.props.children;
    return (
      <section role="alert" className="sheet m-6">
        <h2 className="text-xl">{this.props.what} came to a stop</h2>
        <p className="mt-1">
          What was saved is safe, and what you typed last is kept in this browser; it is offered when you open
          this again. Nothing was sent anywhere.
        </p>
        <p className="mt-1 font-narrow text-soft">{error.message}</p>
        <p className="mt-2 flex gap-3">
          <button type="button" className="action" onClick={() => this.setState({ error: null })}>
            Try again
          </button>
          <button type="button" className="action" onClick={() => location.reload()}>
            Open it anew
          </button>
          <a className="action" href="/">
            Back to the range
          </a>
        </p>
      </section>
    );
  }
}

/** An island with a boundary round it. */
export function guarded<P extends object>(what: string, Island: ComponentType<P>): (props: P) => ReactNode {
  return function Guarded(props: P) {
    return (
      <Boundary what={what}>
        <Island {...props} />
      </Boundary>
    );
  };
}
