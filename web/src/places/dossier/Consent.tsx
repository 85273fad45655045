import { useQueryClient } from '@tanstack/react-query'
import { Checkbox, Select } from 'antd'
import { clsx } from 'clsx'
import { api, got, type DossierView } from '../../api/client'
import { touched } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import { trimmed } from '../../ui/Blank'
import leavesCss from '../../ui/leaves.module.css'
import { message, modal } from '../../ui/tell'
import { DayFill, Fill, Note } from './Fill'
import { valueOf, type Edit } from './useDossier'

/** Consent is what the client agreed to, with its date; taken back, what was kept by it can be erased. */
export function Consent({
  edit,
  locked,
  today,
  owner,
}: {
  edit: Edit
  locked: boolean
  today: string
  owner: boolean
}) {
  const at = valueOf(edit, 'health_consent')
  const body = valueOf(edit, 'body_consent')
  const view = edit.query.data!
  return (
    <section className={leavesCss.leaf} aria-label="Consent">
      <h2>Consent</h2>
      <p className={leavesCss.prose}>
        <Checkbox
          disabled={locked}
          checked={!!at}
          onChange={(e) => edit.change('health_consent', e.target.checked ? today : null)}
        >
          The client agrees that health notes are kept
        </Checkbox>
        {at && (
          <>
            on <DayFill edit={edit} field="health_consent" label="Agreed on" max={today} disabled={locked} />
          </>
        )}
        {!at && <Note edit={edit} field="health_consent" />}
      </p>
      <p className={leavesCss.prose}>
        <Checkbox
          disabled={locked}
          checked={!!body}
          onChange={(e) => edit.change('body_consent', e.target.checked ? today : null)}
        >
          … and that measures and photos are
        </Checkbox>
        {body && (
          <>
            on{' '}
            <DayFill
              edit={edit}
              field="body_consent"
              label="Agreed to measures and photos on"
              max={today}
              disabled={locked}
            />
          </>
        )}
        {!body && <Note edit={edit} field="body_consent" />}
      </p>
      {view.may_measure && body && <p className={clsx(leavesCss.said, 'stop')}>{view.may_measure}</p>}
      <p className={leavesCss.prose}>
        For a minor, a guardian agreed on{' '}
        <DayFill edit={edit} field="guardian_on" label="Guardian agreed on" max={today} disabled={locked} />
      </p>
      <p className={leavesCss.prose}>
        Letters go to{' '}
        <Fill
          edit={edit}
          field="letters"
          label="Address for letters"
          read={trimmed}
          disabled={locked}
          placeholder="an e-mail address of the client’s"
        />
        {valueOf(edit, 'letters') && (
          <>
            {' '}
            <Checkbox
              disabled={locked}
              checked={!!valueOf(edit, 'letters_on')}
              onChange={(e) => edit.change('letters_on', e.target.checked ? today : null)}
            >
              agreed to
            </Checkbox>
            {valueOf(edit, 'letters_on') && (
              <>
                on <DayFill edit={edit} field="letters_on" label="Agreed to letters on" max={today} disabled={locked} />{' '}
                <Checkbox
                  disabled={locked}
                  checked={valueOf(edit, 'reminders')}
                  onChange={(e) => edit.change('reminders', e.target.checked)}
                >
                  a reminder the evening before
                </Checkbox>{' '}
                <Select
                  size="small"
                  variant="borderless"
                  aria-label="A letter about what was done"
                  disabled={locked}
                  value={valueOf(edit, 'summaries')}
                  onChange={(v) => edit.change('summaries', v)}
                  options={[
                    { value: '', label: 'no summaries' },
                    { value: 'after', label: 'a summary after each session' },
                    { value: 'weekly', label: 'a summary on Sundays' },
                  ]}
                />
              </>
            )}
          </>
        )}
        <Note edit={edit} field="letters_on" />
      </p>
      <p className="caveat">Taken back, what was kept by it is hidden at once; without health notes no sheet leaves.</p>
      {owner && !view.dossier.health_consent && (
        <Erase view={view} what="health" words="the health notes: screening, joints, mobility" keep={edit.keep} />
      )}
      {owner && !view.dossier.body_consent && (
        <Erase view={view} what="body" words="the measures and photos" keep={edit.keep} />
      )}
    </section>
  )
}

/** Erase offers to erase for good what was kept by a consent that is not there any more. */
function Erase({
  view,
  what,
  words,
  keep,
}: {
  view: DossierView
  what: 'health' | 'body'
  words: string
  keep: Edit['keep']
}) {
  const cache = useQueryClient()
  const { run: erase } = useWrite(
    async () => {
      keep(await got(api.POST('/clients/{client}/erase', { params: { path: { client: view.id } }, body: { what } })))
      touched(cache, ['measures'])
      message.success('Erased.')
    },
    (p) => message.error(p.words),
  )
  const press = () =>
    modal.confirm({
      title: `Erase ${words}?`,
      content: 'For good, at once: it cannot be brought back. Hand out the export first if the client wants it.',
      okText: 'Erase for good',
      okButtonProps: { danger: true },
      cancelText: 'Leave it',
      onOk: erase,
    })
  return (
    <p>
      <button type="button" className="link" onClick={press}>
        Erase {words}
      </button>
    </p>
  )
}
