import { type FormEvent, useCallback, useState } from 'react';
import { type DefaultValues, type FieldValues, type Path, type PathValue, useForm, useWatch } from 'react-hook-form';
import { type ActOptions, fieldOf, useAct } from '@/api/act';

interface Options<V extends FieldValues, R> extends Omit<ActOptions<V, R>, 'failed'> {
    /** What stands in the fields at first, by the names the server has for them. */
    start: V;
    send: (values: V) => Promise<R>;
    failed?: (sentence: string, error: unknown) => void;
    /** Fields that are emptied once they have been sent, whatever the answer: secrets. */
    forget?: Path<V>[];
    /** Whether what has been sent is what there is from then on, and nothing of it counts as touched any more. */
    settles?: boolean;
}

/**
 * A form that is sent as a whole: once at a time, and what the server refuses stands at the field it names, which gets
 * the focus; at `home`, or in `error`, where it names none that is here.
 */
export function useSentForm<V extends FieldValues, R = unknown>({
    start,
    send,
    failed,
    home,
    forget = [],
    settles = false,
    then,
    ...options
}: Options<V, R>) {
    const form = useForm<V>({ defaultValues: start as DefaultValues<V> });
    const [overtaken, setOvertaken] = useState<string[]>([]);
    const values = useWatch({ control: form.control }) as V;
    const empty = () => {
        for (const name of forget) form.setValue(name, '' as PathValue<V, Path<V>>);
    };
    const act = useAct(send, {
        ...options,
        then: (result, wish) => {
            empty();
            if (settles) {
                setOvertaken([]);
                form.reset(form.getValues());
            }
            return then?.(result, wish);
        },
        failed: (said, error) => {
            empty();
            const named = fieldOf(error);
            const at = named !== undefined && named in start ? named : home;
            if (at === undefined) form.setError('root.server', { message: said });
            else form.setError(at as Path<V>, { type: 'server', message: said }, { shouldFocus: true });
            failed?.(said, error);
        },
    });
    const { errors } = form.formState;
    const error = (name: string) => {
        const found = errors[name];
        return typeof found?.message === 'string' ? found.message : undefined;
    };
    return {
        values,
        /** All that an input needs: its name, what it holds, and what was refused of it. */
        field: (name: Path<V>) => ({
            ...form.register(name, { onChange: () => form.clearErrors(name) }),
            error: error(name),
        }),
        /** The same for a control that says its value by itself. */
        choice: <N extends Path<V>>(name: N) => ({
            value: values[name] as PathValue<V, N>,
            onChange: (value: PathValue<V, N>) => {
                form.setValue(name, value, { shouldDirty: true });
                form.clearErrors(name);
            },
        }),
        /** The same for a box to tick. */
        check: (name: Path<V>) => form.register(name),
        set: <N extends Path<V>>(name: N, value: PathValue<V, N>) => {
            form.setValue(name, value, { shouldDirty: true });
            form.clearErrors(name);
        },
        /** Begins anew from what is given; where what somebody has touched is to stay, that stays. */
        reset: useCallback(
            (from: V, { keepTouched = false } = {}) => {
                const before = form.formState.defaultValues as V | undefined;
                const touched = Object.keys(form.formState.dirtyFields);
                setOvertaken(
                    keepTouched
                        ? touched
                              .filter(
                                  (name) =>
                                      JSON.stringify(before?.[name]) !== JSON.stringify(from[name]) &&
                                      JSON.stringify(form.getValues()[name]) !== JSON.stringify(from[name]),
                              )
                              .map((name) => `${name.replaceAll('_', ' ')} is now “${String(from[name])}”`)
                        : [],
                );
                form.reset(from, { keepDirtyValues: keepTouched, keepErrors: keepTouched });
            },
            [form],
        ),
        /** Of what has been touched here, what has become otherwise elsewhere, in words. */
        overtaken,
        /** Why it was refused, where that stands at no field. */
        error: errors.root?.['server']?.message ?? '',
        at: error,
        submit: (event: FormEvent) => {
            event.preventDefault();
            form.clearErrors();
            act.run(form.getValues());
        },
        busy: act.busy,
    };
}

export type SentForm<V extends FieldValues> = ReturnType<typeof useSentForm<V>>;
