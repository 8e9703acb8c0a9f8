<?php

declare(strict_types=1);

namespace Tests\Support\OddLists;

use Database\Seeders\DemoNames;
use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * Makes lists as offices write them: a layout, headings in a language, a way of writing each value, and some damage,
 * drawn each by itself. Shares nothing with the tables of the reader.
 */
final class OddLists
{
    // prettier-ignore
    public const LAYOUTS = [
        'plain', 'titled', 'two-row header', 'blocks', 'side by side', 'guardian below', 'family once', 'family in a row',
        'one column', 'wide blanks',
    ];

    // prettier-ignore
    private const HEADINGS = [
        'English' => [
            'number' => [
                'Student ID', 'Student #', 'ID Number', 'Stu No.', 'Local ID', 'Pupil number', 'Student Number (6 digits)',
            ],
            'name' => ['Student Name', 'Name', 'Student', 'Pupil', 'Full Name of Student', "Child's name"],
            'given' => ['First', 'First Name', 'Given Name', 'Forename', 'Student First Name', 'FirstName'],
            'family' => ['Last', 'Last Name', 'Surname', 'Family Name', 'Student Last Name', 'LastName'],
            'born' => ['DOB', 'Date of Birth', 'Birth Date', 'Birthdate', 'D.O.B.', 'Born', 'Student DOB'],
            'grade' => ['Grade', 'Gr', 'Gr.', 'Grade Level', 'Yr/Grade', 'Current Grade', 'Grade (26-27)'],
            'section' => ['Homeroom', 'HR', 'Home Room', 'Room', 'Homeroom/Class'],
            'guardian' => [
                'Parent', 'Parent/Guardian', 'Guardian Name', 'Parent Name', 'Mother', 'Contact 1 Name', "Father's
                name",
            ],
            'email' => [
                'Parent Email', 'Email', 'Guardian Email Address', 'E-mail', "Mother's e-mail", 'Contact 1 Email',
                'Father email',
            ],
            'phone' => [
                'Parent Phone', 'Home Phone', 'Guardian Phone #', 'Cell', 'Mother cell', 'Contact 1 Phone', 'Father
                phone',
            ],
        ],
        'Spanish' => [
            'number' => ['Matrícula', 'Número de estudiante', 'Nº de alumno'],
            'name' => ['Nombre completo', 'Nombre y apellidos', 'Alumno'],
            'given' => ['Nombre', 'Nombres'],
            'family' => ['Apellidos', 'Apellido'],
            'born' => ['Fecha de nacimiento', 'F. de nacimiento', 'Nacimiento'],
            'grade' => ['Grado', 'Curso'],
            'section' => ['Aula', 'Salón'],
            'guardian' => ['Madre', 'Nombre del padre', 'Tutor'],
            'email' => ['Correo de la madre', 'Correo electrónico del padre', 'Correo del tutor'],
            'phone' => ['Teléfono de la madre', 'Teléfono del padre', 'Teléfono del tutor'],
        ],
        'French' => [
            'number' => ['Numéro étudiant', "N° d'élève", 'Matricule'],
            'name' => ['Nom et prénom', 'Élève', 'Nom complet'],
            'given' => ['Prénom'],
            'family' => ['Nom', 'Nom de famille'],
            'born' => ['Date de naissance', 'Né(e) le', 'Naissance'],
            'grade' => ['Niveau', 'Année'],
            'section' => ['Classe', 'Salle'],
            'guardian' => ['Mère', 'Nom du père', 'Responsable'],
            'email' => ['Courriel de la mère', 'Mél du père', 'E-mail responsable'],
            'phone' => ['Téléphone de la mère', 'Tél. du père', 'Téléphone responsable'],
        ],
        'German' => [
            'number' => ['Schülernummer', 'Schüler-Nr.'],
            'name' => ['Name', 'Schüler/in', 'Vor- und Nachname'],
            'given' => ['Vorname'],
            'family' => ['Nachname', 'Familienname'],
            'born' => ['Geburtsdatum', 'Geb.-Datum', 'geboren am'],
            'grade' => ['Klassenstufe'],
            'section' => ['Klasse'],
            'guardian' => ['Mutter', 'Erziehungsberechtigte/r', 'Name des Vaters'],
            'email' => ['E-Mail der Mutter', 'E-Mail-Adresse der Eltern', 'Mail Vater'],
            'phone' => ['Telefon der Mutter', 'Telefon Eltern', 'Handy Vater'],
        ],
    ];

    private readonly Randomizer $random;

    private function __construct(int $seed)
    {
        $this->random = new Randomizer(new Mt19937($seed));
    }

    public static function draw(int $seed): OddList
    {
        return (new self($seed))->make();
    }

