<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** As what somebody is in a section. */
enum EnrollmentRole: string
{
    case Student = 'student';
    case Lead = 'lead';
    case CoTeacher = 'co_teacher';
    case Assistant = 'assistant';
    case Substitute = 'substitute';
}
