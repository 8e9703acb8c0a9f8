<?php

declare(strict_types=1);

namespace Tests\Support;

use Database\Seeders\DemoNames;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Vantrel\Core\Matching\Subject;

/**
 * A district of made-up students and a list of some of them, some others, and everything that happens to lists on the
 * way: typing errors, short names, swapped fields, moved families, twins, namesakes, brothers and sisters. Knows the
 * truth, and knows nothing of the matcher's tables: short names are of its own list, half of them in no table.
 */
final class MixedUpList
{
    /** What each kind of list has beside the names. */
    public const KINDS = [
        'number, birth date, guardians' => ['number', 'birth', 'grade', 'contacts'],
        'birth date, guardians' => ['birth', 'grade', 'contacts'],
        'birth date' => ['birth', 'grade'],
        'grade, guardians' => ['grade', 'contacts'],
        'number only' => ['number'],
        'grade only' => ['grade'],
    ];

    // prettier-ignore
    private const SHORT = [
        'Augustin' => 'Gus', 'Wilhelmina' => 'Billie', 'Katherine' => 'Kate', 'Alexander' => 'Sasha',
        'Elizabeth' => 'Betsy', 'Michael' => 'Mike', 'Robert' => 'Bob', 'William' => 'Bill', 'Francisco' => 'Paco',
        'Guadalupe' => 'Lupe', 'José' => 'Pepe', 'Theodora' => 'Dora', 'Maximilian' => 'Max', 'Bartholomew' => 'Bart',
        'Anastasia' => 'Nastya', 'Jessamyn' => 'Jess', 'Leopold' => 'Poldi', 'Concepción' => 'Concha',
        'Temperance' => 'Tempe', 'Oluwaseun' => 'Seun', 'Chukwuemeka' => 'Emeka', 'Nathaniel' => 'Nat',
        'Margaret' => 'Peggy', 'Eleanor' => 'Nell', 'Jonathan' => 'Jon', 'Christopher' => 'Topher',
        'Isabella' => 'Izzy', 'Samantha' => 'Sam', 'Gabriel' => 'Gabe', 'Patricia' => 'Tricia', 'Zachary' => 'Zach',
        'Cordelia' => 'Delia',
    ];

    /** @var list<Subject> */
    public array $known = [];

    /** @var list<Subject> */
    public array $rows = [];

    /** @var array<string, string|null> row's id to the id of the person it is, null for nobody known */
    public array $truth = [];

    private Randomizer $random;

    /** @var list<string> */
    private array $given;

    /** @var list<string> */
    private array $family;

    /**
     * @param  key-of<self::KINDS>  $kind
     * @param  int  $namesakes of a hundred strangers, how many have the name of somebody known; beyond two they are of
     *     their grade and year too, and have no number
     */
    public function __construct(
        int $seed,
        private readonly string $kind,
        private readonly int $people = 5000,
        private readonly int $length = 1000,
        private readonly float $knownShare = 0.75,
        private readonly int $namesakes = 2,
    ) {
        $this->random = new Randomizer(new Mt19937($seed));
        $this->given = [
            ...DemoNames::GIVEN,
            ...array_keys(self::SHORT),
            ...$this->invented(260, ['a', 'o', 'el', 'in', 'ette', 'ian', 'is', 'ey']),
        ];
        $this->family = [
            ...DemoNames::FAMILY,
            ...$this->invented(1600, ['son', 'ez', 'enko', 'ski', 'er', 'wright', 'a', 'ini', 'oglu', 'well', 'ström']),
        ];
        $this->given = $this->random->shuffleArray($this->given);
        $this->family = $this->random->shuffleArray($this->family);
        $this->district();
        $this->list();
    }

    /**
     * @param  list<string>  $ends
     * @return list<string>
     */
    private function invented(int $n, array $ends): array
    {
        // prettier-ignore
        $starts = [
            'Ba', 'Ce', 'Da', 'El', 'Fa', 'Go', 'Ha', 'Il', 'Jo', 'Ka', 'Lo', 'Ma', 'Ne', 'Os', 'Pe', 'Qui', 'Ro', 'Sa',
            'Te', 'Ul', 'Ve', 'Wa', 'Yo', 'Ze', 'Bri', 'Cla', 'Dro', 'Fre', 'Gra', 'Kri', 'Sto', 'Tha',
        ];
        // prettier-ignore
        $middles = [
            'b', 'd', 'ld', 'l', 'll', 'm', 'n', 'nd', 'r', 'rr', 's', 'st', 't', 'v', 'z', 'k', 'rk', 'ch', 'g',
        ];
        $names = [];
        while (count($names) < $n) {
            $names[$this->one($starts) . $this->one($middles) . $this->one($ends)] = true;
        }

        return array_keys($names);
    }