    private function make(): OddList
    {
        $language = $this->random->getInt(0, 9) < 7 ? 'English' : $this->pick(['Spanish', 'French', 'German']);
        $layout = $this->pick(self::LAYOUTS);
        if ($language !== 'English' && in_array($layout, ['two-row header', 'blocks', 'family in a row'], true)) {
            $layout = 'plain';
        }
        $drawn = [
            'layout' => $layout,
            'language' => $language,
            'names' =>
                $layout === 'family once'
                    ? 'parts'
                    : $this->pick(['parts', 'comma', 'comma', 'given first', 'capitals']),
            'numbers' => $this->pick(['text', 'zeros lost', '#', 'with ID', 'thousands', 'float', 'none']),
            'grades' => $this->pick(['3', '03', '3rd', 'Grade 3', 'Third', 'Gr. 3', 'G3', '3.0']),
            'dates' => $this->pick(['ISO', 'US', 'day first', 'dots', 'name of the month', 'serial', 'zulu', 'none']),
            'guardians' => $layout === 'guardian below' ? 'two' : $this->pick(['none', 'one', 'one', 'two']),
            'damage' => $this->pick([
                'none',
                'none',
                'total',
                'page marks',
                'blanks',
                'header again',
                'unknown columns',
                'marks',
            ]),
        ];
        if (in_array($layout, ['family in a row', 'one column', 'wide blanks', 'family once'], true)) {
            $drawn['guardians'] = $layout === 'family in a row' ? 'one' : 'none';
        }
        if ($layout === 'family in a row') {
            [$drawn['names'], $drawn['numbers'], $drawn['dates'], $drawn['damage']] = [
                'given first',
                'none',
                'none',
                'none',
            ];
        }
        if ($layout === 'side by side') {
            [$drawn['guardians'], $drawn['damage']] = ['none', 'none'];
        }
        if (in_array($layout, ['one column', 'wide blanks'], true) && in_array($drawn['names'], ['comma'], true)) {
            $drawn['names'] = $layout === 'one column' ? 'parts' : 'comma';
        }
        $children = $this->children($drawn, $this->random->getInt(8, 26));
        $rows = (new OddWriter($this->random, self::HEADINGS[$language], $drawn))->rows($children);

        return new OddList($rows, $children, $drawn);
    }

    /**
     * @param  array<string, string>  $drawn
     * @return list<Child>
     */
    private function children(array $drawn, int $n): array
    {
        $children = [];
        $used = [];
        while (count($children) < $n) {
            $given = $this->pick(DemoNames::GIVEN);
            $family = $this->pick(DemoNames::FAMILY);
            $key = "$given $family";
            // Names of several words without a comma are another question than this one.
            if (
                isset($used[$key]) ||
                (in_array($drawn['names'], ['given first', 'capitals'], true) &&
                    str_contains(trim("$given$family"), ' '))
            ) {
                continue;
            }
            $used[$key] = true;
            $grade = $this->random->getInt(1, 5);
            $guardians = [];
            foreach (array_slice([0, 1], 0, ['none' => 0, 'one' => 1, 'two' => 2][$drawn['guardians']]) as $g) {
                $first = $this->pick(DemoNames::GIVEN);
                while (str_contains($first, ' ') || $first === $given) {
                    $first = $this->pick(DemoNames::GIVEN);
                }
                $guardians[] = [
                    'name' => "$first $family",
                    'email' => 'g' . count($children) . "x$g@shoremail.example",
                    'phone' => sprintf('+1202555%04d', 100 + ((count($children) * 2 + $g) % 100)),
                ];
            }
            $children[] = new Child(
                $given,
                $family,
                $drawn['numbers'] === 'none' ? '' : $this->number(count($children), $used),
                $drawn['dates'] === 'none'
                    ? ''
                    : sprintf(
                        '%04d-%02d-%02d',
                        2026 - 6 - $grade + $this->random->getInt(0, 1),
                        $this->random->getInt(1, 12),
                        $this->random->getInt(1, 28),
                    ),
                sprintf('%02d', $grade),
                in_array($drawn['layout'], ['blocks', 'side by side', 'family in a row'], true)
                    ? ''
                    : "$grade" . $this->pick(['A', 'B']),
                $guardians,
            );
        }

        return $children;
    }

    /**
     * A student number that nobody has yet; one in four begins with a zero.
     *
     * @param  array<int|string, true>  $used
     */
    private function number(int $child, array &$used): string
    {
        do {
            $number = sprintf(
                '%06d',
                $child % 4 === 1 ? $this->random->getInt(10_000, 99_999) : $this->random->getInt(100_000, 999_999),
            );
        } while (isset($used[$number]));
        $used[$number] = true;

        return $number;
    }

    private function pick(array $of): mixed
    {
        return $of[$this->random->getInt(0, count($of) - 1)];
    }
}
