<?php

use Vantrel\Core\Placement\SchoolSettings;

return [
    // The longest that a school may let people stay signed in. All other sessions end with the browser and after two idle hours:
    // App\Access\KeepSession.
    'lifetime' => SchoolSettings::MOST_STAY_DAYS * 24 * 60,
    'expire_on_close' => true,
];
