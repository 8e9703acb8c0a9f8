<?php

declare(strict_types=1);

namespace App\Tools;

use Database\Seeders\DemoNames;
use Random\Randomizer;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\OneRoster\Tables;
use ZipArchive;

/** A OneRoster 1.1 bulk export of eighteen new students of the middle school, with their classes and guardians. */
final class DemoOneRoster
{
    public function __construct(private readonly Randomizer $random) {}

    public function write(): void
    {
        $tables = [
            'manifest' => [
                ['propertyName', 'value'],
                ['manifest.version', '1.0'],
                ['oneroster.version', '1.1'],
                ['file.users', 'bulk'],
                ['file.classes', 'bulk'],
                ['file.enrollments', 'bulk'],
                ['file.orgs', 'bulk'],
                ['file.demographics', 'bulk'],
            ],
            'orgs' => [
                ['sourcedId', 'status', 'dateLastModified', 'name', 'type', 'identifier', 'parentSourcedId'],
                ['org1', '', '', 'Copperbrook Middle', 'school', 'middle', ''],
            ],
            'classes' => [
                Tables::HEADERS['classes'],
                ['c1', '', '', 'Tide pools 6', '06', 'k1', 'TP6', 'scheduled', '', 'org1', 't1', '', '', ''],
            ],
            'users' => [
                [
                    'sourcedId',
                    'status',
                    'dateLastModified',
                    'enabledUser',
                    'orgSourcedIds',
                    'role',
                    'username',
                    'userIds',
                    'givenName',
                    'familyName',
                    'middleName',
                    'identifier',
                    'email',
                    'sms',
                    'phone',
                    'agentSourcedIds',
                    'grades',
                    'password',
                ],
            ],
            'enrollments' => [Tables::HEADERS['enrollments']],
            'demographics' => [['sourcedId', 'status', 'dateLastModified', 'birthDate', 'sex']],
        ];
        for ($i = 1; $i <= 18; $i++) {
            $family = $this->pick(DemoNames::FAMILY);
            $guardian = $this->pick(DemoNames::GIVEN);
            $tables['users'][] = [
                "s$i",
                '',
                '',
                'true',
                'org1',
                'student',
                '',
                '',
                $this->pick(DemoNames::GIVEN),
                $family,
                '',
                sprintf('%06d', 61_000 + $i),
                '',
                '',
                '',
                "g$i",
                '06',
                '',
            ];
            $tables['users'][] = [
                "g$i",
                '',
                '',
                'true',
                'org1',
                'guardian',
                '',
                '',
                $guardian,
                $family,
                '',
                '',
                str_replace(' ', '.', NameKey::of("$guardian $family")) . "$i@harborpost.example",
                '',
                '',
                "s$i",
                '',
                '',
            ];
            $tables['enrollments'][] = ["e$i", '', '', 'c1', 'org1', "s$i", 'student', 'false', '', ''];
            $tables['demographics'][] = [
                "s$i",
                '',
                '',
                sprintf('2015-%02d-%02d', $this->random->getInt(1, 12), $this->random->getInt(1, 28)),
                '',
            ];
        }
        $zip = new ZipArchive();
        $zip->open(base_path('demo/oneroster-copperbrook.zip'), ZipArchive::CREATE | ZipArchive::OVERWRITE);
        foreach ($tables as $name => $rows) {
            $zip->addFromString(
                "$name.csv",
                implode(
                    "\r\n",
                    array_map(
                        fn(array $r): string => implode(
                            ',',
                            array_map(
                                fn(string $c): string => preg_match('/[",]/', $c) === 1
                                    ? '"' . str_replace('"', '""', $c) . '"'
                                    : $c,
                                $r,
                            ),
                        ),
                        $rows,
                    ),
                ) . "\r\n",
            );
        }
        $zip->close();
    }

    /** @param  list<string>  $from */
    private function pick(array $from): string
    {
        return $from[$this->random->getInt(0, count($from) - 1)];
    }
}
