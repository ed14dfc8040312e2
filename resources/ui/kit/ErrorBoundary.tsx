import { Component, type ReactNode } from 'react';

/** A fault in one page must not blank the tablet: it says so and offers the way back. Drafts are kept. */
export class ErrorBoundary extends Component<{ children: ReactNode }, { failed: boolean }> {
    state = { failed: false };

    static getDerivedStateFromError() {
        return { failed: true };
    }

    render() {
        if (!this.state.failed) return this.props.children;
        return (
            <div role="alert" className="sheet p-6">
                <h1 className="mb-2 text-2xl">This page could not be shown</h1>
                <p className="mb-3">
                    That is a fault of the program. Nothing was lost: what you typed is kept on this tablet.
                </p>
                <button type="button" className="btn btn-main" onClick={() => location.reload()}>
                    Show it again
                </button>
            </div>
        );
    }
}
