import useSWR from 'swr'
import type { Row, TableName } from '../../core/model'
import { all, one } from './store'

const OPTIONS = { revalidateOnFocus: false, revalidateOnReconnect: false, keepPreviousData: true }

/** The records of a table whose indexed field has a value; undefined while they are being read. */
export function useRows<T extends TableName>(
  table: T,
  index: string,
  value: string | null,
): Row<T>[] | undefined {
  return useSWR(
    value === null ? null : ['rows', table, index, value],
    () => all(table, index, value as string),
    OPTIONS,
  ).data
}

/** All records of a table. */
export function useTable<T extends TableName>(table: T): Row<T>[] | undefined {
  return useSWR(['rows', table], () => all(table), OPTIONS).data
}

/** One record: undefined while it is being read, null where there is none. */
export function useRow<T extends TableName>(table: T, id: string | null): Row<T> | null | undefined {
  return useSWR(
    id === null ? null : ['rows', table, 'id', id],
    async () => (await one(table, id as string)) ?? null,
    { ...OPTIONS, keepPreviousData: false },
  ).data
}
