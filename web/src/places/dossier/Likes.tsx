import { useQuery } from '@tanstack/react-query'
import { queries } from '../../api/queries'
import { Preferences } from '../../ui/Preferences'
import leavesCss from '../../ui/leaves.module.css'
import { Note } from './Fill'
import { valueOf, type Edit } from './useDossier'

/** Likes is how a client likes to train, where it is not as the studio does it. */
export function Likes({ edit, locked }: { edit: Edit; locked: boolean }) {
  const studio = useQuery(queries.studio())
  if (!studio.data) return null
  const { axes, preferences } = studio.data
  return (
    <section className={leavesCss.leaf} aria-label="How she trains">
      <h2>Preferences</h2>
      <p className="caveat">
        They shape what is new; what is there already gets findings. Caps come first, then what is safe to fail, then
        what is typed.
      </p>
      <Preferences
        axes={axes}
        chosen={valueOf(edit, 'preferences') ?? {}}
        inherited={(axis) =>
          preferences[axis]
            ? { whose: 'as the studio', choice: preferences[axis] }
            : { whose: 'usual', choice: axes.find((a) => a.id === axis)!.choices[0]!.id }
        }
        locked={locked}
        choose={(next) => edit.change('preferences', next)}
      />
      <Note edit={edit} field="preferences" />
    </section>
  )
}
