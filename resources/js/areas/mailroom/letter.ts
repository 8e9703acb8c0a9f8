import { api, data, type Schemas } from '@/api/client';
import { sendFiles } from '@/api/files';
import type { paths } from '@/api/schema';

type Sent<Path extends '/api/schools/{school}/mailings' | '/api/schools/{school}/mailings/kept'> = NonNullable<
    paths[Path]['post']['requestBody']
>['content']['application/json'];
type Letter = Sent<'/api/schools/{school}/mailings'>;

/** What is kept of a letter for another time. */
export type Template = Sent<'/api/schools/{school}/mailings/kept'>;

/** What the doors of a letter have in common, for a school or for one section of it. */
export function letterDoors(school: string, section: string | undefined) {
    const ofSection = { params: { path: { section: section ?? '' } } };
    const ofSchool = { params: { path: { school } } };
    return {
        plan: (body: Letter) =>
            data(
                section
                    ? api.POST('/api/sections/{section}/letter/plan', { ...ofSection, body })
                    : api.POST('/api/schools/{school}/mailings/plan', { ...ofSchool, body }),
            ),
        send: (body: Letter) =>
            data(
                section
                    ? api.POST('/api/sections/{section}/letter', { ...ofSection, body })
                    : api.POST('/api/schools/{school}/mailings', { ...ofSchool, body }),
            ),
        file: (file: File) => {
            const form = new FormData();
            form.append('file', file);
            return sendFiles<Schemas['LetterFile']>(
                section ? `/api/sections/${section}/letter/files` : `/api/schools/${school}/mailings/files`,
                form,
            );
        },
        kept: () =>
            data(
                section
                    ? api.GET('/api/sections/{section}/letter/kept', ofSection)
                    : api.GET('/api/schools/{school}/mailings/kept', ofSchool),
            ),
        keep: (body: Template) =>
            data(
                section
                    ? api.POST('/api/sections/{section}/letter/kept', { ...ofSection, body })
                    : api.POST('/api/schools/{school}/mailings/kept', { ...ofSchool, body }),
            ),
        forget: (template: string) =>
            data(
                section
                    ? api.DELETE('/api/sections/{section}/letter/kept/{template}', {
                          params: { path: { section, template } },
                      })
                    : api.DELETE('/api/schools/{school}/mailings/kept/{template}', {
                          params: { path: { school, template } },
                      }),
            ),
    };
}

export type LetterDoors = ReturnType<typeof letterDoors>;
