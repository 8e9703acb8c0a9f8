<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Line;

/** Reads rows that are of somebody of the staff, or of a section with its teacher. */
final readonly class StaffCells
{
    /** @param  string  $label what the sheet is called beside others, '' where there is one only */
    public function __construct(
        private RowReader $row,
        private SectionCells $sections,
        private OtherSchools $others,
        private string $label,
    ) {}

    public function person(Line $line): ?StaffLine
    {
        $this->row->flaws($line);
        $this->others->look();
        $name = $this->row->name(Field::FullName, Field::GivenName, Field::FamilyName);
        $mail = $this->row->mail(Field::Email);
        if ($this->row->isNobody($name) && $mail === '' && !$this->row->hasProblems()) {
            return null;
        }
        if ($name->full() === '') {
            $this->row->problem(Field::FullName, 'There is no name. Type the name, or delete the row.');
        }
        if ($mail === '' && !$this->row->hasProblems()) {
            $this->row->problem(
                Field::Email,
                'Staff sign in with their e-mail address, and there is none. Type it, or delete the row.',
            );
        }

        return new StaffLine(
            $line->number,
            $name,
            $mail,
            $this->row->phone(Field::Phone),
            [...array_filter([$this->sections->homeroom($line)]), ...$this->sections->named($line)],
            $this->role(),
            $this->row->problems(),
            $this->label,
        );
    }

    /** A role nobody knows makes nobody a lead. */
    private function role(): string
    {
        $said = $this->row->cell(Field::Role);

        return $said === '' ? 'lead' : StaffRoles::read($said) ?? 'assistant';
    }

    public function section(Line $line): ?SectionLine
    {
        $this->row->flaws($line);
        $homeroom = $this->row->cell(Field::Section) === '' ? $this->row->cell(Field::Homeroom) : '';
        $name = $homeroom !== '' ? $homeroom : $this->row->cell(Field::Section);
        // "Math 7" is taught several times over: its number tells which.
        $number = $this->row->cell(Field::SectionNumber);
        $name = $name !== '' && $homeroom === '' && $number !== '' ? "$name - $number" : $name;
        if ($name === '' && !$this->row->hasProblems() && $this->row->cell(Field::Teacher) === '') {
            return null;
        }
        if ($name === '') {
            $this->row->problem(Field::Section, 'There is no name of a section. Type it, or delete the row.');
        } elseif (mb_strlen($name) > 80) {
            $this->row->problem(Field::Section, 'The name is longer than 80 characters. Shorten it.');
        }
        if (preg_match('/^(total|sum)\b/i', $name) === 1) {
            return null;
        }

        return new SectionLine(
            $line->number,
            $name,
            $homeroom !== '',
            $this->row->grade(),
            $this->row->name(Field::Teacher, null, null),
            $this->row->mail(Field::TeacherEmail),
            $this->row->problems(),
            $this->label,
        );
    }
}
