import type { SetUpView } from '../../api/client'

/** SetUpSays is what the tool says of a set-up in a margin: what it does, what it cannot tell, what to watch. */
export function SetUpSays({ view }: { view: SetUpView }) {
  return (
    <>
      <h2>What this set-up does</h2>
      <div className="finding does">
        {view.does.map((d) => (
          <p key={d}>{d}</p>
        ))}
        <p className="caveat">{view.caveat}</p>
      </div>
      {view.cautions.length > 0 && (
        <div className="finding warn">
          {view.cautions.map((c) => (
            <p key={c}>{c}</p>
          ))}
        </div>
      )}
    </>
  )
}
