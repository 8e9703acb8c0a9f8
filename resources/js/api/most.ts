// Written by `php artisan vantrel:openapi` from what the core says; not by hand.
/** Characters, or pieces, of what is written. */
export const MOST = {
    letterFiles: 5,
    letterSubject: 250,
    letterAsText: 600,
    keptLetterName: 60,
    noticeTitle: 120,
    workLine: 300,
    sectionName: 80,
    personName: 120,
    personNumber: 40,
} as const;
/** Characters that are asked for. */
export const LEAST = {
    password: 8,
    passwordAlone: 15,
} as const;
