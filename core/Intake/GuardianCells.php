<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Heading;

/** Reads one guardian of a row from the cells that are theirs. */
final readonly class GuardianCells
{
    public function __construct(private RowReader $row, private ListLayout $layout, private NameBook $book) {}

    public function read(
        Field $name,
        Field $given,
        Field $family,
        Field $email,
        Field $phone,
        Field $relationship,
        PersonName $student,
    ): ?GuardianLine {
        $who = $this->row->cell($name);
        $read =
            $who !== ''
                ? NameReader::read(
                    $who,
                    str_contains($who, ',')
                        ? false
                        : $this->layout->names->familyFirst && $this->layout->names->open > 0,
                    $this->book,
                )
                : NameReader::mend(new PersonName($this->row->cell($given), $this->row->cell($family)));
        $mail = $this->row->mail($email);
        $number = $this->row->phone($phone);
        if ($read->full() === '' && $mail === '' && $number === '') {
            return null;
        }
        if ($read->full() !== '' && NameKey::of($read->full()) === NameKey::of($student->full())) {
            $this->row->problem(
                $name,
                'The guardian’s name is the student’s own, and is left out. Type the guardian’s name.',
                false,
            );

            return null;
        }
        $stated = $this->row->cell($relationship);
        foreach ([$name, $given, $email, $phone] as $field) {
            $stated = $stated !== '' ? $stated : Heading::relationship($this->layout->headingOf($field));
        }

        return new GuardianLine($read, $mail, $number, mb_substr($stated, 0, 40));
    }

    /** @return list<GuardianLine> */
    public function all(PersonName $student): array
    {
        $guardians = [];
        foreach (Field::guardians() as $set) {
            $guardian = $this->read(
                $set['name'],
                $set['given'],
                $set['family'],
                $set['email'],
                $set['phone'],
                $set['relationship'],
                $student,
            );
            if ($guardian !== null) {
                $guardians[] = $guardian;
            }
        }

        return $guardians;
    }
}
