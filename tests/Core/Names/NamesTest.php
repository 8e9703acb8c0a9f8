<?php

declare(strict_types=1);

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Values\CalendarDate;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\MailAddress;

// The readings below are common practice, no source.
it('takes a name in one cell apart', function (string $cell, bool $familyFirst, string $given, string $family): void {
    expect(NameReader::read($cell, $familyFirst))->toEqual(new PersonName($given, $family));
})->with([
    ['Haddad, Noor', false, 'Noor', 'Haddad'],
    ['Noor Haddad', false, 'Noor', 'Haddad'],
    ['Haddad Noor', true, 'Noor', 'Haddad'],
    ['Ines van der Meer', false, 'Ines', 'van der Meer'],
    ['van der Meer Ines', true, 'Ines', 'van der Meer'],
    ['de la Cruz, Sofía Lucía', false, 'Sofía Lucía', 'de la Cruz'],
    ['Duc Anh Pham', false, 'Duc Anh', 'Pham'],
    ['Farid bin Yusof', false, 'Farid', 'bin Yusof'],
    ['  Noor   Haddad ', false, 'Noor', 'Haddad'],
    ["Noor\u{00A0}Haddad", false, 'Noor', 'Haddad'],
    ['Cher', false, 'Cher', ''],
    ['NOOR HADDAD', false, 'Noor', 'Haddad'],
    ["O'DWYER, SAOIRSE", false, 'Saoirse', "O'Dwyer"],
    ['MCALLISTER, EWAN', false, 'Ewan', 'McAllister'],
    ['NWOSU-VALE, AMARA', false, 'Amara', 'Nwosu-Vale'],
    ['noor haddad', false, 'Noor', 'Haddad'],
    ['VAN DER MEER, INES', false, 'Ines', 'van der Meer'],
    ['王小明', false, '小明', '王'],
    ['欧阳文博', false, '文博', '欧阳'],
    ['김민준', false, '민준', '김'],
    ['山田太郎', false, '山田太郎', ''],
    ['Harlow, Robert, III', false, 'Robert', 'Harlow III'],
    ['Harlow, Jr., Robert', false, 'Robert', 'Harlow Jr.'],
    ['Okafor, Chidi, M.', false, 'Chidi M.', 'Okafor'],
    ['Robert Harlow, Jr.', false, 'Robert', 'Harlow Jr.'],
    ['Weller; Tess', false, 'Tess', 'Weller'],
]);

it('shows given name and one initial to classmates', function (string $given, string $family, string $shown): void {
    expect((new PersonName($given, $family))->display())->toBe($shown);
})->with([
    ['Noor', 'Haddad', 'Noor H.'],
    ['Sofía Lucía', 'de la Cruz', 'Sofía C.'],
    ['Cher', '', 'Cher'],
    ['', 'Wu', 'Wu'],
    ['Mateusz', 'żuławski', 'Mateusz Ż.'],
]);

it('reduces names to what stays the same', function (string $name, string $key): void {
    expect(NameKey::of($name))->toBe($key);
})->with([
    ['Żuławski', 'zulawski'],
    ['O’Dwyer', 'odwyer'],
    ["O'Dwyer", 'odwyer'],
    ['Nwosu-Vale', 'nwosu vale'],
    ['Sørensen', 'sorensen'],
    ['  Noor  ', 'noor'],
    ['Олена', 'olena'],
    ['', ''],
]);

it('reads grades as they are written in lists', function (string $cell, ?string $code): void {
    expect(GradeLevel::read($cell)?->code())->toBe($code);
})->with([
    ['5', '05'],
    ['05', '05'],
    ['5th', '05'],
    ['Grade 5', '05'],
    ['Gr. 5', '05'],
    ['Year 10', '10'],
    ['K', 'KG'],
    ['Kindergarten', 'KG'],
    ['Pre-K', 'PK'],
    ['5.0', '05'],
    ['13', '13'],
    ['14', null],
    ['0', 'KG'],
    ['K5', 'KG'],
    ['Kindergarten (AM)', 'KG'],
    ['KDG', 'KG'],
    ['Third', '03'],
    ['Fourth grade', '04'],
    ['Freshman', '09'],
    ['10th gr', '10'],
    ['2nd Gr.', '02'],
    ['G6', '06'],
    ['Std 4', '04'],
    ['Grade: 5', '05'],
    ['6 - Middle', '06'],
    ['III', '03'],
    ['Grade X', '10'],
    ['I', null],
    ['Pre-K 4', 'PK'],
    ['KG1', 'PK'],
    ['KG2', 'KG'],
    ['SK', 'KG'],
    ['Grade K', 'KG'],
    ['Primary 3', '03'],
    ['3º ano', '03'],
    ['3e année', '03'],
    ['4to grado', '04'],
    ['Tercero', '03'],
    ['三年级', '03'],
    ['3학년', '03'],
    ['five', null],
    ['3 Heron', null],
    ['2016', null],
    ['5A', null],
    ['', null],
]);

it('reads dates by the order the column uses', function (string $cell, ?bool $dayFirst, ?string $date): void {
    expect(CalendarDate::read($cell, $dayFirst))->toBe($date);
})->with([
    ['2015-04-03', null, '2015-04-03'],
    ['2015-4-3', null, '2015-04-03'],
    ['2015-04-03 00:00:00', null, '2015-04-03'],
    ['03/04/2015', true, '2015-04-03'],
    ['03/04/2015', false, '2015-03-04'],
    ['03/04/2015', null, null],
    ['04/04/2015', null, '2015-04-04'],
    ['23/04/2015', false, '2015-04-23'],
    ['04/23/2015', true, '2015-04-23'],
    ['3.4.15', true, '2015-04-03'],
    ['42097', null, '2015-04-03'],
    ['31/02/2015', true, null],
    ['2015-13-01', null, null],
    ['spring', null, null],
    ['2016.01.10.', null, '2016-01-10'],
    ['2015-04-03T05:00:00.000Z', null, '2015-04-03'],
    ['2015-04-02T22:00:00Z', null, '2015-04-03'],
    ['28MAY2017', null, '2017-05-28'],
    ["'2017-07-31", null, '2017-07-31'],
    ['29/02/2016', true, '2016-02-29'],
    ['29/02/2015', true, null],
]);

it('settles day and month by one cell over 12, and by none where cells contradict', function (): void {
    expect(CalendarDate::dayFirst(['03/04/2015', '23/04/2015']))
        ->toBeTrue()
        ->and(CalendarDate::dayFirst(['03/04/2015', '04/23/2015']))
        ->toBeFalse()
        ->and(CalendarDate::dayFirst(['03/04/2015']))
        ->toBeNull()
        ->and(CalendarDate::dayFirst(['23/04/2015', '04/23/2015']))
        ->toBeNull();
});

it('reads addresses and refuses what is none', function (string $cell, ?string $address): void {
    expect(MailAddress::read($cell)?->address)->toBe($address);
})->with([
    ['Ann@Shore.Example', 'ann@shore.example'],
    [' ann@shore.example ', 'ann@shore.example'],
    ['mailto:ann@shore.example', 'ann@shore.example'],
    ['Ann Wu <ann@shore.example>', 'ann@shore.example'],
    ['ann+school@shore.example', 'ann+school@shore.example'],
    ['josé@shore.example', 'josé@shore.example'],
    ['ann at shore.example', null],
    ['ann@shore', null],
    ['ann@@shore.example', null],
    ['ann@shore..example', null],
    ['a@b.example, c@d.example', null],
    ['', null],
    ['=1+1@x.example"', null],
]);
