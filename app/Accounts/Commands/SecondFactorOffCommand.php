<?php

declare(strict_types=1);

namespace App\Accounts\Commands;

use App\Accounts\Passkeys;
use App\Models\SignIn;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Accounts\UserNames;

/** For somebody who has lost phone, passkeys and recovery codes. */
final class SecondFactorOffCommand extends Command
{
    protected $signature = 'vantrel:second-factor-off {user : their user name}';

    protected $description = 'Remove second factor and passkeys of somebody on the staff and end their sessions';

    public function handle(): int
    {
        $user = $this->argument('user');
        $signIn = SignIn::query()->where('user_name', UserNames::fold($user))->first();
        if ($signIn === null || DB::table('second_factors')->where('person_id', $signIn->person_id)->doesntExist()) {
            $this->error('Nobody of that user name has a second factor.');

            return self::FAILURE;
        }
        Passkeys::endAll($signIn->person_id);
        DB::table('sessions')->where('user_id', $signIn->person_id)->delete();
        $this->info("Removed for $signIn->user_name; all sessions ended.");

        return self::SUCCESS;
    }
}
