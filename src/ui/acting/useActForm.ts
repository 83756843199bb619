'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect, useState } from 'react';
import {
  get,
  useForm,
  useWatch,
  type DefaultValues,
  type FieldValues,
  type Path,
  type PathValue,
} from 'react-hook-form';
import type { z } from 'zod';
import type { Refusal } from '@/core/result';
import { forgetInBrowser, keepInBrowser, keptInBrowser } from './keptInBrowser';
import { useAct, useOnce, type Act } from './useAct';

type Options<In extends FieldValues, Out, I, T> = {
  /** How what is typed is read, where it depends on what is typed elsewhere. */
  readonly read: (typed: In) => z.ZodType<Out, In>;
  /** What stands there at first. */
  readonly start: In;
  /** Keeps what is typed in the browser under this name, until it is saved. */
  readonly keep?: string;
  /** A field that no browser keeps. */
  readonly secret?: Path<In>;
  readonly act: Act<I, T>;
  /** What the action is asked; the key makes that sending twice acts once. */
  readonly input: (read: Out, once: string) => I;
  readonly said?: (value: T, typed: In) => string | undefined;
  /** `restart` puts the form back to its start, or begins the next from what is given. */
  readonly onDone?: (value: T, restart: (from?: In) => void) => void;
  /** At a clash the page stays as it is, because its form settles it. */
  readonly stay?: boolean;
};

/**
 * A form that is read by a schema shared with the action that it calls: what is wrong is told beside its field before
 * anything is sent, and what the action refuses afterwards likewise.
 */
export function useActForm<In extends FieldValues, Out, I, T>({
  read,
  start,
  keep,
  secret,
  act,
  input,
  said,
  onDone,
  stay = false,
}: Options<In, Out, I, T>) {
  const form = useForm<In, unknown, Out>({
    defaultValues: start as DefaultValues<In>,
    resolver: (typed, context, options) => zodResolver(read(typed))(typed, context, options),
  });
  const { control, reset, subscribe, getValues, setValue, formState } = form;
  const typed = useWatch({ control }) as In;
  const [kept, setKept] = useState(false);
  useEffect(() => {
    if (keep === undefined) return undefined;
    const before = keptInBrowser(keep) as In | undefined;
    if (before !== undefined) {
      reset(before, { keepDefaultValues: true });
      // eslint-disable-next-line react-hooks/set-state-in-effect -- what the browser kept is known only after the first paint
      setKept(true);
    }
    return subscribe({
      formState: { values: true },
      callback: ({ values }) => keepInBrowser(keep, secret === undefined ? values : { ...values, [secret]: '' }),
    });
  }, [keep, secret, reset, subscribe]);

  const forget = () => {
    if (keep !== undefined) forgetInBrowser(keep);
    setKept(false);
  };
  const restart = (from = start) => {
    reset(from);
    forget();
  };
  const once = useOnce();
  const {
    run,
    busy,
    refusals,
    clash,
    clear,
    faultAt: toldAt,
  } = useAct(act, {
    stay,
    said: (value) => said?.(value, getValues()),
    onDone: (value) => {
      once.renew();
      forget();
      onDone?.(value, restart);
    },
  });

  const faultAt = (path: string): string | undefined => {
    const error = get(formState.errors, path) as { message?: string; root?: { message?: string } } | undefined;
    return error?.message ?? error?.root?.message ?? toldAt(path);
  };
  const put = <P extends Path<In>>(path: P, value: PathValue<In, P>) =>
    setValue(path, value, { shouldDirty: true, shouldValidate: formState.isSubmitted });
  // A row that was just added is there before the watched values are.
  const at = <P extends Path<In>>(path: P) => ({ value: getValues(path) as PathValue<In, P>, fault: faultAt(path) });

  return {
    control,
    typed,
    put,
    faultAt,
    busy,
    clash,
    clear,
    kept,
    restart,
    /** What is refused and belongs to no field. */
    refusals: refusals.filter((r) => r.field === undefined || r.field === '') as readonly Refusal[],
    /** The first thing that is wrong with what is typed, in its field's own words. */
    firstFault: firstMessage(formState.errors) ?? refusals[0]?.message,
    save: () => void form.handleSubmit((value) => run(input(value, once.key())))(),
    /** The refusal that names a path which is no field of its own. */
    refusedAt: (path: string) => refusals.find((r) => r.field === path),
    /** Binds a plain input; its fault stands elsewhere. */
    input: <P extends Path<In>>(path: P) => ({ ...form.register(path), value: getValues(path) as string }),
    /** Binds a field of text or a short list. */
    text: <P extends Path<In>>(path: P) => ({ ...form.register(path), ...at(path) }),
    day: <P extends Path<In>>(path: P) => ({
      ...at(path),
      name: path,
      onDay: (day: string) => put(path, day as PathValue<In, P>),
    }),
    pick: <P extends Path<In>>(path: P) => ({
      ...at(path),
      onPick: (thing: unknown) => put(path, thing as PathValue<In, P>),
    }),
    unit: <P extends Path<In>>(path: P) => ({
      ...at(path),
      onUnit: (code: string) => put(path, code as PathValue<In, P>),
    }),
    tick: <P extends Path<In>>(path: P) => ({
      checked: getValues(path) === true,
      onChange: (e: { target: { checked: boolean } }) => put(path, e.target.checked as PathValue<In, P>),
    }),
  };
}

/** The first message among the errors of a form, however deep its field is. */
function firstMessage(errors: unknown): string | undefined {
  if (typeof errors !== 'object' || errors === null) return undefined;
  if ('message' in errors && typeof errors.message === 'string') return errors.message;
  for (const [key, error] of Object.entries(errors)) {
    const found = key === 'ref' ? undefined : firstMessage(error);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** A form as its fields see it. */
export type ActForm<In extends FieldValues> = Pick<
  ReturnType<typeof useActForm<In, unknown, unknown, unknown>>,
  'control' | 'typed' | 'put' | 'faultAt' | 'text' | 'day' | 'pick' | 'unit'
>;