    private function district(): void
    {
        $id = 0;
        while (count($this->known) < $this->people) {
            $family = $this->common($this->family);
            $mail = [
                strtolower(bin2hex(pack('n', $this->random->getInt(0, 65535)))) . $id . '@shoremail.example',
                'b' . $id . '@harbornet.example',
            ];
            $children = $this->random->getInt(1, 3);
            $previous = null;
            for ($c = 0; $c < $children; $c++) {
                $twin = $previous !== null && $this->chance(3);
                $grade = $twin ? (int) $previous->grade : $this->random->getInt(1, 12);
                $person = $this->person('p' . $id++, $family, $grade, $mail, $twin ? $previous->birthDate : null);
                $this->known[] = $previous = $person;
            }
        }
        // Namesakes: two children of one name, born on other days.
        foreach ($this->random->pickArrayKeys($this->known, max(1, intdiv($this->people, 200))) as $at) {
            $original = $this->known[$at];
            $this->known[] = new Subject(
                'p' . $id,
                $original->given,
                $original->family,
                $this->birth((int) $original->grade),
                sprintf('%06d', 20000 + $id),
                '',
                $original->grade,
                $original->schoolId,
                ["n$id@shoremail.example"],
            );
            $id++;
        }
    }

    /** @param  list<string>  $contacts */
    private function person(string $id, string $family, int $grade, array $contacts, ?string $birth = null): Subject
    {
        $given = $this->common($this->given);

        return new Subject(
            $id,
            $this->chance(6) ? $given . ' ' . $this->common($this->given) : $given,
            $this->chance(4) ? $family . ' ' . $this->common($this->family) : $family,
            $this->chance(97) ? $birth ?? $this->birth($grade) : '',
            $this->chance(93) ? sprintf('%06d', 20000 + (int) substr($id, 1)) : '',
            '',
            sprintf('%02d', $grade),
            $this->school($grade),
            $this->chance(88) ? array_slice($contacts, 0, $this->random->getInt(1, 2)) : [],
        );
    }

    private function list(): void
    {
        $here = array_values(
            array_filter($this->known, fn(Subject $s): bool => $s->schoolId === 'a' || $s->schoolId === 'm'),
        );
        $some = $this->random->shuffleArray($here);
        for ($i = 0; $i < $this->length; $i++) {
            $id = "r$i";
            if ($this->random->getInt(0, 999_999) / 1_000_000 < $this->knownShare && $some !== []) {
                $person = $this->chance(4) ? $this->one($this->known) : array_pop($some);
                if (in_array($person->id, $this->truth, true)) {
                    continue;
                }
                $this->truth[$id] = $person->id;
                $this->rows[] = $this->written($id, $person);
            } else {
                $this->truth[$id] = null;
                $this->rows[] = $this->written($id, $this->stranger($id));
            }
        }
    }

    private function stranger(string $id): Subject
    {
        $like = $this->one($this->known);
        $number = sprintf('%06d', 700000 + $this->random->getInt(0, 200000));
        if ($this->chance(25)) {
            $twin = $this->chance(6);
            $grade = $twin ? (int) $like->grade : $this->random->getInt(1, 12);
            do {
                $given = $this->common($this->given);
            } while ($given === $like->given);

            return new Subject(
                $id,
                $given,
                $like->family,
                $twin && $like->birthDate !== '' ? $like->birthDate : $this->birth($grade),
                $number,
                '',
                sprintf('%02d', $grade),
                'a',
                $like->contacts,
            );
        }
        $near = $this->namesakes > 2;
        if ($this->chance($this->namesakes) && (!$near || $like->birthDate !== '')) {
            do {
                $birth = $this->birth((int) $like->grade);
            } while ($near && self::alike(substr($birth, 5), substr($like->birthDate, 5)));

            return new Subject(
                $id,
                $like->given,
                $like->family,
                $near ? substr($like->birthDate, 0, 4) . substr($birth, 4) : $birth,
                $near ? '' : $number,
                '',
                $near ? $like->grade : sprintf('%02d', $this->random->getInt(1, 12)),
                'a',
                ["s$id@shoremail.example"],
            );
        }

        $new = $this->person('p900000', $this->common($this->family), $this->random->getInt(1, 12), [
            "s$id@shoremail.example",
        ]);

        return new Subject(
            $id,
            $new->given,
            $new->family,
            $new->birthDate,
            $number,
            '',
            $new->grade,
            'a',
            $new->contacts,
        );
    }

