import { refDebounced } from '@vueuse/core'
import { computed, onMounted, reactive, ref, shallowRef, watch } from 'vue'
import { need } from '@/api/client'

export interface ListPage<T> {
  total: number
  items: T[]
}

/** What a list asks the service for. */
export interface ListQuery {
  search?: string
  sort?: string
  descending?: boolean
  skip: number
  take: number
}

/** A list that the service pages, sorts and searches: one page is here at a time. */
export function usePagedList<T>(
  fetchPage: (query: ListQuery) => Promise<{ data?: ListPage<T>; error?: unknown; response: Response }>,
  sort = '',
  descending = false,
  beginsWith = '',
) {
  const rows = 25
  const page = shallowRef<ListPage<T>>()
  const problem = ref('')
  const loading = ref(false)
  const search = ref(beginsWith)
  const searched = refDebounced(search, 200)
  const order = reactive({ first: 0, sort, descending })
  let asked = 0

  async function load() {
    const number = ++asked
    loading.value = true
    try {
      const answer = need(
        await fetchPage({
          search: searched.value.trim() || undefined,
          sort: order.sort || undefined,
          descending: order.descending || undefined,
          skip: order.first,
          take: rows,
        }),
      )
      // An answer that was overtaken by a newer question is not shown.
      if (number === asked) {
        page.value = answer
        problem.value = ''
      }
    } catch (error) {
      if (number === asked) problem.value = (error as Error).message
    } finally {
      if (number === asked) loading.value = false
    }
  }

  function turn(first: number) {
    order.first = first
    void load()
  }

  function sortBy(field: string, down: boolean) {
    Object.assign(order, { first: 0, sort: field, descending: down })
    void load()
  }

  watch(searched, () => {
    order.first = 0
    void load()
  })
  onMounted(load)
  /** What a table of this list is bound to, and what it does. */
  const table = computed(() => ({
    lazy: true,
    value: page.value?.items ?? [],
    totalRecords: page.value?.total ?? 0,
    first: order.first,
    loading: loading.value,
    paginator: true,
    rows,
    alwaysShowPaginator: false,
    sortField: order.sort,
    sortOrder: order.descending ? -1 : 1,
  }))
  const tableActs = {
    page: (event: { first: number }) => turn(event.first),
    sort: (event: { sortField?: unknown; sortOrder?: number | null }) =>
      sortBy(String(event.sortField ?? ''), event.sortOrder === -1),
  }
  return { page, problem, loading, search, order, load, turn, sortBy, table, tableActs }
}
