import { computed, shallowRef } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import { sender } from './useOutbox'
import { useSettings } from './useSettings'

export type Session = Schemas['SessionView']
type Right = 'jobs' | 'planning' | 'administration'

const session = shallowRef<Session>()

sender.isAnother = (made) =>
  session.value
    ? session.value.state === 'signedIn' && !session.value.isDemo && session.value.name !== made
    : // Until the service has answered: whoever was here last.
      localStorage.getItem('fehler.who') !== made

/** Who is signed in here, as the service says; the name in the journals is theirs. */
export function useSession() {
  const { who } = useSettings()

  async function load(): Promise<Session> {
    const now = need(await api.GET('/api/session'))
    session.value = now
    if (now.state === 'signedIn' && !now.isDemo) who.value = now.name
    return now
  }

  async function signOut(everywhere = false): Promise<void> {
    await (everywhere ? api.DELETE('/api/session/all') : api.DELETE('/api/session'))
    await load()
  }

  /** Whether this person may; until the service has answered everything is offered, and the service decides. */
  const can = (right: Right) => !session.value || session.value.rights.includes(right)
  const isDemo = computed(() => session.value?.isDemo ?? false)
  return { session, load, signOut, can, isDemo }
}
