<?php

declare(strict_types=1);

use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Guardians\Claimant;
use Vantrel\Core\Guardians\GuardianPolicy;
use Vantrel\Core\Guardians\Likeness;
use Vantrel\Core\Guardians\OnRecord;
use Vantrel\Core\Names\PersonName;

// 600 families made up by lot: who is on record, and who comes. Of the false ones all hold a letter, for letters get
// about; of the true ones all come with an address that has answered, and names as people write them.

const PLANTED_GIVEN = [
    'Layla',
    'Karim',
    'Wilhelmina',
    'Josef',
    'Marta',
    'Oluwaseun',
    'Ines',
    'Thanh',
    'Björn',
    'Katarzyna',
    'Robert',
    'Elizabeth',
    'Mohamed',
    'Xiomara',
    'Andriy',
    'Niamh',
];
const PLANTED_FAMILY = [
    'Haddad',
    'Seabright',
    'Okonjo',
    'van der Velde',
    'Marchetti',
    'Nguyen',
    'Ferreira da Silva',
    'Halloran',
    'Kovalenko',
    'Thorne',
    'Reyes',
    'Aske',
];
// Short forms and other spellings that people use for themselves.
const PLANTED_SHORT = [
    'Robert' => 'Bob',
    'Elizabeth' => 'Liz',
    'Mohamed' => 'Muhammad',
    'Josef' => 'Joseph',
    'Katarzyna' => 'Kasia',
    'Oluwaseun' => 'Seun',
];

/** @return array{list<OnRecord>, string, string, string} guardians on record; given, family and address of the first */
function plantedFamily(KeyedStream $random, int $i): array
{
    $pick = fn(array $of): string => $of[$random->below(count($of))];
    $family = $pick(PLANTED_FAMILY);
    [$one, $two] = [$pick(PLANTED_GIVEN), $pick(PLANTED_GIVEN)];
    $two = $two === $one ? 'Saskia' : $two;
    $mail = "f$i.one@shoremail.example";

    return [
        [
            recorded("$one $family", ['email' => $mail, 'phone' => "+1202555$i"]),
            recorded("$two $family", ['email' => "f$i.two@shoremail.example"], 'listed', null, 'two'),
        ],
        $one,
        $family,
        $mail,
    ];
}

it('connects none of 300 who are not guardians', function (): void {
    $random = new KeyedStream('a key of sixteen bytes', 'false claims');
    $connected = [];
    for ($i = 0; $i < 300; $i++) {
        [$record, $given, $family, $mail] = plantedFamily($random, 1000 + $i);
        $other = "neighbour$i@shoremail.example";
        [$kind, $who] = match ($i % 10) {
            0 => ['a neighbour', comesAs('Saskia Thorne', $other)],
            1 => ['an aunt with the family’s name', comesAs("Odile $family", $other)],
            2 => ['somebody who knows the guardian’s name', comesAs("$given $family", $other)],
            3 => ['who typed the address and cannot read it', comesAs("$given $family", $mail, null, false)],
            4 => ['a grown sister in the mailbox of the household', comesAs("Tamsin $family", $mail)],
            5 => ['who knows the number', comesAs("$given $family", $other, '+1202555' . (1000 + $i))],
            6 => [
                'a father who is kept away, address and all',
                comesAs("$given $family", $mail),
                ($record[0] = recorded("$given $family", ['email' => $mail], 'listed', 'court order')),
            ],
            7 => [
                'a guardian who was disconnected',
                comesAs("$given $family", $mail),
                ($record[0] = recorded("$given $family", ['email' => $mail], 'ended')),
            ],
            8 => [
                'a father kept away, who has had an address put on record under his name',
                comesAs("$given $family", $other),
                array_push(
                    $record,
                    recorded("$given $family", ['email' => $other], 'listed', null, 'three'),
                    recorded("$given $family", ['email' => $mail], 'listed', 'court order', 'kept away'),
                ),
            ],
            default => [
                'the guardian of another child',
                comesAs('Hélène Marchetti', 'f' . (2000 + $i) . '@shoremail.example'),
            ],
        };
        $decision = (new Likeness())->decide($who, 'school', $record, GuardianPolicy::AtOnce);
        if ($decision->connects || $decision->sends) {
            $connected[] = $kind;
        }
    }
    expect($connected)->toBe([]);
});

it('connects at least 95 of 100 true ones whose address has answered', function (): void {
    $random = new KeyedStream('a key of sixteen bytes', 'true claims');
    $connected = 0;
    $missed = [];
    for ($i = 0; $i < 300; $i++) {
        [$record, $given, $family, $mail] = plantedFamily($random, 4000 + $i);
        $first = explode(' ', $family);
        $name = match ($i % 10) {
            0 => mb_strtoupper("$given $family"),
            1 => "$given " . end($first),
            2 => (PLANTED_SHORT[$given] ?? $given) . " $family",
            3 => "$given Maria $family",
            4 => "$given Brandt",
            5 => substr($given, 0, 1) . " $family",
            6 => strtr("$given $family", ['ö' => 'oe', 'é' => 'e']),
            7 => substr($given, 0, -1) . substr($given, -1) . substr($given, -1) . " $family",
            default => "$given $family",
        };
        $who = comesAs($name, $mail);
        $decision = (new Likeness())->decide($who, 'school', $record, GuardianPolicy::AtOnce);
        $connected += (int) ($decision->connects && $decision->whom?->person->id === 'guardian');
        if (!$decision->connects) {
            $missed[] = "$name for $given $family";
        }
    }
    expect($connected)->toBeGreaterThanOrEqual(285, implode('; ', $missed));
});

it('shows whoever looks the one they most seem to be', function (): void {
    $decision = (new Likeness())->decide(
        new Claimant(new PersonName('Layla', 'Haddad'), 'new@shoremail.example'),
        'school',
        [recorded('Karim Haddad', [], 'listed', null, 'karim'), recorded('Layla Haddad')],
        GuardianPolicy::AtOnce,
    );
    expect($decision->whom?->person->id)->toBe('guardian');
});
