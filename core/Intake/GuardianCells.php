<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\Couple;
use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\NameMarks;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Heading;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\NameOrder;
use Vantrel\Core\Values\MailAddress;

/** Reads one guardian of a row from the cells that are theirs. */
final readonly class GuardianCells
{
    /** What stands in the place of a parent who is none. Common practice, no source. */
    private const NOBODY =
        '/^(?:(?:is )?deceased|dec d?|passed away|late|absent|estranged|incarcerated|deported|not involved|' .
        'not in (?:the )?(?:picture|home)|no (?:mother|father|mom|dad|parent|guardian|contact)|' .
        'see (?:mother|father|mom|dad|above|below|notes?|office|file|other|contacts?|guardian|emergency)\b.*|' .
        'same as (?:mother|father|mom|dad|above)|fallecid[oa]|falleció|finad[oa]|decede e?|verstorben)$/';

    /** @var array<string, bool> field of a name to whether its column puts the family name first */
    private array $familyFirst;

    /** @var list<array{name: Field, given: Field, family: Field, email: Field, phone: Field, relationship: Field}> */
    private array $sets;

    /** @param  list<Line>  $body */
    public function __construct(private RowReader $row, private ListLayout $layout, private NameBook $book, array $body)
    {
        $orders = [];
        foreach ([Field::FullName, ...array_column(Field::guardians(), 'name')] as $field) {
            $orders[$field->value] = $this->orderOf($field, $body);
        }
        $this->familyFirst = $orders;
        $this->sets = array_values(
            array_filter(
                Field::guardians(),
                fn(array $set): bool => array_filter($set, fn(Field $f): bool => $layout->indexOf($f) !== null) !== [],
            ),
        );
    }

    /** @return list<GuardianLine> one, or the two of a couple in one cell, or none */
    public function read(
        Field $name,
        Field $given,
        Field $family,
        Field $email,
        Field $phone,
        Field $relationship,
        PersonName $student,
    ): array {
        $cell = $this->row->cell($name);
        [$whole, $inside] = str_contains($cell, '@') ? self::withMail($cell) : [$cell, ''];
        [$who, $relation] = $this->bare($name, $whole);
        $couple = $who === '' ? null : $this->couple($name, $who, $student);
        $mails = $couple === null ? [$this->row->mail($email)] : $this->row->mails($email);
        $number = $this->row->phone($phone);
        $stated = $this->row->cell($relationship) ?: $relation;
        foreach ([$name, $given, $email, $phone] as $field) {
            $stated = $stated !== '' ? $stated : Heading::relationship($this->layout->headingOf($field));
        }
        if (Caution::in($stated)) {
            $this->row->problem(
                $relationship,
                "“{$stated}” is no relationship, and the guardian is left out. If they are kept from the child, add " .
                    'and restrict them by hand.',
                false,
            );

            return [];
        }
        $stated = mb_substr($stated, 0, 40);
        if ($couple !== null) {
            return [
                new GuardianLine($couple[0], $mails[0] ?? '', $number, $stated),
                new GuardianLine($couple[1], $mails[1] ?? '', '', $stated),
            ];
        }
        $read =
            $who !== ''
                ? $this->one($name, $who, $student)
                : NameReader::mend(
                    new PersonName(
                        $this->bare($given, $this->row->cell($given))[0],
                        $this->bare($family, $this->row->cell($family))[0],
                    ),
                );
        if (NameMarks::isNoName($read->full())) {
            $this->row->problem(
                $name,
                "“{$cell}” holds more than a guardian’s name, and is left out. Give name, phone and relationship a " .
                    'column each.',
                false,
            );
            $read = new PersonName('', '');
        }
        $mail = $mails[0] !== '' ? $mails[0] : $inside;
        if ($read->full() === '' && $mail === '' && $number === '') {
            return [];
        }
        if ($read->full() !== '' && NameKey::of($read->full()) === NameKey::of($student->full())) {
            $this->row->problem(
                $name,
                'The guardian’s name is the student’s own, and is left out. Type the guardian’s name.',
                false,
            );
            // An address or phone beside it is still a guardian's.
            $read = new PersonName('', '');
            if ($mail === '' && $number === '') {
                return [];
            }
        }

        return [new GuardianLine($read, $mail, $number, $stated)];
    }

    /**
     * "Ann Quill <ann@x.example>": a name and an address in one cell.
     *
     * @return array{string, string} the name, and the address or ''
     */
    private static function withMail(string $cell): array
    {
        if (preg_match('/^(.*?\p{L}.*?)[\s<(\[,;:-]+([^\s<>()\[\],;]+@[^\s<>()\[\],;]+)[>)\]]?$/u', $cell, $m) !== 1) {
            return [$cell, ''];
        }
        $mail = MailAddress::read($m[2]);

        return $mail === null ? [$cell, ''] : [trim($m[1]), $mail->address];
    }

    /** @return array{string, string} the name without what is no part of it, and who the cell says it is */
    private function bare(Field $field, string $cell): array
    {
        if ($cell === '') {
            return ['', ''];
        }
        if (preg_match(self::NOBODY, NameKey::of($cell)) === 1) {
            $this->row->problem($field, "“{$cell}” names nobody, and no guardian is made of it.", false);

            return ['', ''];
        }
        $without = Couple::withoutTitles($cell);
        $marks = NameMarks::apart($without);
        if ($marks->name === $cell) {
            return [$cell, ''];
        }

        return $this->row->mend($field, $marks->kind ?: 'titles left out', $cell, $marks->name) === $marks->name
            ? [$marks->name, $marks->relationship]
            : [$cell, ''];
    }

    private function one(Field $name, string $who, PersonName $student): PersonName
    {
        if (Couple::mayBe($who) && !NameMarks::isNoName($who)) {
            $this->row->problem(
                $name,
                "“{$who}” may name two people, and is read as one. Give the second a column of their own.",
                false,
            );
        }

        return NameReader::read(
            $who,
            !str_contains($who, ',') && $this->isFamilyFirst($name, $who, $student),
            $this->book,
        );
    }

    /** @return array{PersonName, PersonName}|null */
    private function couple(Field $name, string $who, PersonName $student): ?array
    {
        $who = $this->atComma($name, $who, $student);
        $read = Couple::read(
            $who,
            !str_contains($who, ',') && $this->isFamilyFirst($name, $who, $student),
            $this->book,
        );
        if ($read === null || array_filter($read, fn(PersonName $n): bool => NameMarks::isNoName($n->full())) !== []) {
            return null;
        }
        $apart = "{$read[0]->full()}; {$read[1]->full()}";

        return $this->row->mend($name, 'two people in one cell', $who, $apart) === $apart ? $read : null;
    }

    /** @return list<GuardianLine> */
    public function all(PersonName $student): array
    {
        $guardians = [];
        foreach ($this->sets as $set) {
            array_push(
                $guardians,
                ...$this->read(
                    $set['name'],
                    $set['given'],
                    $set['family'],
                    $set['email'],
                    $set['phone'],
                    $set['relationship'],
                    $student,
                ),
            );
        }

        return $guardians;
    }

    /** "Anne Rowe, Mark Stone" under "Parents": two whole names, which "Rowe Vale, Anne" is not. */
    private function atComma(Field $name, string $who, PersonName $student): string
    {
        $parts = array_map(trim(...), explode(',', $who));
        $whole = preg_grep('/^\p{L}[^ &+\/;]* +\p{L}[^&+\/;]*$/u', $parts);
        $heading = NameKey::of($this->layout->headingOf($name));
        if (
            count($parts) !== 2 ||
            $whole !== $parts ||
            preg_match('/\b(parents|guardians|names|name s|guardian s|padres|eltern|contacts)\b/', $heading) !== 1 ||
            array_diff(explode(' ', NameKey::of($parts[0])), explode(' ', NameKey::of($student->family))) === []
        ) {
            return $who;
        }

        return implode(' & ', $parts);
    }

    /** By the family name the guardian shares with the student; where they share none, as the column has it. */
    private function isFamilyFirst(Field $field, string $name, PersonName $student): bool
    {
        $words = explode(' ', NameKey::of($name));
        $family = array_filter(explode(' ', NameKey::of($student->family)), fn(string $w): bool => $w !== '');
        $first = in_array($words[0], $family, true);
        $last = in_array($words[count($words) - 1], $family, true);

        return $first !== $last ? $first : $this->familyFirst[$field->value] ?? false;
    }

    /**
     * Each column of guardians has an order of its own, whatever the students' is.
     *
     * @param  list<Line>  $body
     */
    private function orderOf(Field $field, array $body): bool
    {
        $at = $this->layout->indexOf($field);
        if ($at === null) {
            return false;
        }
        $of = fn(Line $line, Field ...$fields): string => implode(
            ' ',
            array_map(
                fn(Field $f): string => ($c = $this->layout->indexOf($f)) === null ? '' : $line->cell($c),
                $fields,
            ),
        );
        $order = NameOrder::of(
            array_map(
                fn(Line $line): array => [
                    $line->cell($at),
                    array_values(array_filter(explode(' ', NameKey::of($of($line, Field::FamilyName))))),
                    (string) strstr(mb_strtolower($of($line, Field::GuardianEmail)), '@', true),
                ],
                array_slice($body, 0, 200),
            ),
            $this->book,
            $this->layout->headingOf($field),
        );

        return $order->odds > 1.0
            ? $order->familyFirst
            : $this->layout->names->familyFirst && $this->layout->names->open > 0;
    }
}
