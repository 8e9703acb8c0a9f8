<?php

declare(strict_types=1);

use Tests\Support\ServerTestCase;

pest()
    ->extend(ServerTestCase::class)
    ->in(
        'Api',
        'Reference/CardsTest.php',
        'Reference/LettersTest.php',
        'Reference/LongNamesTest.php',
        'Reference/MailServerTest.php',
        'Reference/OneRosterChangesTest.php',
        'Reference/OneRosterServiceTest.php',
        'Reference/SpreadsheetsTest.php',
        'Reference/BrokenFilesTest.php',
        'Reference/DamagedFilesTest.php',
        'Reference/CellMarksTest.php',
    );