    /** The person as a hurried hand writes them. */
    private function written(string $id, Subject $p): Subject
    {
        $given = explode(' ', $p->given);
        $given = count($given) > 1 && $this->chance(50) ? $given[0] : $p->given;
        $family = explode(' ', $p->family);
        $family = count($family) > 1 && $this->chance(25) ? $this->one($family) : $p->family;
        if ($this->chance(35) && isset(self::SHORT[$given])) {
            $given = self::SHORT[$given];
        }
        if ($this->chance(3)) {
            $given = $this->slip($given);
        }
        if ($this->chance(3)) {
            $family = $this->slip($family);
        }
        if ($this->chance(1)) {
            $given = mb_substr($given, 0, 1);
        }
        if ($this->random->getInt(1, 1000) <= 4) {
            $family = $this->common($this->family);
        }
        if ($this->chance(20)) {
            [$given, $family] = [mb_strtoupper($given), mb_strtoupper($family)];
        }
        if ($this->random->getInt(1, 1000) <= 15) {
            [$given, $family] = [$family, $given];
        }
        $has = self::KINDS[$this->kind];
        $birth = $p->birthDate;
        if ($birth !== '' && $this->chance(2)) {
            $birth =
                substr($birth, 0, 8) .
                sprintf('%02d', min(28, max(1, (int) substr($birth, 8) + ($this->chance(50) ? 1 : -10))));
        } elseif ($birth !== '' && $this->chance(1) && (int) substr($birth, 8) <= 12) {
            $birth = substr($birth, 0, 5) . substr($birth, 8, 2) . '-' . substr($birth, 5, 2);
        }
        $number = $this->chance(3) ? '' : $p->number;
        if ($number !== '' && $this->chance(1)) {
            $number =
                strrev(substr($number, -2)) === substr($number, -2)
                    ? $number
                    : substr($number, 0, -2) . strrev(substr($number, -2));
        }
        $contacts = $this->chance(15)
            ? ["new$id@shoremail.example"]
            : array_slice($p->contacts, 0, $this->random->getInt(1, 2));
        $grade = $this->chance(2)
            ? sprintf('%02d', $this->random->getInt(1, 12))
            : sprintf('%02d', min(12, (int) $p->grade + 1));

        return new Subject(
            $id,
            $given,
            $family,
            in_array('birth', $has, true) ? $birth : '',
            in_array('number', $has, true) ? $number : '',
            '',
            in_array('grade', $has, true) ? $grade : '',
            $p->schoolId,
            in_array('contacts', $has, true) ? $contacts : [],
        );
    }

    /** Whether two days of a year share the day or the month, or are each other turned round. */
    private static function alike(string $one, string $other): bool
    {
        [$month, $day] = explode('-', $one);

        return in_array($month, explode('-', $other), true) || in_array($day, explode('-', $other), true);
    }

    private function slip(string $name): string
    {
        $at = $this->random->getInt(0, max(0, mb_strlen($name) - 2));
        $letter = chr($this->random->getInt(97, 122));

        return match ($this->random->getInt(0, 3)) {
            0 => mb_substr($name, 0, $at + 1) . $letter . mb_substr($name, $at + 1),
            1 => mb_substr($name, 0, $at) . mb_substr($name, $at + 1),
            2 => mb_substr($name, 0, $at) . $letter . mb_substr($name, $at + 1),
            default => mb_substr($name, 0, $at) .
                mb_substr($name, $at + 1, 1) .
                mb_substr($name, $at, 1) .
                mb_substr($name, $at + 2),
        };
    }

    private function birth(int $grade): string
    {
        return sprintf(
            '%d-%02d-%02d',
            2020 - $grade - $this->random->getInt(0, 1),
            $this->random->getInt(1, 12),
            $this->random->getInt(1, 28),
        );
    }

    private function school(int $grade): string
    {
        return $grade <= 5 ? $this->one(['a', 'b', 'c']) : ($grade <= 8 ? 'm' : 'h');
    }

    private function chance(int $percent): bool
    {
        return $this->random->getInt(1, 100) <= $percent;
    }

    /**
     * @template T
     * @param  list<T>  $from
     * @return T
     */
    private function one(array $from): mixed
    {
        return $from[$this->random->getInt(0, count($from) - 1)];
    }

    /**
     * Early entries far oftener than late ones, as names are: rank by the cube of a uniform draw.
     *
     * @param  list<string>  $from
     */
    private function common(array $from): string
    {
        return $from[(int) (count($from) * ($this->random->getInt(0, 999_999) / 1_000_000) ** 2.5)];
    }
}
