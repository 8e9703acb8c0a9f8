<?php

declare(strict_types=1);

namespace App\Sections\Views;

use App\Platform\Resource;

/** The page of one student of a section, for looking at. */
final readonly class StudentView extends Resource
{
    /**
     * @param  list<StudentSection>  $sections
     * @param  list<Classmate>  $students of the section, to look as another
     */
    public function __construct(
        public string $id,
        public string $givenName,
        public string $school,
        public string $userName,
        public array $sections,
        public array $students,
    ) {}
}
