import { message, Modal } from 'antd'
import { useEffect } from 'react'
import { forTeller } from './tell'

/** Voice is the component library's notices and questions, under our theme; see tell.ts. */
export function Voice() {
  const [notices, noticesHere] = message.useMessage()
  const [questions, questionsHere] = Modal.useModal()
  useEffect(() => {
    forTeller.here({
      say: (told) => void notices.open(told),
      hush: (key) => notices.destroy(key),
      ask: (question) => void questions.confirm(question),
    })
    return () => forTeller.here(null)
  }, [notices, questions])
  return (
    <>
      {noticesHere}
      {questionsHere}
    </>
  )
}
