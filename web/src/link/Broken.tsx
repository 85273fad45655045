import { Component, type ReactNode } from 'react'

/** Broken stands where a page failed: what was told is kept on the device, and the page can be opened again. */
export class Broken extends Component<{ children: ReactNode }, { failed: boolean }> {
  state = { failed: false }
  static getDerivedStateFromError() {
    return { failed: true }
  }
  render() {
    if (!this.state.failed) return this.props.children
    return (
      <main className="soon">
        <h1>Something went wrong here</h1>
        <p role="alert">What you told is kept on this device. Open the page again to go on.</p>
        <p>
          <button type="button" onClick={() => location.reload()}>
            Open it again
          </button>
        </p>
      </main>
    )
  }
}
