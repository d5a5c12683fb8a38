// The library of drivers.

import { queryOptions, useQueries, useQuery } from '@tanstack/react-query';
import type { RawComparison, RawDriver, WantedDrivers } from '../../schema/types';
import { answered, api } from '../client';
import { keys, queryClient } from './shared';

function driverPage(wanted: WantedDrivers) {
  return queryOptions({
    queryKey: [...keys.drivers, wanted],
    queryFn: ({ signal }) => answered(api.GET('/api/v1/drivers', { params: { query: wanted }, signal })),
  });
}

/** A page of the library; the page before stays on show until the next is there. */
export function useDrivers(wanted: WantedDrivers) {
  return useQuery({ ...driverPage(wanted), placeholderData: (previous) => previous });
}

/** Puts a driver into the library. */
export const addDriver = (driver: RawDriver) => answered(api.POST('/api/v1/drivers', { body: driver }));

/** Asks once for a page of the library. */
export function askDrivers(wanted: WantedDrivers) {
  return queryClient.fetchQuery(driverPage(wanted));
}

/** Drivers of the library that are much like one. */
export function useAlike(driver: RawDriver, complete: boolean) {
  return useQuery({
    queryKey: [...keys.drivers, 'alike', driver],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/drivers/alike', { body: driver, signal })),
    enabled: complete,
    placeholderData: (previous) => previous,
    retry: false,
  });
}

/** Completes a data sheet as it is typed. */
export function useCompletion(driver: RawDriver) {
  return useQuery({
    queryKey: ['completion', driver],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/drivers/resolve', { body: driver, signal })),
    placeholderData: (previous) => previous,
    retry: false,
  });
}

/** Drivers of the library by their keys, in order. */
export function useDriversById(ids: string[]) {
  return useQueries({
    queries: ids.map((id) => ({
      queryKey: [...keys.drivers, 'one', id],
      queryFn: () => answered(api.GET('/api/v1/drivers/{id}', { params: { path: { id } } })),
    })),
  });
}

/** Drivers in the same box and each in its own. */
export function useComparison(ask: RawComparison, wanted = true) {
  return useQuery({
    queryKey: ['comparison', ask],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/compare', { body: ask, signal })),
    enabled: wanted,
    placeholderData: (previous) => previous,
    gcTime: 5000,
    retry: false,
  });
}

/** What a data sheet holds as text, with that text; what was found before stays on show meanwhile. */
export function useSheet(text: string) {
  return useQuery({
    queryKey: ['sheet', text],
    queryFn: async ({ signal }) => {
      const reading = await answered(api.POST('/api/v1/drivers/read-sheet', { body: { text }, signal }));
      return { text, reading };
    },
    enabled: text.trim() !== '',
    placeholderData: (previous) => previous,
    gcTime: 5000,
    retry: false,
  });
}
