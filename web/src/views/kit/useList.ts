/** A list of things on its way in: its text, how it was read, what was answered, and taking it. */
import { useState } from 'react'
import { api, type KitPreview, type KitText, Problem, type SheetText } from '../../api/client'
import { useDesk } from '../../api/tour'
import { type Answers, keyOf, type Question } from './Doubts'

type Choices = NonNullable<KitText['columns']>

export function useList(onTaken: () => void) {
  const { tour, ask } = useDesk()
  const [text, setText] = useState('')
  const [columns, setColumns] = useState<Choices>([])
  const [answers, setAnswers] = useState<Answers>([])
  const [questions, setQuestions] = useState<Question[]>([])
  const [book, setBook] = useState<SheetText['sheets']>([])
  const [preview, setPreview] = useState<KitPreview | null>(null)
  const [trouble, setTrouble] = useState('')
  const refuse = (e: unknown) => {
    setPreview(null)
    setTrouble(e instanceof Problem ? `${e.body.detail}. ${e.body.where ?? ''} ${e.body.mend ?? ''}` : String(e))
  }
  const look = (content: string, choices: Choices, said: Answers = []) => {
    setTrouble('')
    setText(content)
    setColumns(choices)
    setAnswers(said)
    api.previewKit(tour.id, { text: content, columns: choices, answers: said }).then((found) => {
      setPreview(found)
      // What was asked stays where it is while it is answered; what an answer asks anew comes after it.
      const asked = said.length ? questions : []
      setQuestions([...asked, ...found.questions.filter((q) => !asked.some((a) => keyOf(a) === keyOf(q)))])
    }, refuse)
  }
  const say = (answer: Answers[number]) => {
    const said = [...answers.filter((a) => keyOf(a) !== keyOf(answer)), answer]
    if (answer.asks === 'kind') look(text, columns, said)
    else setAnswers(said)
  }
  /** Takes what can be taken; calls `onTaken` once it is kept. */
  const take = async (how: { replace?: boolean; again?: boolean }) => {
    const kept = await ask('Taking the things', (id, revision) =>
      api.importKit(id, { revision, text, columns, answers, replace: false, again: false, ...how }),
    )
    if (kept) onTaken()
  }
  return {
    ...{ text, columns, answers, questions, book, preview, trouble, look, say, take },
    things: preview?.things ?? [],
    here: preview?.here.length ?? 0,
    /** Another text in its place, not looked at yet. */
    type: (content: string) => {
      setText(content)
      setColumns([])
      setPreview(null)
    },
    /** A file of one sheet or several. */
    open: (file: File) =>
      void api.sheetText(file).then((found) => {
        setBook(found.sheets)
        look(found.text, [])
      }, refuse),
  }
}

export type List = ReturnType<typeof useList>
